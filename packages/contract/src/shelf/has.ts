import { isFilmStep, type PlanStep } from '../plan/types';
import { type Shelf } from './types';

/** Media some steps need that the shelf has nothing of, each once. */
export function notOnShelf(steps: readonly PlanStep[], shelf: Shelf): string[] {
  const there = new Set(
    shelf.items.flatMap((item) => (item.kind !== 'abrasive' && item.amountMl > 0 ? [item.medium] : [])),
  );
  const needed = steps.flatMap((step) => {
    if (step.off) return [];
    if (isFilmStep(step)) return [step.medium];
    return step.kind === 'resist' ? [step.agent] : [];
  });
  return [...new Set(needed)].filter((key) => !there.has(key));
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
