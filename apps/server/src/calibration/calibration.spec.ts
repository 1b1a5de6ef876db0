import {
  API,
  type CalibrationFile,
  type Fault,
  type KeptCalibration,
  USUAL_MEASURES,
  METRIC,
} from '@zaffet/contract';
import { type Express } from 'express';
import request from 'supertest';
import { createPlan } from '../plans/queries';
import { filed } from '../reading/tasks';
import { jobSheet } from '../sheet/content';
import { planNamed } from '../testing';
import { specShop } from '../testing/specShop';

const LEARNED = {
  keys: ['air', 'slip:pva'],
  mean: [-0.3, 0.3],
  covariance: [
    [0.01, 0],
    [0, 0.04],
  ],
  centre: [],
} as const;
const FILE: CalibrationFile = { learned: LEARNED, runs: ['run-1'], leftOut: [] };
const NOTHING: CalibrationFile = { learned: null, runs: [], leftOut: [] };

describe('calibrations', () => {
  const shop = specShop();
  let app: Express;

  beforeAll(async () => {
    app = shop.build();
  });

  const kept = async (): Promise<KeptCalibration[]> =>
    (await request(app).get(API.calibrations).expect(200)).body as KeptCalibration[];

  it('are kept one after the other, the newest first, and taken back by one more', async () => {
    const before = await kept();
    const { body } = await request(app).post(API.calibrations).send(FILE).expect(201);
    expect(body).toEqual(jasmine.objectContaining(FILE));
    await request(app).post(API.calibrations).send(NOTHING).expect(201);
    const all = await kept();
    expect(all.slice(2)).toEqual(before);
    expect(all.slice(0, 2).map(({ learned }) => learned)).toEqual([null, LEARNED as never]);
    expect(all[0]!.id).toBeGreaterThan(all[1]!.id);
    expect(Date.parse(all[0]!.at)).toBeLessThanOrEqual(Date.now() + 1000);
  });

  it('are refused where they are none, and nothing is kept of that', async () => {
    const before = (await kept()).length;
    const bad = { ...FILE, learned: { ...LEARNED, mean: [-0.3, 9] } };
    const { body } = await request(app).post(API.calibrations).send(bad).expect(400);
    expect((body as Fault).code).toBe('calibration.invalid');
    expect((body as Fault).fields.map(({ path }) => path)).toEqual(['learned.mean.1']);
    await request(app).post(API.calibrations).send([]).expect(400);
    expect((await kept()).length).toBe(before);
  });

  it('hold on the job sheet', async () => {
    const plan = planNamed('Lid');
    const shelf = { items: [], measures: USUAL_MEASURES };
    const { id } = await createPlan(shop.db, filed(plan));
    const sheet = (learned: CalibrationFile['learned']): string =>
      JSON.stringify(jobSheet(plan, 'UTC', METRIC, shelf, learned).finishes.map(({ figures }) => figures));
    expect(sheet(LEARNED)).not.toBe(sheet(null));
    const making = spyOn(shop.sheets, 'make').and.resolveTo(Buffer.from(''));
    await request(app).post(API.calibrations).send(FILE).expect(201);
    await request(app)
      .get(API.jobSheet(id, 'UTC', METRIC))
      .expect(200);
    expect(making.calls.mostRecent().args[0]).toEqual(
      jasmine.objectContaining({ kind: 'job', learned: LEARNED } as never),
    );
  });
});
