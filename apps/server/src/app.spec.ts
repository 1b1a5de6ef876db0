import {
  API,
  type BinnedPlan,
  type Fault,
  filePlan,
  PLAN_VERSION,
  type Plan,
  type PlanFile,
  type PlanSummary,
  type Shelf,
  type ShelfItem,
  type StaleAnswer,
  type StoredPlan,
  type Shop,
  USUAL_SHOP,
  METRIC,
} from '@zaffet/contract';
import { boardFor } from '@zaffet/workshop';
import { type Express } from 'express';
import { readFileSync } from 'node:fs';
import request from 'supertest';
import { fileURLToPath } from 'node:url';
import { plans } from './db/schema';
import { intoZone, loadDemo } from './demo';
import { emptyBin } from './plans/queries';
import { planNamed } from './testing';
import { specShop } from './testing/specShop';

const DEMO = fileURLToPath(new URL('../../../demo/plans', import.meta.url));
const NOBODY = '00000000-0000-4000-8000-000000000000';

describe('the server', () => {
  const shop = specShop();
  let app: Express;

  beforeAll(async () => {
    app = shop.build();
  });

  const create = async (plan: Plan): Promise<StoredPlan> =>
    (await request(app).post(API.plans).send(plan).expect(201)).body as StoredPlan;
  const read = async (id: string): Promise<StoredPlan> =>
    (await request(app).get(API.plan(id)).expect(200)).body as StoredPlan;

  it('keeps a plan and gives it back unchanged', async () => {
    const plan = planNamed('Lamp shelf');
    const saved = await create(plan);
    expect(saved.revision).toBe(1);
    const again = await read(saved.id);
    expect(again.plan).toEqual(filePlan(plan));
    expect(Date.parse(again.savedAt)).not.toBeNaN();
  });

  it('saves over the save it started from and counts on', async () => {
    const saved = await create(planNamed('One'));
    const plan = { ...saved.plan, name: 'Two' };
    const answer = await request(app)
      .put(API.plan(saved.id))
      .send({ saveId: saved.saveId, plan })
      .expect(200);
    expect((answer.body as StoredPlan).revision).toBe(2);
    expect((await read(saved.id)).name).toBe('Two');
  });

  it('refuses a stale save with what stands there, and changes nothing', async () => {
    const saved = await create(planNamed('First'));
    await request(app)
      .put(API.plan(saved.id))
      .send({ saveId: saved.saveId, plan: { ...saved.plan, name: 'Theirs' } })
      .expect(200);
    const answer = await request(app)
      .put(API.plan(saved.id))
      .send({ saveId: saved.saveId, plan: { ...saved.plan, name: 'Mine' } })
      .expect(409);
    expect((answer.body as Fault).code).toBe('plan.stale');
    expect((answer.body as StaleAnswer).current).toEqual(
      jasmine.objectContaining({ name: 'Theirs', revision: 2 }),
    );
    expect((await read(saved.id)).name).toBe('Theirs');
  });

  it('lets one of two saves from the same save win', async () => {
    const saved = await create(planNamed('Race'));
    const answers = await Promise.all(
      ['a', 'b', 'c', 'd'].map((name) =>
        request(app)
          .put(API.plan(saved.id))
          .send({ saveId: saved.saveId, plan: { ...saved.plan, name } }),
      ),
    );
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409, 409, 409]);
    expect((await read(saved.id)).revision).toBe(2);
  });

  it('flushes to the disk before it acknowledges a save', async () => {
    let saved = await create(planNamed('Flushed'));
    for (let i = 0; i < 5; i++) {
      const before = shop.database.flushes()!;
      const { id, saveId, plan } = saved;
      const { body } = await request(app).put(API.plan(id)).send({ saveId, plan }).expect(200);
      saved = { ...(body as PlanSummary), plan };
      expect(shop.database.flushes()!).toBeGreaterThan(before);
    }
  });

  it('lists plans, newest save first, without the removed, and brings those back', async () => {
    const one = await create(planNamed('Old'));
    const two = await create(planNamed('New'));
    const ids = async (): Promise<string[]> =>
      ((await request(app).get(API.plans).expect(200)).body as PlanSummary[]).map((plan) => plan.id);
    expect((await ids()).indexOf(two.id)).toBeLessThan((await ids()).indexOf(one.id));
    await request(app).delete(API.plan(one.id)).expect(204);
    expect(await ids()).not.toContain(one.id);
    await request(app).get(API.plan(one.id)).expect(404);
    await request(app).delete(API.plan(one.id)).expect(404);
    await request(app).post(API.planRestore(one.id)).expect(200);
    expect(await ids()).toContain(one.id);
  });

  it('keeps a deleted plan in the bin for thirty days, and no longer', async () => {
    const bin = async (): Promise<string[]> =>
      ((await request(app).get(API.bin).expect(200)).body as BinnedPlan[]).map(({ id }) => id);
    const saved = await create(planNamed('Binned'));
    expect(await bin()).not.toContain(saved.id);
    await request(app).delete(API.plan(saved.id)).expect(204);
    expect(await bin()).toContain(saved.id);
    const DAY = 86_400_000;
    await emptyBin(shop.db, Date.now() + 29 * DAY);
    expect(await bin()).toContain(saved.id);
    await emptyBin(shop.db, Date.now() + 31 * DAY);
    expect(await bin()).not.toContain(saved.id);
    await request(app).post(API.planRestore(saved.id)).expect(404);
  });

  it('gives the plan as a file that comes in again as the same plan', async () => {
    const saved = await create(planNamed("Keeper's chest: lid"));
    const file = await request(app).get(API.planFile(saved.id)).expect(200);
    expect(file.headers['content-disposition']).toContain('keeper-s-chest-lid.zaffet.json');
    const again = await create(JSON.parse(file.text) as Plan);
    expect(again.plan).toEqual(saved.plan);
  });

  it('prints the sheet of a sample board with the frame it is photographed in, each page at its own size', async () => {
    let n = 0;
    const board = boardFor(planNamed('Lid'), null, 'how-thick', 3, () => `b${++n}`)!.plan;
    const { id } = await create(board);
    const pdf = await request(app).get(API.boardSheet(id, METRIC)).expect(200).expect('content-type', /pdf/);
    const read = (pdf.body as Buffer).toString('latin1');
    expect(read.match(/MediaBox \[0 0 595\.28 841\.89\]/g)?.length).toBe(5);
    const svg = await request(app)
      .get(API.boardSheet(id, METRIC, 'frame-upper-left'))
      .expect(200);
    expect(svg.headers['content-disposition']).toContain('frame-upper-left.svg');
    expect((svg.body as Buffer).toString()).toContain('width="210mm"');
    const none = await request(app)
      .get(API.boardSheet(id, METRIC, 'frame-middle'))
      .expect(404);
    expect((none.body as { code: string }).code).toBe('board.none');
    const piece = await create(planNamed('Lid'));
    await request(app).get(API.boardSheet(piece.id, METRIC)).expect(404);
  });

  it('refuses a malformed plan with the field and what is allowed, and stores nothing', async () => {
    const count = async (): Promise<number> => ((await request(app).get(API.plans)).body as unknown[]).length;
    const before = await count();
    const plan = planNamed('Bad');
    const bad = { ...plan, air: { ...plan.air, humidity: 55 } };
    const answer = await request(app).post(API.plans).send(bad).expect(400);
    expect((answer.body as Fault).fields).toEqual([
      { path: 'air.humidity', message: 'air.humidity is 55; it must be a number from 0.05 to 0.98.' },
    ]);
    expect(await count()).toBe(before);
  });

  it("makes a job sheet of a plan to print, with the shop's own clock", async () => {
    const saved = await create(planNamed('Peg board'));
    const answer = await request(app)
      .get(API.jobSheet(saved.id, 'Europe/Lisbon', METRIC))
      .buffer(true)
      .parse((response, done) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => done(null, Buffer.concat(chunks)));
      })
      .expect(200)
      .expect('content-type', 'application/pdf');
    expect((answer.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    expect((answer.body as Buffer).length).toBeGreaterThan(10_000);
    expect(answer.headers['content-disposition']).toContain('peg-board-job-sheet.pdf');
    await request(app)
      .get(API.jobSheet(NOBODY, 'UTC', METRIC))
      .expect(404);
  });

  it('answers damaged and oversized requests, unknown plans and addresses plainly', async () => {
    const json = 'application/json';
    const cut = await request(app).post(API.plans).set('content-type', json).send('{"a":').expect(400);
    expect((cut.body as Fault).code).toBe('request.not-json');
    const large = await request(app)
      .post(API.plans)
      .set('content-type', json)
      .send(`"${'x'.repeat(12.7e6)}"`)
      .expect(413);
    expect((large.body as Fault).code).toBe('request.too-large');
    expect(
      ((await request(app).post(API.plans).set('content-type', json).send('null').expect(400)).body as Fault)
        .code,
    ).toBe('plan.not-a-plan');
    for (const id of [NOBODY, 'nonsense', '1; drop table plans'])
      await request(app).get(API.plan(id)).expect(404);
    expect(((await request(app).get('/api/nothing').expect(404)).body as Fault).code).toBe(
      'request.unknown-route',
    );
  });

  it('answers only to its own address, and sends a strict content policy', async () => {
    await request(app).get(API.plans).set('host', 'elsewhere.example').expect(403);
    const policy = (await request(app).get(API.health).expect(200)).headers['content-security-policy'] ?? '';
    expect(policy).toContain("script-src 'self'");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toContain('unsafe');
  });

  it('says in its headers that nothing is to be guessed, framed, told on, or kept of its answers', async () => {
    const { headers } = await request(app).get(API.plans).expect(200);
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-frame-options']).toBe('SAMEORIGIN');
    expect(headers['referrer-policy']).toBe('no-referrer');
    expect(headers['cross-origin-opener-policy']).toBe('same-origin');
    expect(headers['cross-origin-resource-policy']).toBe('same-origin');
    expect(headers['cache-control']).toBe('no-store');
    expect(headers['x-powered-by']).toBeUndefined();
  });

  it('loads the demo once', async () => {
    expect(await loadDemo(shop.db, DEMO)).toBeGreaterThan(2);
    expect(await loadDemo(shop.db, DEMO)).toBe(0);
    const names = ((await request(app).get(API.plans)).body as PlanSummary[]).map((plan) => plan.name);
    expect(names).toContain("Keeper's sea chest");
  });

  it('puts the demo into the time zone of its machine: its clocks read the same there', () => {
    const written = { startsAt: '2026-05-12T11:00:00.000Z', work: { zone: 'Europe/Lisbon' }, name: '2026' };
    expect(intoZone(written, 'Asia/Tokyo')).toEqual({
      startsAt: '2026-05-12T03:00:00.000Z',
      work: { zone: 'Asia/Tokyo' },
      name: '2026',
    });
    expect(intoZone(written, 'Europe/Lisbon')).toEqual(written);
    // In winter Lisbon is on UTC, and New York five hours behind.
    expect(intoZone(['2026-01-12T11:00:00.000Z'], 'America/New_York')).toEqual(['2026-01-12T16:00:00.000Z']);
  });

  it('reads a plan that an older Zaffet saved, brought to the present version', async () => {
    const old = JSON.parse(
      readFileSync(
        fileURLToPath(new URL('../../../packages/workshop/src/testing/files/chest-3.json', import.meta.url)),
        'utf8',
      ),
    ) as PlanFile;
    const [row] = await shop.db
      .insert(plans)
      .values({ name: old.name, plan: old })
      .returning({ id: plans.id });
    const { plan } = await read(row!.id);
    expect(plan.version).toBe(PLAN_VERSION);
    expect(plan.piece.parts[0]!.finish).toBe(plan.finishes[0]!.id);
    const all = (await request(app).get(API.plans).expect(200)).body as PlanSummary[];
    for (const { id } of all) expect((await read(id)).plan.version).toBe(PLAN_VERSION);
  });

  it('keeps what the shop is, for plans to come, and refuses what it cannot be', async () => {
    expect((await request(app).get(API.shop).expect(200)).body as Shop).toEqual(USUAL_SHOP);
    const day = [{ opensMin: 480, closesMin: 1020 }];
    const week = { mon: day, tue: day, wed: day, thu: day, fri: day, sat: [], sun: [] };
    const work = { zone: '+02:00', week, daysOff: [], extra: [], people: 2, daylight: null, minutes: {} };
    const shop: Shop = { ...USUAL_SHOP, work };
    await request(app).put(API.shop).send(shop).expect(200);
    const refused = await request(app)
      .put(API.shop)
      .send({ ...shop, work: { ...work, people: 9 } })
      .expect(400);
    expect((refused.body as Fault).fields[0]!.message).toMatch(/work\.people is 9/);
    expect((await request(app).get(API.shop).expect(200)).body as Shop).toEqual(shop);
  });

  it('keeps the shelf, thing by thing, and what one measures with', async () => {
    const tin = {
      id: 'tin-1',
      kind: 'tin',
      name: 'Kelp',
      medium: 'latex',
      colour: '#55634a',
      amountMl: 300,
      pricePerL: null,
      openedAt: null,
    };
    const shelf = async (): Promise<Shelf> => (await request(app).get(API.shelf).expect(200)).body as Shelf;
    await request(app).put(API.shelfItem('tin-1')).send(tin).expect(200);
    await request(app)
      .put(API.shelfItem('tin-1'))
      .send({ ...tin, amountMl: 120 })
      .expect(200);
    await request(app).put(API.measures).send({ dishMl: 80, spoonMl: 14, teaspoonMl: 5 }).expect(200);
    const mine = async (): Promise<ShelfItem[]> =>
      (await shelf()).items.filter(({ id }) => id.startsWith('tin-'));
    expect(await mine()).toEqual([{ ...tin, amountMl: 120 } as ShelfItem]);
    expect((await shelf()).measures.dishMl).toBe(80);

    const refused = await request(app)
      .put(API.shelfItem('tin-1'))
      .send({ ...tin, amountMl: -4 })
      .expect(400);
    expect((refused.body as Fault).fields[0]!.message).toMatch(/amountMl is -4; it must be a number/);
    await request(app).put(API.shelfItem('tin-2')).send(tin).expect(400);
    expect((await mine()).length).toBe(1);

    for (const pricePerL of [24, 24, 28])
      await request(app).patch(API.shelfItem('tin-1')).send({ pricePerL }).expect(200);
    const today = new Date().toISOString().slice(0, 10);
    expect((await mine())[0]).toEqual(
      jasmine.objectContaining({ pricePerL: 28, prices: [{ on: today, pricePerL: 28 }] }),
    );

    await request(app).delete(API.shelfItem('tin-1')).expect(204);
    await request(app).delete(API.shelfItem('tin-1')).expect(204);
    expect(await mine()).toEqual([]);
  });
});
