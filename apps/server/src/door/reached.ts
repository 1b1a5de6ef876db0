import { hostname, networkInterfaces } from 'node:os';
import { isIP } from 'node:net';
import { type Reached } from './authority';

const LOOPBACK = ['127.0.0.1', '::1'];
const EVERYWHERE = ['0.0.0.0', '::'];
/** RFC 1918, 3927 and 4193, and the loopback ones: addresses that nobody has on the internet. */
const PRIVATE = /^(10\.|192\.168\.|172\.(1[6-9]|2\d|3[01])\.|169\.254\.|127\.|f[cd]|::1$)/;

/** Whether an address is the machine's own alone. */
export const isLoopback = (host: string): boolean =>
  host === 'localhost' || host === '::1' || /^127\.\d+\.\d+\.\d+$/.test(host);

/** An address or a name as requests spell it: lower case, IPv6 in its short form (RFC 5952) and without brackets. */
export function hostSpelled(text: string): string {
  const bare = text
    .trim()
    .toLowerCase()
    .replace(/^\[(.*)\]$/, '$1');
  return isIP(bare) === 6 && !bare.includes('%') ? new URL(`http://[${bare}]`).hostname.slice(1, -1) : bare;
}

/**
 * What a server that listens on an address is reached by.
 * @param names - those somebody gave it
 */
export function reachedBy(host: string, names: readonly string[]): Reached {
  // An address with a zone, as fe80::1%eth0, is none that a browser takes.
  const own = EVERYWHERE.includes(host)
    ? Object.values(networkInterfaces())
        .flatMap((all) => all ?? [])
        .map(({ address }) => address)
        .filter((address) => !address.startsWith('fe80'))
    : isIP(host) === 0
      ? []
      : [host];
  const named = isIP(host) === 0 ? [host] : [];
  return {
    names: [...new Set([...names, ...named, 'localhost'].map((name) => name.toLowerCase()))],
    addresses: [...new Set([...own, ...LOOPBACK])],
  };
}

/** Those of them that the shop's own authority may vouch for. */
export const vouched = ({ names, addresses }: Reached): Reached => ({
  names,
  addresses: addresses.filter((address) => PRIVATE.test(address)),
});

/** What other devices write to reach it: a name that was given, else an address of the shop's network. */
export function forOthers({ names, addresses }: Reached): string {
  const name = names.find((one) => one !== 'localhost');
  const others = addresses.filter((address) => !isLoopback(address));
  const address = others.find((one) => PRIVATE.test(one) && isIP(one) === 4) ?? others[0] ?? LOOPBACK[0]!;
  return name ?? (isIP(address) === 6 ? `[${address}]` : address);
}

/** What devices list the authority as. */
export const authorityLabel = (): string => `Zaffet on ${hostname()}`;
