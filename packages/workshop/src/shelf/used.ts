import { isFilmStep, type PlanStep, type Shelf, type TinItem } from '@zaffet/contract';
import { deltaE2000 } from '@zaffet/core/colour';
import { isClear, medium } from '@zaffet/core/media';
import { quantities } from '@zaffet/core/quantity';
import { basisOf } from '../basis';
import { carriedOutAtEnd, lastDone } from '../boards/photo';
import { withSteps } from '../partPlan';
import { type Run, stepKey } from '../runs/fold';

/** What a run used of one paint, glue or wax, as it comes out of its tin. */
export interface Used {
  readonly key: string;
  readonly medium: string;
  /** `#rrggbb`; null for clear media. */
  readonly colour: string | null;
  readonly colourName: string;
  readonly amountMl: number;
  /** The tin it most likely came from; null where none on the shelf is like it. */
  readonly tin: TinItem | null;
}

/** Paints nearer than this are the same tin's, whatever they are called [CIEDE2000]: a shade off on a screen. */
const SAME = 5;
const ML_PER_M3 = 1e6;

/** What was used of everything, by what was begun and how thick it was told to be, waste included. */
export function usedBy(run: Run, shelf: Shelf): Used[] {
  const all = new Map<string, Omit<Used, 'tin'>>();
  for (const { id } of run.plan.piece.parts) {
    if (lastDone(run, id) === null) continue;
    const { plan } = carriedOutAtEnd(run, id);
    const steps = plan.steps.flatMap((step): PlanStep[] => {
      const told = run.steps[stepKey(id, step.id)];
      if (told?.begunAt == null) return [];
      return isFilmStep(step) ? [{ ...step, thicknessUm: told.thicknessUm ?? step.thicknessUm }] : [step];
    });
    if (steps.length === 0) continue;
    for (const { stepId, medium: key, asBought } of quantities(basisOf(withSteps(plan, steps)).plan)) {
      const step = steps.find((one) => one.id === stepId);
      const like = plan.media.find((own) => own.key === key)?.like ?? key;
      const paint = step !== undefined && isFilmStep(step) && !isClear(medium(like)) ? step : null;
      const name = `${like} ${paint?.colour ?? ''}`;
      const before = all.get(name);
      all.set(name, {
        key: name,
        medium: like,
        colour: paint?.colour ?? null,
        colourName: before?.colourName || (paint?.colourName ?? ''),
        amountMl: (before?.amountMl ?? 0) + asBought * ML_PER_M3,
      });
    }
  }
  return [...all.values()].map((used) => ({ ...used, tin: tinOf(used, shelf) }));
}

/** The tin that is most like what was used: of the same medium, its colour near enough, the fullest of several. */
function tinOf({ medium: key, colour }: Pick<Used, 'medium' | 'colour'>, shelf: Shelf): TinItem | null {
  const off = (tin: TinItem): number =>
    colour === null || tin.colour === null ? 0 : deltaE2000(colour, tin.colour);
  const tins = shelf.items.filter(
    (item): item is TinItem => item.kind === 'tin' && item.medium === key && off(item) <= SAME,
  );
  return tins.sort((a, b) => off(a) - off(b) || b.amountMl - a.amountMl)[0] ?? null;
}

/** Less than this left is to be bought again, where nobody said otherwise [mL]. */
export const RESTOCK_ML = 100;

/** What there is to be said of a tin: it is nearly used up, or past its day. */
export function tinSays(tin: TinItem, today: string): ('buy-again' | 'past-its-day')[] {
  return [
    ...(tin.amountMl <= (tin.restockMl ?? RESTOCK_ML) ? (['buy-again'] as const) : []),
    ...(tin.useBy != null && tin.useBy < today ? (['past-its-day'] as const) : []),
  ];
}
