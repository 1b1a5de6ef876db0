import { fault } from '@zaffet/contract';
import { type RequestHandler } from 'express';
import { type Reached } from './authority';

const READS = ['GET', 'HEAD', 'OPTIONS'];

/** Names and addresses that are answered to, as a `Host` header spells them. */
export const hostsOf = ({ names, addresses }: Reached): ReadonlySet<string> =>
  new Set([...names, ...addresses, ...addresses.map((address) => `[${address}]`)]);

/** A page of another site must not reach this server through a name of its own. */
export const knownHostsOnly =
  (hosts: ReadonlySet<string>): RequestHandler =>
  (request, response, next) => {
    if (hosts.has((request.hostname ?? '').toLowerCase())) next();
    else response.status(403).json(fault('request.host-refused'));
  };

/**
 * Nor may it ask anything of the server by a form, a picture or a request that a browser sends for it, whatever the
 * method: also what is only read may cost much. Pages themselves may be linked to from anywhere.
 */
export const ownPagesOnly: RequestHandler = (request, response, next) => {
  const { origin, host = '' } = request.headers;
  const site = request.headers['sec-fetch-site'] ?? 'same-origin';
  const own =
    origin === undefined
      ? site === 'same-origin' || site === 'none'
      : URL.canParse(origin) && new URL(origin).origin === `${request.protocol}://${host.toLowerCase()}`;
  const isPage = READS.includes(request.method) && !/^\/api(\/|$)/i.test(request.path);
  if (own || isPage) next();
  else response.status(403).json(fault('request.origin-refused'));
};
