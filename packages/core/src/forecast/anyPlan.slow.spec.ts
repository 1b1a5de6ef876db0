import { DISTRESS_TOOLS } from '../tools';
import fc from 'fast-check';
import { onTables } from '../basis';

import { hazards } from '../hazard';
import { MEDIUM_KEYS, SUBSTRATE_KEYS } from '../media';
import {
  COVERS,
  GRITS,
  HEAT_TOOLS,
  type PanelPlan,
  PLACES,
  FILM_MAP_RANGE,
  MAP_RANGE,
  PLAN_RANGES,
  RESIST_AGENTS,
} from '../plan';
import { quantities } from '../quantity';

import { overGlue, overMedium, planOf, room } from '../testing/plans';
import { forecastOf } from '../testing/forecasts';
import { figureValues, readout } from '../readout';

const between = (range: { min: number; max: number }): fc.Arbitrary<number> =>
  fc.double({ min: range.min, max: range.max, noNaN: true });
const start = fc.oneof(
  fc.record({
    rule: fc.constant('state' as const),
    state: fc.constantFrom('tacky' as const, 'touch-dry' as const, 'recoat' as const, 'through-dry' as const),
    wait: fc.double({ min: 0, max: 7200, noNaN: true }),
  }),
  fc.record({ rule: fc.constant('after' as const), wait: fc.double({ min: 0, max: 90000, noNaN: true }) }),
  fc.record({ rule: fc.constant('at' as const), moment: fc.double({ min: 0, max: 90000, noNaN: true }) }),
);
const anyCoat = fc.record({
  kind: fc.constant('coat' as const),
  cover: fc.record({
    style: fc.constantFrom(...COVERS),
    share: fc.double({ min: 0, max: 1, noNaN: true }),
  }),
  bonding: fc.double({ min: 0, max: 1, noNaN: true }),
  lumps: fc.boolean(),
  mixedAge: fc.constantFrom(null, 3600, 1e6),
  keptCold: fc.boolean(),
  colour: fc.constantFrom(null, '#445566', '#e0d8c8'),
  medium: fc.constantFrom(...MEDIUM_KEYS),
  thickness: between(PLAN_RANGES.thickness),
  dilution: between(PLAN_RANGES.dilution),
  passes: fc.integer(PLAN_RANGES.passes),
  strokes: fc.constantFrom('one-way' as const, 'crosswise' as const, 'swirled' as const, 'dabbed' as const),
  start,
});
const share = fc.double({ min: 0, max: 1, noNaN: true });
const place = fc.constantFrom(...PLACES);
const anyWork = fc.oneof(
  fc.record({
    kind: fc.constant('seal' as const),
    medium: fc.constantFrom('polyW', 'polyO', 'shellac', 'clearWax', 'darkWax', 'whiteWax'),
    thickness: between({ min: 5e-6, max: 150e-6 }),
    dilution: fc.constant(0),
    passes: fc.constant(1),
    strokes: fc.constant('one-way' as const),
    cover: fc.record({ style: fc.constantFrom(...COVERS), share }),
    colour: fc.constantFrom(null, '#30241a'),
    coats: fc.integer({ min: 1, max: 5 }),
    buffAfter: fc.constantFrom(null, 600, 1800, 86400),
    start,
  }),
  fc.record({
    kind: fc.constant('resist' as const),
    agent: fc.constantFrom(...RESIST_AGENTS),
    thickness: between({ min: 5e-6, max: 800e-6 }),
    share,
    where: place,
    start,
  }),
  fc.record({
    kind: fc.constant('heat' as const),
    tool: fc.constantFrom(...HEAT_TOOLS),
    duration: between(PLAN_RANGES.heatDuration),
    start,
  }),
  fc.record({ kind: fc.constant('rewet' as const), amount: between(PLAN_RANGES.rewetAmount), start }),
  fc.record({
    kind: fc.constant('distress' as const),
    tool: fc.constantFrom(...DISTRESS_TOOLS),
    grit: fc.constantFrom(...GRITS),
    rounds: fc.integer({ min: 1, max: 40 }),
    pressure: between(PLAN_RANGES.pressure),
    where: place,
    smear: share,
    start,
  }),
  fc.record({ kind: fc.constant('wipe' as const), degrease: fc.boolean(), start }),
  fc.record({ kind: fc.constant('wait' as const), duration: between({ min: 0, max: 90000 }), start }),
);
/** Maps of three cells by two, within what every kind of step allows. */
const anyMap = fc.option(
  fc.record({
    columns: fc.constant(3),
    rows: fc.constant(2),
    values: fc.array(between(FILM_MAP_RANGE), { minLength: 6, maxLength: 6 }),
  }),
  { freq: 6, nil: null },
);
const MAPPED: readonly string[] = ['coat', 'seal', 'resist', 'distress'];
const anyPlan: fc.Arbitrary<PanelPlan> = fc
  .record({
    maps: fc.array(anyMap, { minLength: 8, maxLength: 8 }),
    steps: fc.array(fc.oneof({ arbitrary: anyCoat, weight: 3 }, { arbitrary: anyWork, weight: 2 }), {
      minLength: 1,
      maxLength: 8,
    }),
    substrate: fc.constantFrom(...SUBSTRATE_KEYS),
    temperature: between(PLAN_RANGES.temperature),
    humidity: between(PLAN_RANGES.humidity),
    speed: between(PLAN_RANGES.speed),
    altitude: between(PLAN_RANGES.altitude),
  })
  .map(({ maps, steps, substrate, ...air }) =>
    planOf(
      steps.map((step, i) => {
        const map = maps[i];
        if (!map || !MAPPED.includes(step.kind)) return { ...step, id: `c${i}` };
        const { max } = step.kind === 'coat' || step.kind === 'seal' ? FILM_MAP_RANGE : MAP_RANGE;
        const values = map.values.map((value) => Math.min(max, value));
        return { ...step, id: `c${i}`, map: { ...map, values } };
      }),
      air,
      substrate,
    ),
  );

