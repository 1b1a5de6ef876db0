import { API, type DoorAnswer } from '@zaffet/contract';
import { X509Certificate } from 'node:crypto';
import { once } from 'node:events';
import { readFileSync, writeFileSync } from 'node:fs';
import { request } from 'node:https';
import { connect } from 'node:net';
import { dirname, join } from 'node:path';
import { type Launched, launch, scratchFolder } from '../testing';
import { prepare } from '../testing/prepared';

const PHRASE = 'five salt lamps burning';

describe('Zaffet on the shop’s network', () => {
  const folder = scratchFolder();
  const phrase = join(dirname(folder.path), 'phrase');
  const keys = `${folder.path}-keys`;
  let running: Launched;
  let port = 0;

  const begin = async (some: Record<string, string> = {}): Promise<void> => {
    running = launch({
      ZAFFET_DATA: folder.path,
      ZAFFET_HOST: '0.0.0.0',
      ZAFFET_NAMES: 'shop.test',
      ZAFFET_PASSPHRASE_FILE: phrase,
      ...some,
    });
    port = Number(new URL(await running.url).port);
  };
  const end = async (): Promise<void> => {
    running.child.kill('SIGTERM');
    await running.ended;
  };
  beforeAll(async () => {
    writeFileSync(phrase, `${PHRASE}\n`);
    await prepare(folder.path);
  });
  afterAll(folder.remove);

  /** Asks by https, trusting the shop's authority alone. */
  const ask = (
    path: string,
    cookie = '',
    body?: object,
  ): Promise<{ status: number; text: string; cookie: string }> =>
    new Promise((resolve, reject) => {
      const asked = request(
        {
          host: '127.0.0.1',
          servername: 'shop.test',
          port,
          path,
          method: body === undefined ? 'GET' : 'POST',
          ca: readFileSync(join(keys, 'authority.crt')),
          headers: { host: `shop.test:${port}`, cookie, 'content-type': 'application/json' },
        },
        (response) => {
          let text = '';
          response.on('data', (chunk: Buffer) => (text += chunk.toString()));
          response.on('end', () =>
            resolve({
              status: response.statusCode!,
              text,
              cookie: response.headers['set-cookie']?.[0]?.split(';')[0] ?? '',
            }),
          );
        },
      );
      asked.on('error', reject);
      asked.end(body === undefined ? undefined : JSON.stringify(body));
    });

  it('answers by TLS under its own authority, tells whoever comes without it the way, and keeps devices signed in', async () => {
    await begin();
    expect(running.said()).toContain(`ready at https://shop.test:${port}`);
    const authority = new X509Certificate(readFileSync(join(keys, 'authority.crt')));
    expect(running.said()).toContain(authority.fingerprint256);
    expect((await ask(API.plans)).status).toBe(401);
    const { cookie, status } = await ask(API.session, '', { name: 'Tablet', phrase: PHRASE });
    expect(status).toBe(200);
    expect((await ask(API.plans, cookie)).status).toBe(200);

    const plain = `http://127.0.0.1:${port}`;
    const page = await (await fetch(`${plain}/bench/any`)).text();
    expect(page).toContain(authority.fingerprint256.slice(0, 23));
    expect(page).toContain(`href="https://shop.test:${port}/"`);
    const certificate = await fetch(`${plain}/zaffet-authority.crt`);
    expect(certificate.headers.get('content-type')).toContain('application/x-x509-ca-cert');
    expect(new X509Certificate(await certificate.text()).fingerprint256).toBe(authority.fingerprint256);
    // Neither data nor a session goes without TLS.
    for (const path of [API.plans, API.session, API.backup])
      expect((await (await fetch(plain + path)).text()).startsWith('<!doctype')).toBeTrue();
    expect((await fetch(plain + API.session, { method: 'POST' })).status).toBe(404);

    await end();
    await begin();
    expect(JSON.parse((await ask(API.session, cookie)).text) as DoorAnswer).toEqual({
      network: true,
      name: 'Tablet',
    });
    await end();
  });

  it('ends at once though somebody is connected who says nothing', async () => {
    await begin();
    const silent = connect(port, '127.0.0.1');
    await once(silent, 'connect');
    silent.on('error', () => undefined);
    running.child.kill('SIGTERM');
    expect(await running.ended).toBe(0);
    silent.destroy();
  });

  it('takes a certificate that is given, and does without where it is told to', async () => {
    // A pair to give: that of the shop's own authority.
    await begin();
    await end();
    await begin({
      ZAFFET_TLS_CERT: join(keys, 'server.crt'),
      ZAFFET_TLS_KEY: join(keys, 'server.key'),
    });
    expect((await ask(API.session)).status).toBe(200);
    await expectAsync(fetch(`http://127.0.0.1:${port}/`)).toBeRejected();
    await end();
    await begin({ ZAFFET_TLS: 'off' });
    expect(running.said()).toContain('whoever listens there reads along');
    expect((await fetch(`http://127.0.0.1:${port}${API.plans}`)).status).toBe(401);
    await end();
  });
});
