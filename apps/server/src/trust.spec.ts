import {
  API,
  type Fault,
  filePlan,
  type PlanSummary,
  type Shelf,
  type StoredPlan,
  METRIC,
} from '@zaffet/contract';
import { sql } from 'drizzle-orm';
import { type Express } from 'express';
import { cpSync, mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import request, { type Response } from 'supertest';
import { largePlan } from '../../../packages/workshop/src/testing/large';
import { plans } from './db/schema';
import { loadDemo } from './demo';
import { SheetMaker } from './sheet/maker';
import { planNamed } from './testing';
import { specShop } from './testing/specShop';

const DEMO = fileURLToPath(new URL('../../../demo', import.meta.url));

describe('what a shop trusts the server with', () => {
  const shop = specShop();
  const web = join(dirname(shop.folder), 'web');
  const logged: string[] = [];
  const log = pino({ level: 'warn' }, { write: (line: string) => void logged.push(line) });
  let app: Express;

  beforeAll(async () => {
    mkdirSync(join(web, 'browser', 'handbook'), { recursive: true });
    for (const name of ['index.html', 'favicon.svg', 'main-ABCDEF12.js', 'handbook/guide.md'])
      writeFileSync(join(web, 'browser', name), '<html></html>');
    app = shop.build({ log, webDirectory: web });
  });

  const create = async (name: string): Promise<StoredPlan> =>
    (await request(app).post(API.plans).send(planNamed(name)).expect(201)).body as StoredPlan;
  const list = async (): Promise<PlanSummary[]> =>
    (await request(app).get(API.plans).expect(200)).body as PlanSummary[];
  const faultOf = ({ body }: Response): Fault => body as Fault;

  it('lists plans without their content, and sends each save of one once', async () => {
    const saved = await create('Listed');
    const listed = (await list()).find(({ id }) => id === saved.id)!;
    expect(Object.keys(listed).sort()).toEqual(['id', 'name', 'revision', 'saveId', 'savedAt']);
    const first = await request(app).get(API.plan(saved.id)).expect(200);
    const etag = first.headers['etag']!;
    await request(app).get(API.plan(saved.id)).set('if-none-match', etag).expect(304);
    await request(app)
      .put(API.plan(saved.id))
      .send({ saveId: saved.saveId, plan: planNamed('Again') })
      .expect(200);
    const later = await request(app).get(API.plan(saved.id)).set('if-none-match', etag).expect(200);
    expect((later.body as StoredPlan).revision).toBe(2);
  });

  it('takes a save of what stands there already for done: its answer was lost', async () => {
    const saved = await create('Sent twice');
    const plan = { ...planNamed('Sent twice'), seed: 11 };
    await request(app).put(API.plan(saved.id)).send({ saveId: saved.saveId, plan }).expect(200);
    const again = await request(app).put(API.plan(saved.id)).send({ saveId: saved.saveId, plan }).expect(200);
    expect((again.body as PlanSummary).revision).toBe(2);
    await request(app)
      .put(API.plan(saved.id))
      .send({ saveId: saved.saveId, plan: { ...plan, seed: 12 } })
      .expect(409);
  });

  it('is not taken down by a row it cannot read: shows it, says why, and gives it out as a file', async () => {
    const broken = [
      { ...filePlan(planNamed('Wrong')), seed: 'x' },
      { format: 'zaffet-plan', version: 3, steps: [null], piece: { parts: [null] } },
      { nothing: 'of ours' },
      null,
    ];
    for (const [i, plan] of broken.entries()) {
      const [row] = await shop.db
        .insert(plans)
        .values({ name: `Broken ${i}`, plan: sql`${JSON.stringify(plan)}::jsonb` })
        .returning({ id: plans.id });
      expect((await list()).map(({ id }) => id)).toContain(row!.id);
      const refused = await request(app).get(API.plan(row!.id)).expect(422);
      expect(faultOf(refused).code).toBe('plan.unreadable');
      expect(faultOf(refused).fields[0]!.message).not.toBe('');
      const file = await request(app).get(API.planFile(row!.id)).expect(200);
      expect(JSON.parse(file.text)).toEqual(plan);
      await request(app)
        .get(API.jobSheet(row!.id, 'UTC', METRIC))
        .expect(422);
      await request(app).delete(API.plan(row!.id)).expect(204);
    }
  });

  it('keeps a plan as large as one may be, and makes its job sheet while others are served', async () => {
    const plan = filePlan(largePlan(12, 9, 160));
    const saved = (await request(app).post(API.plans).send(plan).expect(201)).body as StoredPlan;
    expect((await request(app).get(API.plan(saved.id)).expect(200)).body).toEqual(
      jasmine.objectContaining({ plan }),
    );
    let served = 0;
    const sheet = request(app)
      .get(API.jobSheet(saved.id, 'UTC', METRIC))
      .buffer(true)
      .expect(200);
    const done = sheet.then((answer) => {
      expect(answer.headers['content-type']).toBe('application/pdf');
      return true;
    });
    while (!(await Promise.race([done, new Promise((resolve) => setTimeout(resolve, 20, false))]))) {
      await request(app).get(API.health).expect(200);
      served++;
    }
    expect(served).toBeGreaterThan(10);
  });

  it('answers at once whoever asks for the headers of a stream alone, and holds nothing open for it', async () => {
    const plan = filePlan(planNamed('Streamed'));
    const stamp = { id: 'streamed-1', device: 'streamed', n: 1, at: '2026-05-12T09:00:00.000Z', offsetMs: 0 };
    await request(app)
      .post(API.runEvents('run-1'))
      .send({ events: [{ ...stamp, kind: 'run-begun', planId: null, plan }] })
      .expect(200);
    for (const path of [API.runStream('run-1'), API.airStream(false), API.airStream(true)]) {
      const { headers } = await request(app).head(path).timeout(5000).expect(200);
      expect(headers['content-type']).withContext(path).toBe('text/event-stream');
    }
  });

  it('gives up a sheet that takes too long, in words', async () => {
    const hasty = new SheetMaker(1);
    const plan = filePlan(largePlan(4, 0, 1));
    const shelf = { items: [], measures: { dishMl: 100, spoonMl: 15, teaspoonMl: 5 } };
    await expectAsync(
      hasty.make({ kind: 'job', plan, zone: 'UTC', notation: METRIC, shelf, learned: null }, null),
    ).toBeRejectedWithError(/took too long/);
    await hasty.close();
  });

  it('tells how long a sheet will take, and lets no device have all the turns', async () => {
    const maker = new SheetMaker();
    const shelf = { items: [], measures: { dishMl: 100, spoonMl: 15, teaspoonMl: 5 } };
    const order = {
      kind: 'job',
      plan: filePlan(planNamed('Turns')),
      zone: 'UTC',
      notation: METRIC,
      shelf,
      learned: null,
    } as const;
    expect(maker.queue('tablet')).toEqual({ before: 0, seconds: null, share: null, refused: null });
    const mine = [maker.make(order, 'tablet'), maker.make(order, 'tablet')];
    expect(maker.queue('phone').before).toBe(2);
    await expectAsync(maker.make(order, 'tablet')).toBeRejectedWithError(/Two sheets for this device/);
    const others = ['phone', 'laptop', 'shop', 'attic'].flatMap((who) =>
      [1, 2].map(() => maker.make(order, who).catch((error: unknown) => String(error))),
    );
    const told = await Promise.all(others);
    expect(told.filter((one) => typeof one === 'string')).toEqual([
      jasmine.stringMatching(/too much to do just now.*9 sheets come first/),
    ]);
    for (const pdf of [...(await Promise.all(mine)), ...told].filter((one) => typeof one !== 'string'))
      expect((pdf as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    const { before, seconds, refused } = maker.queue('tablet');
    expect([before, refused]).toEqual([0, null]);
    expect(seconds).toBeGreaterThan(0);
    await maker.close();
  });

  it('makes sheets in a process of its own: killed, another makes the next', async () => {
    const maker = new SheetMaker();
    const shelf = { items: [], measures: { dishMl: 100, spoonMl: 15, teaspoonMl: 5 } };
    const order = {
      kind: 'job',
      plan: filePlan(largePlan(4, 0, 1)),
      zone: 'UTC',
      notation: METRIC,
      shelf,
      learned: null,
    } as const;
    const first = maker.make(order, null);
    const shares = new Set<number | null>();
    const looking = setInterval(() => shares.add(maker.queue(null).share), 5);
    expect((await first).subarray(0, 5).toString()).toBe('%PDF-');
    clearInterval(looking);
    expect(Math.max(...[...shares].map(Number))).toBeGreaterThan(0.3);
    const second = maker.make(order, null);
    await new Promise((resolve) => setTimeout(resolve, 50));
    await maker.close();
    await expectAsync(second).toBeRejectedWithError(/has ended/);
    expect((await maker.make(order, null)).subarray(0, 5).toString()).toBe('%PDF-');
    await maker.close();
  }, 120_000);

  it('prints letters of other scripts as what they are, or says that it cannot', async () => {
    const save = async (name: string): Promise<Response> => {
      const saved = await create(name);
      return request(app)
        .get(API.jobSheet(saved.id, 'UTC', METRIC))
        .buffer(true)
        .parse((response, done) => {
          const chunks: Buffer[] = [];
          response.on('data', (chunk: Buffer) => chunks.push(chunk));
          response.on('end', () => done(null, Buffer.concat(chunks)));
        })
        .expect(200);
    };
    const plain = await save('Łódź, Αλφα, Маяк');
    const other = await save('灯台の箱');
    expect(plain.headers['content-disposition']).toContain(
      `filename*=UTF-8''${encodeURIComponent('łódź-αλφα-маяк')}-job-sheet.pdf`,
    );
    expect(other.headers['content-disposition']).toContain(encodeURIComponent('灯台の箱'));
    expect((other.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
  });

  it('lets two windows change one thing on the shelf without undoing each other', async () => {
    const tin = {
      id: 'shared',
      kind: 'tin',
      name: 'Kelp',
      medium: 'latex',
      colour: '#55634a',
      amountMl: 300,
      pricePerL: null,
      openedAt: null,
    };
    const path = API.shelfItem('shared');
    await request(app).put(path).send(tin).expect(200);
    await Promise.all([
      request(app).patch(path).send({ amountMl: 120 }).expect(200),
      request(app).patch(path).send({ name: 'Kelp green' }).expect(200),
    ]);
    const { items } = (await request(app).get(API.shelf)).body as Shelf;
    expect(items.find(({ id }) => id === 'shared')).toEqual(
      jasmine.objectContaining({ amountMl: 120, name: 'Kelp green' }),
    );
    expect(faultOf(await request(app).patch(path).send({ amountMl: -1 }).expect(400)).fields[0]!.path).toBe(
      'amountMl',
    );
    expect(faultOf(await request(app).patch(path).send({ kind: 'pot' }).expect(400)).code).toBe(
      'shelf.invalid',
    );
    await request(app).patch(path).send({}).expect(400);
    expect(
      faultOf(await request(app).patch(API.shelfItem('none')).send({ name: 'x' }).expect(404)).code,
    ).toBe('shelf.not-found');
    await request(app).delete('/api/shelf/items/%00').expect(400);
  });

  it('shows what of the shelf can be read', async () => {
    await shop.db.execute(sql`insert into shelf_items (id, item) values ('odd', '{"kind": "tin"}'::jsonb)`);
    const shelf = (await request(app).get(API.shelf).expect(200)).body as Shelf;
    expect(shelf.items.some(({ id }) => id === undefined || id === 'odd')).toBeFalse();
    await shop.db.execute(sql`delete from shelf_items where id = 'odd'`);
  });

  it('answers other sites nothing, whatever a browser sends for them, and its own in any spelling', async () => {
    const saved = await create('Removed');
    await request(app).delete(API.plan(saved.id)).expect(204);
    const restore = (headers: Record<string, string>): request.Test =>
      request(app).post(API.planRestore(saved.id)).set(headers);
    const strangers: Record<string, string>[] = [
      { origin: 'https://elsewhere.example' },
      { origin: 'null' },
      { host: 'localhost:4310', origin: 'http://localhost:9999' },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
    ];
    for (const headers of strangers)
      expect(faultOf(await restore(headers).expect(403)).code).toBe('request.origin-refused');
    expect((await list()).map(({ id }) => id)).not.toContain(saved.id);
    await restore({ host: 'LocalHost:4310', origin: 'http://localhost:4310' }).expect(200);
    await request(app).get(API.plans).set('host', 'LOCALHOST').expect(200);
    for (const headers of [{ origin: 'https://elsewhere.example' }, { 'sec-fetch-site': 'cross-site' }])
      for (const path of [API.plans, API.backup, API.airStream(true), API.health])
        expect(faultOf(await request(app).get(path).set(headers).expect(403)).code).toBe(
          'request.origin-refused',
        );
    await request(app).get(API.plans).set('sec-fetch-site', 'none').expect(200);
  });

  it('lets only files be kept for ever whose names change with them', async () => {
    const kept = async (path: string): Promise<string> =>
      (await request(app).get(path).expect(200)).headers['cache-control']!;
    expect(await kept('/main-ABCDEF12.js')).toContain('immutable');
    for (const path of ['/favicon.svg', '/handbook/guide.md']) expect(await kept(path)).toBe('no-cache');
    expect(await kept('/')).toBe('no-store');
    await request(app).get('/index.html').expect(302).expect('location', '/');
  });

  it('says of what cannot be read why, not that it failed', async () => {
    const code = async (sent: request.Test, status: number): Promise<string> =>
      faultOf(await sent.expect(status)).code;
    expect(await code(request(app).get('/api/plans/%'), 400)).toBe('request.bad-address');
    expect(await code(request(app).get('/api/plans/%c0'), 400)).toBe('request.bad-address');
    expect(await code(request(app).get('/%c0'), 400)).toMatch(/^request\./);
    const post = (): request.Test => request(app).post(API.plans).set('content-type', 'application/json');
    expect(await code(post().set('content-encoding', 'gzip').send('{"a": 1}'), 400)).toBe(
      'request.unreadable',
    );
    expect(await code(request(app).get('/main-ABCDEF12.js').set('range', 'bytes=900-'), 416)).toBe(
      'request.range-refused',
    );
    expect(await code(request(app).get('/main-ABCDEF12.js').set('if-match', '"no"'), 412)).toBe(
      'request.changed',
    );
    expect(logged.filter((line) => line.includes('request failed'))).toEqual([]);
  });

  it('logs what a query failed of, never the plan', async () => {
    const odd = shop.build({ log, webDirectory: web });
    await shop.db.execute(sql`alter table plans rename to plans_away`);
    await request(odd).post(API.plans).send(planNamed('A secret name')).expect(500);
    await shop.db.execute(sql`alter table plans_away rename to plans`);
    const line = logged.at(-1)!;
    expect(line).toContain('42P01');
    expect(line).toContain('does not exist');
    expect(line).not.toContain('secret');
  });

  it('loads the demo whole or not at all', async () => {
    const before = (await list()).length;
    const torn = join(dirname(shop.folder), 'demo');
    cpSync(DEMO, torn, { recursive: true });
    writeFileSync(join(torn, 'shelf.json'), '{"items": [{}]}');
    await expectAsync(loadDemo(shop.db, join(torn, 'plans'))).toBeRejected();
    expect((await list()).length).toBe(before);
    expect(await loadDemo(shop.db, join(DEMO, 'plans'))).toBeGreaterThan(2);
  });
});
