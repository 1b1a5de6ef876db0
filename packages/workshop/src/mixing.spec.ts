import { type Plan, type Shelf, type ShelfItem, USUAL_MEASURES, ZaffetError } from '@zaffet/contract';
import { deltaE2000, mixParts } from '@zaffet/core/colour';
import { usualWork } from './calendar';
import { newPlan } from './newPlan';
import { lastBody, type Mixing, mixing, type MixPot } from './mixing';
import { type School } from './schools';
import { timetable } from './timetable';
import { parseShelf, parseShelfItem } from '@zaffet/contract/schemas';

const EMPTY: Shelf = { items: [], measures: USUAL_MEASURES };
const planOf = (school: School): Plan => {
  let id = 0;
  return newPlan(school, 'Chest', 7, '2026-05-12T08:00:00.000Z', () => `m${++id}`);
};
const potOf = (result: Mixing, name: string): MixPot => result.pots.find((pot) => pot.name === name)!;
const with2 = (plan: Plan): Plan => ({
  ...plan,
  piece: {
    ...plan.piece,
    parts: [...plan.piece.parts, { ...plan.piece.parts[0]!, id: 'front', name: 'Front' }],
  },
});
const tin = (changes: object = {}): ShelfItem =>
  ({
    id: 't1',
    kind: 'tin',
    name: 'Sailcloth, half a tin',
    medium: 'chalk',
    colour: '#e3dccb',
    amountMl: 500,
    pricePerL: 30,
    openedAt: null,
    ...changes,
  }) as ShelfItem;

