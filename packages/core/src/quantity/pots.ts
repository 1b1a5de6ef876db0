import { isOf, type Medium } from '../media';
import { potLife } from './quantity';

/** Something laid that comes out of a pot. Volumes in m³, moments in s from the plan's start. */
export interface PotUse {
  readonly stepId: string;
  readonly partId: string;
  /** Uses of one recipe may come out of one pot: the same medium, colour, additive. */
  readonly recipe: string;
  /** Water per litre; what is left of a pot can be thinned for a later use, and never thickened. */
  readonly dilution: number;
  readonly medium: Medium;
  readonly at: number;
  readonly volume: number;
  readonly water: number;
  readonly powder: number | null;
  readonly texture: number;
}

/** What is left of a pot, thinned for a later use. */
export interface Thinning {
  readonly stepId: string;
  readonly at: number;
  /** Water stirred into all that is left [m³]. */
  readonly water: number;
}

/** A pot mixed or poured once, for one use or several. */
export interface Pot {
  readonly recipe: string;
  readonly medium: Medium;
  readonly uses: readonly PotUse[];
  /** As it is used, water added later included. */
  readonly volume: number;
  /** Water that goes in when it is mixed. */
  readonly water: number;
  readonly thinned: readonly Thinning[];
  readonly powder: number | null;
  readonly texture: number;
  /** When it is mixed: before its first use, after its rest. */
  readonly mixedAt: number;
  /** Until when it keeps where it stands. */
  readonly useBy: number;
  /** It only lasts to its last use in a refrigerator. */
  readonly keepCold: boolean;
}

export type MixedWhen = (first: PotUse) => number | null;

/** Milk paint rests after mixing; common practice, 15 to 20 minutes [s]. */
export const MILK_REST = 1200;
/** A refrigerator, and the shop [K]. */
const COLD = 277.15;

/**
 * Puts uses together into pots: of one recipe as many as the mix keeps for, in the shop if that is long enough, else
 * in a refrigerator where that helps; what comes later is mixed afresh.
 * @param temperature - of the shop [K]
 * @param mixed - when the pot of a first use is mixed [s from the plan's start]; null, or nothing given, when it is used
 */
export function pots(uses: readonly PotUse[], temperature: number, mixed: MixedWhen = () => null): Pot[] {
  const sorted = [...uses].sort((a, b) => a.at - b.at);
  const done: Pot[] = [];
  const open = new Map<string, PotUse[]>();
  const close = (recipe: string): void => {
    const of = open.get(recipe);
    if (of !== undefined) done.push(potOf(of, temperature, mixed));
    open.delete(recipe);
  };
  for (const use of sorted) {
    const of = open.get(use.recipe);
    if (
      of !== undefined &&
      (use.at - of[0]!.at > potLife(use.medium, COLD) || use.dilution < of.at(-1)!.dilution)
    )
      close(use.recipe);
    open.set(use.recipe, [...(open.get(use.recipe) ?? []), use]);
  }
  for (const recipe of [...open.keys()]) close(recipe);
  return done.sort((a, b) => a.mixedAt - b.mixedAt);
}

function potOf(uses: readonly PotUse[], temperature: number, mixed: MixedWhen): Pot {
  const first = uses[0]!;
  const { medium, recipe } = first;
  const sum = (of: (use: PotUse) => number): number => uses.reduce((all, use) => all + of(use), 0);
  const rests = isOf(medium, 'powder') ? MILK_REST : 0;
  const mixedAt = mixed(first) ?? first.at - rests;
  const lasts = uses.at(-1)!.at - mixedAt;
  const keepCold = lasts > potLife(medium, temperature);
  return {
    recipe,
    medium,
    uses,
    volume: sum(({ volume }) => volume),
    ...waterOf(uses),
    powder: first.powder === null ? null : sum(({ powder }) => powder ?? 0),
    texture: sum(({ texture }) => texture),
    mixedAt,
    useBy: mixedAt + potLife(medium, keepCold ? COLD : temperature),
    keepCold,
  };
}

/** Water that goes in at first, and into what is left before each use that wants it thinner. */
function waterOf(uses: readonly PotUse[]): Pick<Pot, 'water' | 'thinned'> {
  const base = uses.map(({ volume, water }) => volume - water);
  const leftFrom = (i: number): number => base.slice(i).reduce((sum, volume) => sum + volume, 0);
  const thinned = uses.flatMap(({ stepId, at, dilution }, i): Thinning[] => {
    const more = i === 0 ? 0 : dilution - Math.max(0, uses[i - 1]!.dilution);
    return more > 1e-9 ? [{ stepId, at, water: more * leftFrom(i) }] : [];
  });
  return { water: Math.max(0, uses[0]!.dilution) * leftFrom(0), thinned };
}

/** Sizes paint is sold in [m³], a sample pot first; common practice. */
export const TINS = [120e-6, 250e-6, 500e-6, 750e-6, 1e-3, 2.5e-3] as const;

/**
 * Tins to buy for a volume: the fewest that are enough, and of those the least paint; up to two of a size.
 * @returns sizes [m³], the largest first
 */
export function tinsFor(volume: number): number[] {
  if (volume <= 0) return [];
  const single = TINS.find((size) => size >= volume);
  if (single !== undefined) {
    // Two small pots hold less paint than the next tin.
    const pair = TINS.find((size) => 2 * size >= volume);
    return pair !== undefined && 2 * pair < single ? [pair, pair] : [single];
  }
  const largest = TINS.at(-1)!;
  const rest = tinsFor(volume - largest);
  return [largest, ...rest];
}
