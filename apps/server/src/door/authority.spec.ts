import { X509Certificate } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, request } from 'node:https';
import { type AddressInfo, isIP } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CannotStart } from '../start/cannot';
import { makeAuthority, makeServerCertificate, type Pair } from './authority';
import { readyKeys, serves } from './keys';

const REACHED = { names: ['shop.test', 'localhost'], addresses: ['192.168.4.7', '127.0.0.1', 'fd00::7'] };

/** What a client that trusts the authority makes of a server's certificate, when it asks for a host: OpenSSL judges. */
async function judged(authority: Pair, server: Pair, host: string): Promise<string> {
  const listening = createServer(server, (_asked, response) => response.end('in')).listen(0, '127.0.0.1');
  await once(listening, 'listening');
  const { port } = listening.address() as AddressInfo;
  try {
    return await new Promise((resolve) => {
      const asked = request({
        host: '127.0.0.1',
        port,
        ca: authority.cert,
        // An address is not named in the greeting.
        servername: isIP(host) === 0 ? host : '',
        checkServerIdentity: (_name, certificate) => {
          const own = new X509Certificate(certificate.raw);
          const named = isIP(host) === 0 ? own.checkHost(host) : own.checkIP(host);
          return named === undefined ? new Error('another host') : undefined;
        },
      });
      asked.on('response', () => resolve('trusted'));
      asked.on('error', (error) => resolve(error.message));
      asked.end();
    });
  } finally {
    listening.close();
    listening.closeAllConnections();
  }
}

describe("the shop's own authority", () => {
  let authority: Pair;
  let server: Pair;
  beforeAll(async () => {
    authority = await makeAuthority(REACHED.names, 'A shop');
    server = await makeServerCertificate(authority, REACHED);
  });

  it('vouches for the names and private addresses of the shop: OpenSSL trusts them', async () => {
    for (const host of [...REACHED.names, ...REACHED.addresses])
      expect(await judged(authority, server, host))
        .withContext(host)
        .toBe('trusted');
    expect(await judged(authority, server, 'other.test')).toBe('another host');
  });

  it('cannot vouch for any other name, nor for an address of the internet', async () => {
    for (const reached of [
      { names: ['bank.test'], addresses: [] },
      { names: ['shop.test'], addresses: ['203.0.113.7'] },
      { names: [], addresses: ['2001:db8::7'] },
    ]) {
      const forged = await makeServerCertificate(authority, reached);
      expect(await judged(authority, forged, reached.names[0] ?? reached.addresses[0]!)).toBe(
        'permitted subtree violation',
      );
    }
  });

  it('is no stranger’s', async () => {
    const stranger = await makeAuthority(REACHED.names, 'A shop');
    expect(await judged(stranger, server, 'shop.test')).not.toBe('trusted');
  });

  it('makes certificates that end before systems refuse them, and vouches for no other authority', () => {
    const own = new X509Certificate(server.cert);
    const days = (Date.parse(own.validTo) - Date.now()) / 86_400_000;
    expect(days).toBeGreaterThan(390);
    expect(days).toBeLessThan(398);
    expect(own.ca).toBeFalse();
    const above = new X509Certificate(authority.cert);
    expect(above.ca).toBeTrue();
    expect(own.checkIssued(above)).toBeTrue();
  });

  it('is kept in files of its keeper alone, and its certificate made anew only when it has to be', async () => {
    const folder = join(mkdtempSync(join(tmpdir(), 'zaffet-keys-')), 'keys');
    const first = await readyKeys(folder, REACHED, 'A shop');
    for (const name of readdirSync(folder))
      expect(statSync(join(folder, name)).mode & 0o777)
        .withContext(name)
        .toBe(0o600);
    expect(statSync(folder).mode & 0o777).toBe(0o700);
    const same = await readyKeys(folder, REACHED, 'A shop');
    expect(same).toEqual(first);
    expect(same.fingerprint).toBe(new X509Certificate(first.authority.cert).fingerprint256);
    const moved = await readyKeys(folder, { ...REACHED, addresses: ['10.0.0.3'] }, 'A shop');
    expect(moved.authority).toEqual(first.authority);
    expect(moved.server.cert).not.toBe(first.server.cert);
    const renamed = await readyKeys(folder, { ...REACHED, names: ['other.test'] }, 'A shop');
    expect(renamed.authority.cert).not.toBe(first.authority.cert);
    expect(await judged(renamed.authority, renamed.server, 'other.test')).toBe('trusted');
    rmSync(join(folder, '..'), { recursive: true });
  });

  it('says what to do where its files cannot be kept, or are damaged', async () => {
    const root = mkdtempSync(join(tmpdir(), 'zaffet-keys-'));
    const folder = join(root, 'keys');
    await readyKeys(folder, REACHED, 'A shop');
    writeFileSync(join(folder, 'authority.crt'), 'no certificate');
    await expectAsync(readyKeys(folder, REACHED, 'A shop')).toBeRejectedWithError(
      CannotStart,
      /in .*keys cannot be used .*remove what is in it/,
    );
    writeFileSync(join(root, 'file'), '');
    await expectAsync(readyKeys(join(root, 'file'), REACHED, 'A shop')).toBeRejectedWithError(CannotStart);
    rmSync(root, { recursive: true });
  });

  it('does not serve on with a certificate whose end is near', () => {
    expect(serves(server, authority, REACHED)).toBeTrue();
    jasmine.clock().install();
    jasmine.clock().mockDate(new Date(Date.now() + 370 * 86_400_000));
    expect(serves(server, authority, REACHED)).toBeFalse();
    jasmine.clock().uninstall();
  });
});