describe('forecast of any valid plan', () => {
  it('gives finite figures, shares from 0 to 1, bands that hold the value, states in order', () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        const result = forecastOf(plan);
        for (const c of result.coats) {
          const { laidAt, states } = c;
          const order = [laidAt, states.touch, states.recoat, states.through, states.cured].filter(
            (t) => t !== null,
          );
          expect(order.every(Number.isFinite)).toBeTrue();
          expect([...order].sort((a, b) => a - b)).toEqual(order);
          if (c.crack) {
            const { crackedShare, openArea, strength, spacing, opening } = c.crack;
            for (const share of [crackedShare, openArea, strength]) {
              expect(share).toBeGreaterThanOrEqual(0);
              expect(share).toBeLessThanOrEqual(1);
            }
            expect(Number.isFinite(spacing) && Number.isFinite(opening)).toBeTrue();
          }
        }
        expect(result.layers.reduce((sum, layer) => sum + layer.share, 0)).toBeCloseTo(1, 9);
        for (const layer of result.layers) {
          for (const seen of [layer.share, ...Object.values(layer.zones)]) {
            expect(seen).toBeGreaterThanOrEqual(-1e-12);
            expect(seen).toBeLessThanOrEqual(1 + 1e-12);
          }
        }
        for (const part of [result.whole, ...Object.values(result.zones)]) {
          expect(Number.isFinite(part.gloss)).toBeTrue();
          expect(part.chippedShare).toBeLessThanOrEqual(1);
          expect(part.colour).toMatch(/^#[0-9a-f]{6}$/);
          if (part.crack) expect(Number.isFinite(part.crack.spacing)).toBeTrue();
        }
        for (const quantity of quantities(plan)) expect(quantity.volume).toBeGreaterThanOrEqual(0);
        expect(hazards(plan).every((hazard) => hazard.stepIds.length > 0)).toBeTrue();
        const told = Object.values(readout(onTables(plan), result));
        for (const figure of told.flatMap(({ figures, layers }) => [...figures, ...layers])) {
          if (figure.value === null) continue;
          expect(figure.low!).toBeLessThanOrEqual(figure.value);
          expect(figure.high!).toBeGreaterThanOrEqual(figure.value);
        }
      }),
      { numRuns: 120, seed: 4 },
    );
  });

  it('says the same twice and leaves the plan as it was', () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        const before = JSON.stringify(plan);
        expect(figureValues(forecastOf(plan))).toEqual(figureValues(forecastOf(plan)));
        expect(JSON.stringify(plan)).toBe(before);
      }),
      { numRuns: 40, seed: 5 },
    );
  });

  it('does the steps in order, whatever their rules', () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        const laid = forecastOf(plan).times.map((t) => t.from);
        expect([...laid].sort((a, b) => a - b)).toEqual(laid);
      }),
      { numRuns: 60, seed: 6 },
    );
  });

  it('widens the spacing with the top coat, at any air a shop can have', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 45, max: 240 }),
        fc.integer({ min: 8, max: 36 }),
        fc.double({ min: 0.2, max: 0.75, noNaN: true }),
        (top, t, rh) => {
          for (const plan of [
            overMedium,
            (m: number, h: number, air: ReturnType<typeof room>) => overGlue(m, h, 120, air),
          ]) {
            const thin = forecastOf(plan(100, top, room(t, rh))).coats[2]!.crack!;
            const thick = forecastOf(plan(100, Math.round(top * 1.1) + 1, room(t, rh))).coats[2]!.crack!;
            expect(thick.spacing).toBeGreaterThan(thin.spacing);
          }
        },
      ),
      { numRuns: 60, seed: 7 },
    );
  });
});
