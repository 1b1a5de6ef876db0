import {
  API,
  type DoorAnswer,
  type Fault,
  filePlan,
  type Invitation,
  type SignedIn,
  METRIC,
} from '@zaffet/contract';
import { sql } from 'drizzle-orm';
import { type Express } from 'express';
import { once } from 'node:events';
import { mkdirSync, writeFileSync } from 'node:fs';
import { type AddressInfo } from 'node:net';
import { join } from 'node:path';
import request from 'supertest';
import { OwnNews } from '../news';
import { planNamed } from '../testing';
import { specShop } from '../testing/specShop';
import { readySecret } from './devices';
import { type Network } from './door';
import { hostsOf } from './hosts';

const PHRASE = 'five salt lamps burning';
const HOST = 'shop.test:4310';

describe('the door to the shop’s network', () => {
  const shop = specShop();
  let network: Network;

  beforeAll(async () => {
    network = {
      secret: await readySecret(shop.db, PHRASE),
      secure: true,
      address: `https://${HOST}`,
      trust: { address: `http://${HOST}/`, fingerprint: 'AA:BB' },
    };
  });

  /** A Zaffet of its own: tries are counted anew. */
  const opened = (some: Partial<Network> = {}, news = new OwnNews(), webDirectory = shop.folder): Express =>
    shop.build({
      hosts: hostsOf({ names: ['shop.test'], addresses: ['127.0.0.1'] }),
      network: { ...network, ...some },
      news,
      webDirectory,
    });
  const signIn = (app: Express, body: object): request.Test =>
    request(app).post(API.session).set('host', HOST).send(body);
  const cookieOf = (answer: request.Response): string =>
    (answer.headers['set-cookie'] as unknown as string[])[0]!;
  /** What a device shows from now on. */
  async function device(app: Express, name: string): Promise<string> {
    return cookieOf(await signIn(app, { name, phrase: PHRASE }).expect(200)).split(';')[0]!;
  }
  const asked = (app: Express, path: string, cookie = ''): request.Test =>
    request(app).get(path).set('host', HOST).set('cookie', cookie);
  const codeOf = async (sent: request.Test, status: number): Promise<string> =>
    ((await sent.expect(status)).body as Fault).code;

  it('lets nobody in who is not signed in, whatever is asked, and tells that Zaffet runs', async () => {
    const app = opened();
    const id = '0b8f0c5e-0000-4000-8000-000000000000';
    for (const path of [
      API.plans,
      API.plan(id),
      API.jobSheet(id, 'UTC', METRIC),
      API.shelf,
      API.shop,
      API.air,
      API.airStream(true),
      API.runs,
      API.runStream('a'),
      API.calibrations,
      API.log,
      API.photos,
      API.backup,
      API.backups,
      API.sessions,
      '/api/nothing',
      '/API/plans',
      '//api/plans',
      '/api//plans',
    ]) {
      const { status, body } = await asked(app, path);
      expect(JSON.stringify(body)).withContext(path).not.toContain('revision');
      expect([401, 404]).withContext(path).toContain(status);
      if (path.startsWith('/api/')) expect(status).withContext(path).toBe(401);
    }
    for (const method of ['post', 'put', 'patch', 'delete'] as const)
      expect(await codeOf(request(app)[method](API.plans).set('host', HOST), 401)).toBe('session.needed');
    await asked(app, API.health).expect(200);
    expect((await asked(app, API.session).expect(200)).body as DoorAnswer).toEqual({
      network: true,
      name: null,
    });
    expect(await codeOf(asked(app, API.plans, '__Host-zaffet=guessed'), 401)).toBe('session.needed');
  });

  it('gives strangers the sign-in page with its files, and nothing else of the application', async () => {
    const web = `${shop.folder}-web`;
    mkdirSync(join(web, 'browser/handbook'), { recursive: true });
    const files = ['index.html', 'main-AAAAAAAA.js', 'chunk-BBBBBBBB.js', 'sw.js', 'handbook/guide.md'];
    for (const name of files) writeFileSync(join(web, 'browser', name), 'x'.repeat(40));
    writeFileSync(join(web, 'door.json'), JSON.stringify(['/main-AAAAAAAA.js']));
    const app = opened({}, new OwnNews(), web);
    for (const path of ['/', '/plans', '/main-AAAAAAAA.js']) await asked(app, path).expect(200);
    const others = ['/chunk-BBBBBBBB.js', '/sw.js', '/handbook/guide.md', '/nothing.js'];
    for (const path of others) expect(await codeOf(asked(app, path), 401)).toBe('session.needed');
    const cookie = await device(app, 'Tablet');
    for (const path of others.slice(0, 3)) await asked(app, path, cookie).expect(200);
  });

  it('keeps no connection of who signs in: what is sent beyond is not read', async () => {
    const signedIn = await signIn(opened(), { name: 'Tablet', phrase: PHRASE }).expect(200);
    expect(signedIn.headers['connection']).toBe('close');
  });

  it('opens to the pass phrase, in any spelling of its letters, and keeps no token itself', async () => {
    const accented = 'lámpara de la costa';
    const app = opened({ secret: await readySecret(shop.db, accented.normalize('NFC')) });
    const cookie = cookieOf(
      await signIn(app, { name: 'Tablet', phrase: accented.normalize('NFD') }).expect(200),
    );
    network = { ...network, secret: await readySecret(shop.db, PHRASE) };
    const token = /__Host-zaffet=([^;]+)/.exec(cookie)![1]!;
    expect(token.length).toBeGreaterThan(40);
    for (const flag of ['HttpOnly', 'Secure', 'SameSite=Strict', 'Path=/', 'Max-Age=2592000'])
      expect(cookie).toContain(flag);
    expect(cookie).not.toContain('Domain');
    const kept = JSON.stringify(
      await Promise.all(
        ['sessions', 'marks'].map((name) => shop.db.execute(sql.raw(`select * from ${name}`))),
      ),
    );
    expect(kept).not.toContain(token);
    expect(kept).not.toContain('costa');
  });

  it('has cookies that a browser takes without TLS as well', async () => {
    const cookie = cookieOf(
      await signIn(opened({ secure: false }), { name: 'Old', phrase: PHRASE }).expect(200),
    );
    expect(cookie).toMatch(/^zaffet=/);
    expect(cookie).not.toContain('Secure');
    expect(cookie).toContain('HttpOnly');
  });

  it('stays closed to a wrong phrase, and to whoever tries too often, even with the right one', async () => {
    const app = opened();
    for (let i = 0; i < 10; i++)
      expect(await codeOf(signIn(app, { name: 'Thief', phrase: `guess ${i}` }), 401)).toBe(
        'session.wrong-phrase',
      );
    const late = await signIn(app, { name: 'Thief', phrase: PHRASE }).expect(429);
    expect((late.body as Fault).code).toBe('session.too-many-tries');
    expect(Number(late.headers['retry-after'])).toBeGreaterThan(60);
  });

  it('does not count those who came in', async () => {
    const app = opened();
    for (let i = 0; i < 12; i++)
      expect((await signIn(app, { name: 'Tablet', phrase: PHRASE })).status).toBe(200);
  });

  it('tells every field of what is no signing in', async () => {
    const app = opened();
    for (const body of [
      {},
      { name: 'x' },
      { name: '', phrase: PHRASE },
      { name: 'x', phrase: PHRASE, key: 'k'.repeat(43) },
      { name: 'x', key: 'short' },
      { name: 'x'.repeat(61), phrase: PHRASE },
      { name: 'x', phrase: 7 },
    ]) {
      const { body: fault } = await signIn(app, body).expect(400);
      expect((fault as Fault).code).toBe('session.invalid');
      expect((fault as Fault).fields.length).toBeGreaterThan(0);
    }
  });

  it('reads nothing large of a stranger', async () => {
    const app = opened();
    const large = { name: 'x', phrase: 'p'.repeat(100_000) };
    expect(await codeOf(signIn(app, large), 400)).toBe('session.invalid');
    const plan = { ...filePlan(planNamed('Large')), name: 'p'.repeat(13_000_000) };
    expect(await codeOf(request(app).post(API.plans).set('host', HOST).send(plan), 401)).toBe(
      'session.needed',
    );
  });

  it('lets one device in by an invitation, once, within its time', async () => {
    const app = opened();
    const cookie = await device(app, 'Shop');
    const invite = async (to = '/bench/run-1'): Promise<Invitation> =>
      (
        await request(app)
          .post(API.invitations)
          .set('host', HOST)
          .set('cookie', cookie)
          .send({ to })
          .expect(201)
      ).body as Invitation;
    const invited = await invite();
    expect(invited.address).toMatch(/^https:\/\/shop\.test:4310\/plans\?to=%2Fbench%2Frun-1#[\w-]{43}$/);
    expect(invited.picture).toMatch(/^<svg/);
    expect(invited.trust!.fingerprint).toBe('AA:BB');
    expect(Date.parse(invited.until) - Date.now()).toBeLessThanOrEqual(600_000);
    const key = new URL(invited.address).hash.slice(1);
    const both = await Promise.all([1, 2].map((n) => signIn(app, { name: `Tablet ${n}`, key })));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 401]);
    expect(await codeOf(signIn(app, { name: 'Late', key }), 401)).toBe('session.old-key');
    const late = new URL((await invite()).address).hash.slice(1);
    await shop.db.execute(sql`update invitations set until = now() - interval '1 second'`);
    expect(await codeOf(signIn(app, { name: 'Late', key: late }), 401)).toBe('session.old-key');
    for (const to of ['//elsewhere.test', 'https://elsewhere.test/', '/a?b', 'plans', `/${'x'.repeat(300)}`])
      expect(
        await codeOf(
          request(app).post(API.invitations).set('host', HOST).set('cookie', cookie).send({ to }),
          400,
        ),
      ).toBe('session.invalid');
  });

  it('tells who is in, and shuts one out or all others, at once and in the midst of what it reads', async () => {
    await shop.db.execute(sql`delete from sessions`);
    const app = opened();
    const [bench, tablet, phone] = [
      await device(app, 'Bench'),
      await device(app, 'Tablet'),
      await device(app, 'Phone'),
    ];
    const list = async (): Promise<SignedIn[]> =>
      (await asked(app, API.sessions, bench).expect(200)).body as SignedIn[];
    expect((await list()).map(({ name }) => name).sort()).toEqual(['Bench', 'Phone', 'Tablet']);
    expect((await list()).filter(({ here }) => here).map(({ name }) => name)).toEqual(['Bench']);
    const listening = app.listen(0);
    await once(listening, 'listening');
    const { port } = listening.address() as AddressInfo;
    const stream = await fetch(`http://127.0.0.1:${port}${API.airStream(false)}`, {
      headers: { cookie: tablet },
    });
    expect(stream.status).toBe(200);
    const ended = (async () => {
      try {
        const reader = stream.body!.getReader();
        while (!(await reader.read()).done);
      } catch {
        // The line was cut.
      }
      return 'ended';
    })();
    const { id } = (await list()).find(({ name }) => name === 'Tablet')!;
    const send = (path: string): request.Test =>
      request(app).delete(path).set('host', HOST).set('cookie', bench);
    await send(API.oneSession(id)).expect(204);
    expect(await ended).toBe('ended');
    expect(await codeOf(asked(app, API.plans, tablet), 401)).toBe('session.needed');
    await asked(app, API.plans, phone).expect(200);
    expect(await codeOf(send(API.oneSession(id)), 404)).toBe('session.not-found');
    expect(await codeOf(send(API.oneSession('no-id')), 404)).toBe('session.not-found');
    await send(API.sessions).expect(204);
    expect(await codeOf(asked(app, API.plans, phone), 401)).toBe('session.needed');
    await asked(app, API.plans, bench).expect(200);
    const out = await send(API.session).expect(204);
    expect(cookieOf(out)).toContain('Expires=Thu, 01 Jan 1970');
    expect(await codeOf(asked(app, API.plans, bench), 401)).toBe('session.needed');
    listening.close();
    listening.closeAllConnections();
  });

  it('lets lines go where another Zaffet shut a device out, or may have', async () => {
    const news = new OwnNews();
    const app = opened({}, news);
    const cookie = await device(app, 'Tablet');
    const all = (await asked(app, API.sessions, cookie)).body as SignedIn[];
    const { id } = all.find(({ here }) => here)!;
    const listening = app.listen(0);
    await once(listening, 'listening');
    const { port } = listening.address() as AddressInfo;
    const line = async (): Promise<Promise<string>[]> => {
      const { body } = await fetch(`http://127.0.0.1:${port}${API.airStream(false)}`, {
        headers: { cookie },
      });
      const reader = body!.getReader();
      await reader.read();
      return [
        reader.read().then(
          ({ done }) => (done ? 'ended' : 'goes on'),
          () => 'ended',
        ),
      ];
    };
    const [first] = await line();
    news.tell('out', { id: 'somebody else' });
    news.tell('out', { id });
    expect(await first).toBe('ended');
    const [second] = await line();
    news.tell('missed', null);
    expect(await second).toBe('ended');
    listening.close();
    listening.closeAllConnections();
  });

  it('lets go of one that was not seen for a month', async () => {
    const app = opened();
    const cookie = await device(app, 'Tablet');
    await shop.db.execute(
      sql`update sessions set seen_at = now() - interval '2 hours', until = now() + interval '1 minute'`,
    );
    await asked(app, API.plans, cookie).expect(200);
    const row = ((await asked(app, API.sessions, cookie)).body as SignedIn[]).find(({ here }) => here);
    expect(Date.now() - Date.parse(row!.seenAt)).toBeLessThan(60_000);
    await shop.db.execute(sql`update sessions set until = now() - interval '1 second'`);
    expect(await codeOf(asked(app, API.plans, cookie), 401)).toBe('session.needed');
  });

  it('shuts all out when the pass phrase is another one, and nobody when it is the same', async () => {
    const app = opened();
    const cookie = await device(app, 'Tablet');
    await readySecret(shop.db, PHRASE);
    await asked(app, API.plans, cookie).expect(200);
    const other = await readySecret(shop.db, 'another phrase by now');
    expect(await codeOf(asked(app, API.plans, cookie), 401)).toBe('session.needed');
    const anew = opened({ secret: other });
    expect(await codeOf(signIn(anew, { name: 'Tablet', phrase: PHRASE }), 401)).toBe('session.wrong-phrase');
    network = { ...network, secret: await readySecret(shop.db, PHRASE) };
  });

  it('answers to its names only, and to no page of another site, whoever is signed in', async () => {
    const app = opened();
    const cookie = await device(app, 'Tablet');
    expect(
      await codeOf(request(app).get(API.plans).set('host', 'evil.test').set('cookie', cookie), 403),
    ).toBe('request.host-refused');
    for (const origin of ['https://evil.test', 'http://shop.test:9999', 'https://shop.test:4310', 'null'])
      expect(
        await codeOf(
          request(app)
            .post(API.plans)
            .set({ host: HOST, cookie, origin })
            .send(filePlan(planNamed('Forged'))),
          403,
        ),
      )
        .withContext(origin)
        .toBe('request.origin-refused');
    // Of the very address it was asked at, here without TLS.
    await request(app)
      .post(API.plans)
      .set({ host: HOST, cookie, origin: `http://${HOST}` })
      .send(filePlan(planNamed('Own')))
      .expect(201);
  });

  it('is no door where Zaffet answers only to its own machine: nobody has to sign in, and it says so', async () => {
    const app = shop.build();
    expect((await request(app).get(API.session).expect(200)).body as DoorAnswer).toEqual({
      network: false,
      name: null,
    });
    await request(app).get(API.plans).expect(200);
    expect(await codeOf(request(app).get(API.sessions), 409)).toBe('session.no-network');
    expect(await codeOf(request(app).post(API.invitations).send({ to: '/' }), 409)).toBe(
      'session.no-network',
    );
  });
});
