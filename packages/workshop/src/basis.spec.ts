import { type Plan, type PlanStep } from '@zaffet/contract';
import { NO_SHOP, type ShopData, type StepMoment } from '@zaffet/core/basis';
import { forecast } from '@zaffet/core/forecast';
import { type FactorKey, MEDIUM_KEYS } from '@zaffet/core/media';
import { readout } from '@zaffet/core/readout';
import { readdirSync, readFileSync } from 'node:fs';
import { basisOf } from './basis';
import { type Circumstances, partPlan } from './partPlan';
import { parsePlan } from '@zaffet/contract/schemas';
import { samplePlan } from './testing/plan';
import { randomPlan } from './testing/random';

const DEMO = new URL('../../../demo/plans/', import.meta.url);
const demoPlans = readdirSync(DEMO)
  .filter((name) => name.endsWith('.json'))
  .map((name) => parsePlan(JSON.parse(readFileSync(new URL(name, DEMO), 'utf8'))));

/** A shop that looked at every factor and found the tables right. */
const keys: FactorKey[] = [
  'air',
  ...MEDIUM_KEYS.flatMap((medium) =>
    (['dry', 'slip', 'strain', 'tough', 'bond'] as const).map((kind): FactorKey => `${kind}:${medium}`),
  ),
];
const TABLES_RIGHT: ShopData = {
  ...NO_SHOP,
  learned: { keys, mean: keys.map(() => 0), covariance: keys.map(() => keys.map(() => 0)) },
};

/** Every figure that is told of a part. */
function told(plan: Plan, partId: string, circumstances: Circumstances): string {
  const basis = basisOf(partPlan(plan, partId, null, circumstances));
  const { course: _, ...result } = forecast(basis);
  return JSON.stringify(result);
}

describe('basis of a forecast', () => {
  it('that holds nothing but a plan gives the figures of the tables, to the last digit', () => {
    const plans = [...demoPlans, ...Array.from({ length: 100 }, (_, seed) => randomPlan(seed + 1))];
    for (const plan of plans) {
      for (const { id } of plan.piece.parts) {
        const plain = told(plan, id, {});
        const known = { [id]: { now: 0, done: {}, answers: [], air: [] } };
        expect(told(plan, id, { shop: TABLES_RIGHT, moments: { [id]: {} }, known }) === plain)
          .withContext(`${plan.name} ${id}`)
          .toBeTrue();
      }
    }
  });

  it('knows the timetable and the run of the finish a part gets, not of one tried on it', () => {
    const plan = samplePlan();
    const [part] = plan.piece.parts;
    const tried: Plan = {
      ...plan,
      finishes: [...plan.finishes, { ...plan.finishes[0]!, id: 'other', whatIfOf: plan.finishes[0]!.id }],
    };
    const around: Circumstances = {
      shop: TABLES_RIGHT,
      moments: { [part!.id]: { x: { notBefore: 60 } } },
      known: { [part!.id]: { now: 5, done: {}, answers: [], air: [] } },
    };
    const own = basisOf(partPlan(tried, part!.id, null, around));
    expect(own.moments).toEqual({ x: { notBefore: 60 } });
    expect(own.known!.now).toBe(5);
    const other = basisOf(partPlan(tried, part!.id, 'other', around));
    // What is tried begins when the part does, and knows nothing of its run.
    expect(other.known).toBeUndefined();
    const first = tried.finishes[1]!.steps[0]!.id;
    expect(other.moments).toEqual({ [first]: { notBefore: 60 } });
  });

  it('times a what-if as the finish it is of, up to the first step that begins otherwise', () => {
    const plan = samplePlan();
    const [part] = plan.piece.parts;
    const [meant] = plan.finishes;
    const steps = meant!.steps.map((step, i) => ({ ...step, id: `copy-${i}` }));
    const at = (i: number): StepMoment => ({ notBefore: 60 * (i + 1) });
    const moments = Object.fromEntries(meant!.steps.map(({ id }, i) => [id, at(i)]));
    const timed = (copy: readonly PlanStep[]): object => {
      const whatIf = { ...meant!, id: 'other', whatIfOf: meant!.id, steps: copy };
      const tried = { ...plan, finishes: [meant!, whatIf] };
      return basisOf(partPlan(tried, part!.id, 'other', { moments: { [part!.id]: moments } })).moments!;
    };
    expect(timed(steps)).toEqual(Object.fromEntries(steps.map(({ id }, i) => [id, at(i)])));
    const later = steps.map((step, i) =>
      i === 1 ? { ...step, start: { rule: 'after', waitMin: 999 } as const } : step,
    );
    expect(timed(later)).toEqual({ 'copy-0': at(0) });
  });

  it('carries what the shop knows into bands', () => {
    const width = (circumstances: Circumstances): number => {
      const { high, value } = readout(basisOf(partPlan(samplePlan(), null, null, circumstances))).panel
        .figures[0]!;
      return high! / value!;
    };
    expect(width({ shop: TABLES_RIGHT })).toBeLessThan(width({}));
    expect(width({ shop: { ...NO_SHOP, scatter: { spacing: 0.5 } } })).toBeGreaterThan(width({}));
  });
});