describe('mixing', () => {
  it('adds up what every part takes, in one pot of a recipe', () => {
    const one = mixing(planOf('dried-medium'), EMPTY);
    const both = mixing(with2(planOf('dried-medium')), EMPTY);
    expect(potOf(both, 'Kelp').volume).toBeCloseTo(2 * potOf(one, 'Kelp').volume, 12);
    expect(potOf(both, 'Kelp').parts).toEqual(['Panel', 'Front']);
    expect(both.pots.length).toBe(one.pots.length);
  });

  it('has a seal of several coats used when the timetable has each of them', () => {
    const plan = planOf('softened');
    const [finish] = plan.finishes;
    const steps = finish!.steps.map((step) => (step.kind === 'seal' ? { ...step, coats: 5 } : step));
    const sealed = { ...plan, work: usualWork('+00:00'), finishes: [{ ...finish!, steps }] };
    const timed = timetable(sealed);
    const coats = timed.table.entries.filter(({ kind }) => kind === 'coat').map(({ from }) => from);
    expect(coats.length).toBe(5);
    const seal = steps.find(({ kind }) => kind === 'seal')!;
    const uses = mixing(sealed, EMPTY, timed).pots.flatMap((pot) =>
      pot.uses.filter(({ stepId }) => stepId === seal.id),
    );
    expect(uses.map(({ at }) => at).sort((a, b) => a - b)).toEqual(coats);
    // No more and no less of it than in one go.
    const volume = (whole: Plan): number =>
      mixing(whole, EMPTY)
        .pots.flatMap((pot) => pot.uses.filter(({ stepId }) => stepId === seal.id))
        .reduce((sum, use) => sum + use.volume, 0);
    const once = {
      ...sealed,
      finishes: [{ ...finish!, steps: steps.map((s) => (s === seal ? { ...seal, coats: 1 } : s)) }],
    };
    expect(volume(sealed)).toBeCloseTo(5 * volume(once as Plan), 9);
  });

  it('takes a pot of each colour of a coat, by its share', () => {
    const plan = planOf('dried-medium');
    const steps = plan.finishes[0]!.steps.map((step) =>
      step.kind === 'coat' && step.colourName === 'Sailcloth'
        ? {
            ...step,
            others: [{ name: 'Rope', colour: '#b89a6a', share: 0.3 }],
            manner: 'wet-in-wet' as const,
          }
        : step,
    );
    const several = mixing({ ...plan, finishes: [{ ...plan.finishes[0]!, steps }] }, EMPTY);
    const whole = potOf(mixing(plan, EMPTY), 'Sailcloth').volume;
    expect(potOf(several, 'Sailcloth').volume).toBeCloseTo(0.7 * whole, 12);
    expect(potOf(several, 'Rope').volume).toBeCloseTo(0.3 * whole, 12);
    expect(potOf(several, 'Rope').colour).toBe('#b89a6a');
  });

  it('stirs texture powder in, which is bought without a price of paint', () => {
    const plan = planOf('dried-medium');
    const steps = plan.finishes[0]!.steps.map((step) =>
      step.kind === 'coat' && step.colourName === 'Kelp' ? { ...step, texture: 0.4 } : step,
    );
    const textured = mixing({ ...plan, finishes: [{ ...plan.finishes[0]!, steps }] }, EMPTY);
    const [paint, powder] = potOf(textured, 'Kelp').goesIn;
    expect(powder!.name).toBe('Texture powder');
    expect(powder!.volume / paint!.volume).toBeCloseTo(0.4, 9);
    expect(textured.shopping.find(({ name }) => name === 'Texture powder')!.medium).toBeNull();
  });

  it('tells milk paint in powder and water, one to one, in spoons that are enough', () => {
    const fog = potOf(mixing(planOf('chippy-milk'), EMPTY), 'Fog');
    const [powder, water] = fog.goesIn;
    expect(powder!.name).toMatch(/powder$/);
    expect(water!.volume).toBeCloseTo(powder!.volume, 12);
    for (const stuff of fog.goesIn)
      expect(stuff.spoons.volume).toBeGreaterThanOrEqual(stuff.volume * 0.999999);
    expect(fog.over).toBeGreaterThanOrEqual(0);
    expect(fog.useBy).toBeGreaterThan(fog.uses.at(-1)!.at);
  });

  it('scales a colour recipe in parts to what is needed, powders stirred dry', () => {
    const plan = planOf('chippy-milk');
    const mix = [
      { name: 'White', colour: '#f2efe4', parts: 5 },
      { name: 'Blue black', colour: '#2c3a44', parts: 1 },
    ];
    const colour = mixParts(mix);
    const finish = plan.finishes[0]!;
    const coloured: Plan = {
      ...plan,
      palette: [{ id: 'p', name: 'Mist', colour, mix, dry: true }],
      finishes: [
        {
          ...finish,
          steps: finish.steps.map((step) =>
            step.kind === 'coat' && step.medium === 'milk' ? { ...step, colour, colourName: 'Mist' } : step,
          ),
        },
      ],
    };
    const mist = potOf(mixing(coloured, EMPTY), 'Mist');
    expect(mist.goesIn.map(({ name }) => name)).toEqual(['White', 'Blue black', 'Water']);
    expect(mist.goesIn[0]!.volume / mist.goesIn[1]!.volume).toBeCloseTo(5, 9);
    expect(mist.dry).toBeTrue();
    expect(deltaE2000(colour, '#f2efe4')).toBeGreaterThan(3);
  });

  it('buys only what the shelf has not: tins of the colour, pots that are still good', () => {
    const plan = planOf('dried-medium');
    const line = (shelf: Shelf): Mixing['shopping'][number] =>
      mixing(plan, shelf).shopping.find(({ colour }) => colour === '#e3dccb')!;
    expect(line(EMPTY).tins.length).toBe(1);
    expect(line({ ...EMPTY, items: [tin()] })).toEqual(
      jasmine.objectContaining({ tins: [], using: ['Sailcloth, half a tin'], cost: 0 }),
    );
    expect(line({ ...EMPTY, items: [tin({ colour: '#5d6b4b' })] }).tins.length).toBe(1);
    const some = line({ ...EMPTY, items: [tin({ amountMl: 5 })] });
    expect(some.fromShelf).toBeCloseTo(5e-6, 12);
    expect(some.cost!).toBeCloseTo(0.12 * 30, 9);
    // The price that the cost comes from: the tin's, unless the plan has one.
    expect(some.price).toBe(30);
    const priced = mixing(
      { ...plan, prices: { [some.medium!]: 20 } },
      { ...EMPTY, items: [tin({ amountMl: 5 })] },
    );
    expect(priced.shopping.find(({ key }) => key === some.key)!.price).toBe(20);
  });

  it('never counts on milk paint that has turned', () => {
    const plan = planOf('chippy-milk');
    const pot = (mixedAt: string): ShelfItem => ({
      id: 'p1',
      kind: 'pot',
      name: 'Fog, left over',
      medium: 'milk',
      colour: '#b9c4c1',
      amountMl: 40,
      dilution: 0,
      mixedAt,
      keptCold: true,
      body: 'cream',
    });
    const used = (item: ShelfItem): readonly string[] =>
      mixing(plan, { ...EMPTY, items: [item] }).shopping.flatMap(({ using }) => using);
    expect(used(pot('2026-05-11T18:00:00Z'))).toEqual(['Fog, left over']);
    expect(used(pot('2026-04-20T18:00:00Z'))).toEqual([]);
    expect(lastBody(plan, { ...EMPTY, items: [pot('2026-05-11T18:00:00Z')] }, 'milk')).toBe('cream');
  });

  it('counts sheets of paper against the shelf', () => {
    const plan = planOf('barrier');
    const paper: ShelfItem = { id: 'a', kind: 'abrasive', name: 'Paper', grit: 150, sheets: 9 };
    const [line] = mixing(plan, { ...EMPTY, items: [paper] }).abrasives;
    expect(line).toEqual(jasmine.objectContaining({ grit: 150, has: 9 }));
    expect(line!.sheets).toBeGreaterThan(0);
  });
});

describe('the shelf', () => {
  it('takes tins, pots and sheets, and refuses what cannot be, saying what is allowed', () => {
    expect(parseShelf({ items: [tin()], measures: USUAL_MEASURES }).items).toEqual([tin()]);
    const refused = (value: unknown): string => {
      try {
        parseShelfItem(value);
        return '';
      } catch (error) {
        return error instanceof ZaffetError ? error.message : String(error);
      }
    };
    expect(refused(tin({ amountMl: -1 }))).toMatch(/amountMl is -1; it must be a number from 0 to 50000 mL/);
    expect(refused(tin({ medium: 'treacle' }))).toMatch(/must be one of chalk/);
    expect(refused({ id: 'x', kind: 'bucket', name: 'Bucket' })).toMatch(/must be one of tin, pot, abrasive/);
    expect(refused({ id: 'x', kind: 'abrasive', name: 'Paper', grit: 151, sheets: 1 })).toMatch(
      /must be one of 80/,
    );
  });
});
