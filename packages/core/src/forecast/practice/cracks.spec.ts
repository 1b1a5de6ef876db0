import { type Cover, type PanelMap, type PanelPlan, type Step } from '../../plan';
import { forecastOf } from '../../testing/forecasts';
import { part, wholeOf } from '../../testing/practice';
import { after, coat, FIRST, overGlue, overMedium, planOf, room, when } from '../../testing/plans';

/*
 * What slips and what cracks. What practitioners know to be so, as trends and ranges on plans: common practice
 * with no source, unless one is named.
 */

const openArea = (plan: PanelPlan): number => wholeOf(plan).crack?.openArea ?? 0;
const opening = (plan: PanelPlan): number => wholeOf(plan).crack?.opening ?? 0;
const firstMin = (plan: PanelPlan): number => (wholeOf(plan).firstAfter ?? Infinity) / 60;
const crackled = (medium: Partial<{ cover: Cover; map: PanelMap }>, ...more: readonly Step[]): PanelPlan =>
  planOf([
    coat('base', 'latex', 90, FIRST),
    { ...coat('medium', 'crackle', 70, when('through-dry')), ...medium },
    coat('top', 'chalk', 100, when('touch-dry')),
    ...more,
  ]);
/** A map that says one thing on the left half and another on the right. */
const halves = (left: number, right: number): PanelMap => ({
  columns: 60,
  rows: 2,
  values: Array.from({ length: 120 }, (_, i) => (i % 60 < 30 ? left : right)),
});
describe('where medium or glue is missing', () => {
  const whole = openArea(crackled({}));

  it('nothing cracks: the open area follows the area on which it lies', () => {
    expect(openArea(crackled({ cover: part(0.5) })) / whole).toBeGreaterThan(0.35);
    expect(openArea(crackled({ cover: part(0.5) })) / whole).toBeLessThan(0.65);
    expect(openArea(crackled({ cover: part(0) }))).toBe(0);
    const glued = (share: number): number =>
      openArea(
        planOf([
          coat('base', 'latex', 90, FIRST),
          coat('glue', 'pva', 110, when('through-dry'), { cover: part(share) }),
          coat('top', 'latex', 110, after(60)),
        ]),
      );
    expect(glued(0.5) / glued(1)).toBeGreaterThan(0.35);
    expect(glued(0.5) / glued(1)).toBeLessThan(0.65);
  });

  it('nothing cracks there, by a map as by patches', () => {
    const mapped = crackled({ map: halves(1, 0) });
    const at = (left: number): number =>
      forecastOf(mapped, { left, top: 0.1, width: 0.1, height: 0.2 }).whole.crack?.openArea ?? 0;
    expect(at(0.1)).toBeCloseTo(whole, 2);
    expect(at(0.4)).toBe(0);
  });

  it('counts where the top coat is missing as well', () => {
    const top = coat('top', 'chalk', 100, when('touch-dry'), { cover: part(0.5) });
    const plan = crackled({});
    expect(openArea({ ...plan, steps: [...plan.steps.slice(0, 2), top] }) / whole).toBeCloseTo(0.5, 1);
  });

  it('a panel may be crackled as a frame round a plain middle', () => {
    const rim = { columns: 12, rows: 8, values: Array.from({ length: 96 }, (_, i) => (isRim(i) ? 1 : 0)) };
    const framed = forecastOf(crackled({ map: rim }));
    expect(framed.zones.edge.crack!.openArea).toBeGreaterThan(0.8 * whole);
    expect(framed.zones.field.crack!.openArea).toBeLessThan(0.6 * whole);
  });
});

const isRim = (i: number): boolean =>
  i % 12 === 0 || i % 12 === 11 || Math.floor(i / 12) === 0 || Math.floor(i / 12) === 7;

describe('air over a crackle', () => {
  for (const [name, plan] of [
    ['glue', (air: ReturnType<typeof room>) => overGlue(110, 110, 60, air)],
    ['medium', (air: ReturnType<typeof room>) => overMedium(70, 100, air)],
  ] as const) {
    it(`over ${name} damp makes it later, no wider and clearly less`, () => {
      const usual = plan(room(21, 0.5));
      const damp = plan(room(21, 0.9));
      expect(firstMin(damp)).toBeGreaterThan(1.3 * firstMin(usual));
      expect(opening(damp)).toBeLessThanOrEqual(opening(usual));
      expect(openArea(damp)).toBeLessThan(0.7 * openArea(usual));
      expect(openArea(plan(room(10, 0.5)))).toBeLessThan(openArea(usual));
    });

    it(`over ${name} very quick drying does not widen the cracks without limit`, () => {
      const quick = plan(room(32, 0.2, 1.5));
      expect(opening(quick)).toBeLessThan(1.6 * opening(plan(room(21, 0.5))));
    });
  }

  it('over thin glue lets the first cracks come within minutes, in damp and cold too', () => {
    expect(firstMin(overGlue(60, 110, 60))).toBeLessThan(5);
    expect(firstMin(overGlue(60, 110, 60, room(14, 0.85)))).toBeLessThan(8);
    expect(firstMin(overGlue(300, 110, 60))).toBeGreaterThan(1.3 * firstMin(overGlue(100, 110, 60)));
  });
});

describe('a film thicker than anyone lays', () => {
  it('is not told of, rather than told a number', () => {
    for (const um of [420, 510]) {
      const { whole, findings } = forecastOf(overGlue(110, um, 60));
      const known = um <= 500;
      expect(whole.crack !== null)
        .withContext(`${um}`)
        .toBe(known);
      expect(findings.some(({ code }) => code === 'cracks-unknown'))
        .withContext(`${um}`)
        .toBe(!known);
      if (known) expect(whole.crack!.spacing).toBeLessThan(0.03);
    }
  });
});

describe('a touch-up', () => {
  const later = (share: number): PanelPlan =>
    crackled({}, coat('again', 'chalk', 60, after(20000), { cover: { style: 'dry-brushed', share } }));

  it('covers the cracks where it lies and leaves the others', () => {
    const whole = openArea(crackled({}));
    expect(openArea(later(0.05)) / whole).toBeGreaterThan(0.93);
    expect(openArea(later(0.05))).toBeLessThan(whole);
    const full = openArea(crackled({}, coat('again', 'chalk', 90, after(20000))));
    expect(full).toBeLessThan(0.5 * whole);
  });

  it('leaves the pattern of the coat that cracked', () => {
    const pattern = (plan: PanelPlan): readonly number[] =>
      forecastOf(plan).scene.networks.map((n) => n.layer);
    expect(pattern(later(0.05)).every((layer) => layer === 3)).toBeTrue();
  });
});

describe('glue that closes', () => {
  it('is not kept open by laying more of it', () => {
    const open = (um: number): number => {
      const { course } = forecastOf(overGlue(um, 110, 60));
      return course.windows[1]!.closesAt! - course.films[1]!.laidAt;
    };
    expect(open(220) / open(110)).toBeLessThan(1.3);
  });
});
