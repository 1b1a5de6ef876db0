import { type AddressInfo, type Server } from 'node:net';
import { type AppOptions, buildApp } from '../app';
import { bothWays, type Listening, oneWay } from '../door/bothWays';
import { readySecret } from '../door/devices';
import { hostsOf } from '../door/hosts';
import { readyKeys } from '../door/keys';
import { isEasy } from '../door/phrase';
import { authorityLabel, forOthers, reachedBy, vouched } from '../door/reached';
import { trustPage } from '../door/trustPage';
import { CannotStart } from './cannot';
import { type NetworkSettings, type Settings } from './settings';

/** What an error of listening means. */
function listenTrouble({ host, port }: Settings, error: NodeJS.ErrnoException): string {
  switch (error.code) {
    case 'EADDRINUSE':
      return `Port ${port} is taken. Set PORT to another one.`;
    case 'EACCES':
      return `Zaffet may not listen on port ${port}. Set PORT to one above 1023.`;
    case 'EADDRNOTAVAIL':
    case 'ENOTFOUND':
      return `This machine has no address ${host}. Set ZAFFET_HOST to one it has, or leave it out.`;
    default:
      return `Zaffet cannot listen on ${host}, port ${port} (${error.code ?? error.message}). Set PORT or ZAFFET_HOST to others.`;
  }
}

function begun(server: Server, settings: Settings): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', (error) => reject(new CannotStart(listenTrouble(settings, error))));
    server.listen(settings.port, settings.host, () => resolve((server.address() as AddressInfo).port));
  });
}

/** What listens, and what is said once it does. */
interface Opened extends Pick<Listening, 'server' | 'closeAll'> {
  readonly told: readonly string[];
}

/** Answers to its own machine alone, by plain http: browsers take that for secure. */
async function ownMachine(settings: Settings, options: AppOptions): Promise<Opened> {
  const { server, answers, closeAll } = oneWay(null);
  const { host } = settings;
  answers.on('request', buildApp({ ...options, hosts: hostsOf(reachedBy(host, [])) }));
  const port = await begun(server, settings);
  return {
    server,
    closeAll,
    told: [`Zaffet is ready at http://${host.includes(':') ? `[${host}]` : host}:${port}`],
  };
}

/** Opens Zaffet to the shop's network. */
async function shopNetwork(
  settings: Settings,
  { phrase, names, tls, keys }: NetworkSettings,
  options: AppOptions,
): Promise<Opened> {
  if (await isEasy(phrase))
    throw new CannotStart(
      'The pass phrase is easily guessed: it is a common one, or repeats itself. Write four or five words that do not belong together into the file of ZAFFET_PASSPHRASE_FILE.',
    );
  const reached = reachedBy(settings.host, names);
  const secret = await readySecret(options.db, phrase);
  const own = tls === 'own' ? await readyKeys(keys, vouched(reached), authorityLabel()) : null;
  const { server, answers, strays, closeAll } =
    own === null ? oneWay(tls === 'off' || tls === 'own' ? null : tls) : bothWays(own.server);
  // Where it is reached is known only now; nothing is answered before.
  const there = `${forOthers(reached)}:${await begun(server, settings)}`;
  const secure = tls !== 'off';
  const address = `${secure ? 'https' : 'http'}://${there}`;
  const trust = own && { address: `http://${there}/`, fingerprint: own.fingerprint };
  const hosts = hostsOf(reached);
  answers.on('request', buildApp({ ...options, hosts, network: { secret, secure, address, trust } }));
  if (own !== null)
    strays?.on(
      'request',
      trustPage({ hosts, certificate: own.authority.cert, fingerprint: own.fingerprint, address }),
    );
  const aside = secure
    ? trust && `Devices learn to trust it at ${trust.address}; the fingerprint is ${trust.fingerprint}`
    : 'Zaffet is open to the network without TLS: whoever listens there reads along.';
  return {
    server,
    closeAll,
    told: [...(aside === null ? [] : [aside]), `Zaffet is ready at ${address}`],
  };
}

/** Begins to listen, as the settings say. @throws CannotStart where it cannot */
export function listen(settings: Settings, options: AppOptions): Promise<Opened> {
  return settings.network === null
    ? ownMachine(settings, options)
    : shopNetwork(settings, settings.network, options);
}
