import { isFilmStep, type PlanStep, type Shelf } from '@zaffet/contract';
import { type OwnMedium } from '@zaffet/core/media';

/**
 * Media some steps need that the shelf has nothing of, each once; the shelf knows generic ones, which a painter's own are
 * measured from.
 */
export function notOnShelf(steps: readonly PlanStep[], shelf: Shelf, own: readonly OwnMedium[]): string[] {
  const likeOf = (key: string): string => own.find((entry) => entry.key === key)?.like ?? key;
  const there = new Set(
    shelf.items.flatMap((item) => (item.kind !== 'abrasive' && item.amountMl > 0 ? [item.medium] : [])),
  );
  const needed = steps.flatMap((step) => {
    if (step.off) return [];
    if (isFilmStep(step)) return [step.medium];
    return step.kind === 'resist' ? [step.agent] : [];
  });
  return [...new Set(needed)].filter((key) => !there.has(likeOf(key)));
}

/** What a litre of each medium costs: as a plan says, else as the shelf remembers. */
export function pricesKnown(
  prices: Readonly<Record<string, number>>,
  shelf: Shelf,
): Readonly<Record<string, number>> {
  const remembered = shelf.items.flatMap((item): [string, number][] =>
    item.kind === 'tin' && item.pricePerL !== null ? [[item.medium, item.pricePerL]] : [],
  );
  return { ...Object.fromEntries(remembered), ...prices };
}
