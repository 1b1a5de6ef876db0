import { type Shelf, type TinItem, USUAL_MEASURES } from '@zaffet/contract';
import { newPlan } from '../newPlan';
import { foldRun, type Run } from '../runs';
import { beginning, deviceOf } from '../testing/runs';
import { RESTOCK_ML, tinSays, usedBy } from './used';

let id = 0;
const plan = newPlan('wet-glue', 'Chest', 7, '2026-05-12T08:00:00.000Z', () => `u${++id}`);
const part = plan.piece.parts[0]!.id;
const [base, glue, top] = plan.finishes[0]!.steps.map((step) => step.id) as [string, string, string];
const of = (stepId: string): { partId: string; stepId: string; coat: number; minutesAgo: number } => ({
  partId: part,
  stepId,
  coat: 0,
  minutesAgo: 0,
});

function run(...begun: readonly string[]): Run {
  const tell = deviceOf(`hand-${++id}`, plan);
  return foldRun([
    tell(0, 'run-begun', beginning(plan)),
    ...begun.flatMap((step, i) => [
      tell(100 * i, 'begun', of(step)),
      ...(step === glue ? [tell(100 * i + 1, 'film', { ...of(step), thicknessUm: 200 })] : []),
      tell(100 * i + 5, 'done', of(step)),
    ]),
  ])!;
}
const tin = (name: string, medium: string, colour: string | null, amountMl = 500): TinItem => ({
  id: name,
  kind: 'tin',
  name,
  medium,
  colour,
  amountMl,
  pricePerL: null,
  openedAt: null,
});
const shelf = (...items: TinItem[]): Shelf => ({ items, measures: USUAL_MEASURES });

describe('what a run used', () => {
  it('is what was begun, as thick as it was told, and what stays in the brush with it', () => {
    const used = usedBy(run(base, glue), shelf());
    expect(used.map(({ medium }) => medium)).toEqual(['latex', 'pva']);
    // 200 µm on 600 × 400 mm are 48 mL on the panel; a tenth or so stays in brush and dish (common practice).
    const [, pva] = used;
    expect(pva!.amountMl).toBeGreaterThan(48);
    expect(pva!.amountMl).toBeLessThan(48 * 1.4);
    expect(pva!.colour).toBeNull();
    expect(usedBy(run(), shelf())).toEqual([]);
  });

  it('counts two coats of one paint together, and two paints apart', () => {
    const used = usedBy(run(base, glue, top), shelf());
    expect(used.map(({ colourName }) => colourName)).toEqual(['Kelp', '', 'Sailcloth']);
  });

  it('comes from the tin of its medium that is nearest in colour, and of those from the fullest', () => {
    const [kelp] = usedBy(
      run(base),
      shelf(
        tin('another kind', 'chalk', '#5d6b4b'),
        tin('far off', 'latex', '#aa2222'),
        tin('a shade off', 'latex', '#5e6c4d', 900),
        tin('the one', 'latex', '#5d6b4b', 100),
        tin('the fuller one', 'latex', '#5d6b4b', 300),
      ),
    );
    expect(kelp!.tin!.name).toBe('the fuller one');
    expect(usedBy(run(base), shelf(tin('far off', 'latex', '#aa2222')))[0]!.tin).toBeNull();
  });
});

describe('a tin', () => {
  it('is to be bought again when no more is left than somebody said, or than the usual', () => {
    expect(tinSays(tin('a', 'chalk', null, RESTOCK_ML), '2026-05-12')).toEqual(['buy-again']);
    expect(tinSays(tin('a', 'chalk', null, RESTOCK_ML + 1), '2026-05-12')).toEqual([]);
    expect(tinSays({ ...tin('a', 'chalk', null, 300), restockMl: 400 }, '2026-05-12')).toEqual(['buy-again']);
  });

  it('is past its day from the day after', () => {
    const dated = { ...tin('a', 'chalk', null), useBy: '2026-05-12' };
    expect(tinSays(dated, '2026-05-12')).toEqual([]);
    expect(tinSays(dated, '2026-05-13')).toEqual(['past-its-day']);
  });
});
