import { toolOf } from '@zaffet/core/tools';
import {
  type CoatStep,
  type FilmPlanStep,
  type Ingredient,
  isFilmStep,
  type Plan,
  type Shelf,
} from '@zaffet/contract';
import { deltaE2000 } from '@zaffet/core/colour';
import { stepTimes } from '@zaffet/core/forecast';
import { celsiusToKelvin } from '@zaffet/core/units';
import { type Schedule, sumsOf } from '@zaffet/core/schedule';
import { isClear, mediumLookup, POWDER_SOLIDS } from '@zaffet/core/media';
import { isFilm, panelArea } from '@zaffet/core/plan';
import {
  mixInSpoons,
  type Pot,
  pots,
  type PotUse,
  quantities,
  type Spooned,
  tinsFor,
} from '@zaffet/core/quantity';
import { pricesKnown } from './shelf/has';
import { potUseBy } from './shelf/keeps';
import { basisOf } from './basis';
import { partPlan } from './partPlan';
import { colours, recipeOf } from './potRecipe';
import { timetable } from './timetable';

const ML = 1e-6;
/** Colours nearer than this are one to the eye [ΔE00]. */
const SAME_COLOUR = 2;

/** An ingredient with how much of it goes in [m³]. */
export interface Measured {
  readonly name: string;
  readonly colour: string | null;
  /** Paint is bought by its price, powder without one, water not at all. */
  readonly stuff: 'paint' | 'texture' | 'water';
  readonly volume: number;
  readonly spoons: Spooned;
}

/** A pot of the plan as it is mixed: when, what goes in, what it is for. */
export interface MixPot extends Pot {
  readonly id: string;
  readonly name: string;
  /** `#rrggbb`; null for clear media. */
  readonly colour: string | null;
  readonly dilution: number;
  /** In the order it goes into the pot. */
  readonly goesIn: readonly Measured[];
  /** Powders are stirred together dry, before the water. */
  readonly dry: boolean;
  /** What whole spoons hold beyond what is used [m³]. */
  readonly over: number;
  /** How far the part most off is off its ratio in spoons: beyond what a spoon is true to it is better weighed. */
  readonly off: number;
  readonly parts: readonly string[];
  /** The first step it is for, as the plan has it. */
  readonly step: FilmPlanStep;
}

/** What is to be bought, and what the shelf has of it. Volumes in m³. */
export interface ShoppingLine {
  readonly key: string;
  readonly name: string;
  readonly medium: string | null;
  readonly colour: string | null;
  /** As it comes in the tin. */
  readonly needed: number;
  readonly fromShelf: number;
  /** Names of what is used up first: mixed pots, then tins. */
  readonly using: readonly string[];
  /** Tins to buy [m³]. */
  readonly tins: readonly number[];
  /** Of a litre: the plan's, else the shelf's; null without one. */
  readonly price: number | null;
  /** Of the tins; null without a price. */
  readonly cost: number | null;
}

export interface AbrasiveLine {
  readonly grit: number;
  readonly sheets: number;
  readonly has: number;
}

export interface Mixing {
  readonly pots: readonly MixPot[];
  readonly shopping: readonly ShoppingLine[];
  readonly abrasives: readonly AbrasiveLine[];
  /** What is laid and left in brush and dish, by the litre's price; null without any price. */
  readonly cost: number | null;
  /** What the tins to buy cost; null where a price is missing. */
  readonly toPay: number | null;
  readonly handsOn: number;
}

/** Area a sheet of abrasive paper does before it is dull [m²]; common practice. */
const SHEET_DOES = 0.8;

/**
 * What a plan takes over all its parts: pots to mix with their moments by the timetable, what goes into each, what to buy
 * against a shelf.
 * @throws InputError as `forecast`
 */
export function mixing(plan: Plan, shelf: Shelf, { table, circumstances } = timetable(plan)): Mixing {
  const uses: PotUse[] = [];
  /** The step a recipe is first made for, in the colour it is made in. */
  const made = new Map<string, FilmPlanStep>();
  const sanded = new Map<number, number>();
  for (const { id } of plan.piece.parts) {
    const part = partPlan(plan, id, null, circumstances);
    const basis = basisOf(part);
    const { plan: model } = basis;
    const media = mediumLookup(model.media);
    const times = stepTimes(basis);
    const area = panelArea(model.panel);
    for (const item of quantities(model, plan.prices)) {
      const laid = part.steps.find(({ id: own }) => own === item.stepId)!;
      const index = model.steps.findIndex((s) => s.id === item.stepId);
      if (!isFilm(model.steps[index]!) || !isFilmStep(laid)) continue;
      const coats = coatsAt(table, id, item.stepId, times[index]!.from);
      for (const { step, share } of colours(laid)) {
        const recipe = recipeOf(step);
        if (!made.has(recipe)) made.set(recipe, step);
        const each = share / coats.length;
        for (const at of coats)
          uses.push({
            stepId: item.stepId,
            partId: id,
            recipe,
            medium: media(step.medium),
            dilution: step.dilution,
            at,
            volume: each * item.volume,
            water: each * item.water,
            powder: item.powder === null ? null : each * item.powder,
            texture: each * item.texture,
          });
      }
    }
    for (const step of part.steps)
      if (step.kind === 'distress' && toolOf(step.tool).action === 'sand')
        sanded.set(step.grit, (sanded.get(step.grit) ?? 0) + area * Math.max(1, step.rounds / 8));
  }
  const mixed = pots(uses, celsiusToKelvin(plan.air.temperatureC), mixedBy(table)).map((pot, i) =>
    mixPot(pot, i, plan, shelf, made.get(pot.recipe)!),
  );
  const shopping = shoppingOf(mixed, plan, shelf);
  const costs = shopping.filter(({ tins }) => tins.length > 0).map(({ cost }) => cost);
  return {
    pots: mixed,
    shopping,
    abrasives: [...sanded].map(([grit, area]) => ({
      grit,
      sheets: Math.ceil(area / SHEET_DOES),
      has: shelf.items.reduce(
        (sum, item) => sum + (item.kind === 'abrasive' && item.grit === grit ? item.sheets : 0),
        0,
      ),
    })),
    cost: usedCost(mixed, plan, shelf),
    toPay: costs.some((cost) => cost === null) ? null : costs.reduce<number>((sum, c) => sum + c!, 0),
    handsOn: sumsOf(table).hands,
  };
}

/** When the coats of a step go on, by the timetable: of all but seals there is one. */
function coatsAt(
  { entries }: Pick<Schedule, 'entries'>,
  partId: string,
  stepId: string,
  from: number,
): number[] {
  const coats = entries.filter(
    (entry) => entry.kind === 'coat' && entry.partId === partId && entry.stepId === stepId,
  );
  return coats.length === 0 ? [from] : coats.map((entry) => entry.from);
}

/** The pots a step of a part takes its paint out of, and how much of each [m³]. */
export const potsFor = (
  { pots: mixed }: Mixing,
  partId: string,
  stepId: string,
): { readonly pot: MixPot; readonly volume: number }[] =>
  mixed.flatMap((pot) => {
    const uses = pot.uses.filter((use) => use.partId === partId && use.stepId === stepId);
    const amount = uses.reduce((sum, { volume }) => sum + volume, 0);
    return uses.length === 0 ? [] : [{ pot, volume: amount }];
  });

/** When a pot is mixed: the last time before its first use at which the timetable has one made for that use. */
const mixedBy =
  ({ mixes }: Pick<Schedule, 'mixes'>) =>
  ({ partId, stepId, recipe, at }: PotUse): number | null => {
    const moments = mixes
      .filter((mix) => mix.partId === partId && mix.stepId === stepId && mix.recipe.startsWith(recipe))
      .map((mix) => mix.at)
      .filter((moment) => moment <= at);
    return moments.length === 0 ? null : Math.max(...moments);
  };

const measuresOf = ({ measures }: Shelf): { dish: number; spoon: number; teaspoon: number } => ({
  dish: measures.dishMl * ML,
  spoon: measures.spoonMl * ML,
  teaspoon: measures.teaspoonMl * ML,
});

/** What is mixed for a coat's colour, by its name and colour in the palette; nothing where it is bought so. */
function recipeParts(plan: Plan, step: FilmPlanStep): { mix: readonly Ingredient[]; dry: boolean } {
  const entry = plan.palette.find(({ name, colour }) => name === step.colourName && colour === step.colour);
  return entry === undefined ? { mix: [], dry: false } : { mix: entry.mix, dry: entry.dry };
}

function mixPot(pot: Pot, index: number, plan: Plan, shelf: Shelf, film: FilmPlanStep): MixPot {
  const measures = measuresOf(shelf);
  const clear = isClear(pot.medium);
  const { mix, dry } = recipeParts(plan, film);
  type Part = Omit<Measured, 'spoons'>;
  const measured = (
    name: string,
    colour: string | null,
    volume: number,
    stuff: Part['stuff'] = 'paint',
  ): Part => ({ name, colour, stuff, volume });
  const own = plan.media.find(({ key }) => key === film.medium);
  const mediumName = own?.name ?? pot.medium.name;
  const thinning = pot.thinned.reduce((sum, { water: more }) => sum + more, 0);
  const base = pot.powder ?? pot.volume - pot.water - thinning - POWDER_SOLIDS * pot.texture;
  const wholeParts = mix.reduce((sum, { parts }) => sum + parts, 0);
  const called = film.colourName ? `${film.colourName}, ${mediumName.toLowerCase()}` : mediumName;
  const stuff =
    mix.length === 0
      ? [measured(pot.powder === null ? called : `${called} powder`, clear ? null : film.colour, base)]
      : mix.map(({ name, colour, parts }) => measured(name, colour, (base * parts) / wholeParts));
  const water = (pot.powder ?? 0) + pot.water;
  const parts = [
    ...stuff,
    ...(pot.texture > 0 ? [measured('Texture powder', null, pot.texture, 'texture')] : []),
    ...(water > 0 ? [measured('Water', null, water, 'water')] : []),
  ];
  const { spoons, off } = mixInSpoons(
    parts.map(({ volume }) => volume),
    measures,
  );
  const goesIn = parts.map((part, i) => ({ ...part, spoons: spoons[i]! }));
  return {
    ...pot,
    id: `${index} ${pot.recipe}`,
    name: film.colourName || mediumName,
    colour: clear ? null : film.colour,
    dilution: pot.uses[0]!.dilution,
    goesIn,
    dry: mix.length > 1 && (dry || pot.powder !== null),
    over: goesIn.reduce((sum, { spoons: of, volume }) => sum + of.volume - volume, 0),
    off,
    parts: [...new Set(pot.uses.map(({ partId }) => plan.piece.parts.find(({ id }) => id === partId)!.name))],
    step: film,
  };
}

/** What the paint used costs; null without any price. */
function usedCost(mixed: readonly MixPot[], plan: Plan, shelf: Shelf): number | null {
  const prices = pricesKnown(plan.prices, shelf);
  const costs = mixed.flatMap(({ medium, goesIn }) => {
    const price = prices[medium.key];
    const volume = goesIn.filter(({ stuff }) => stuff === 'paint').reduce((sum, i) => sum + i.volume, 0);
    return price === undefined ? [] : [volume * 1000 * price];
  });
  return costs.length === 0 ? null : costs.reduce((sum, cost) => sum + cost, 0);
}

const alike = (a: string | null, b: string | null): boolean =>
  a === null || b === null ? a === b : deltaE2000(a, b) < SAME_COLOUR;

/** What to buy: of each stuff what is needed, less what the shelf has that is still good when it is used. */
function shoppingOf(mixed: readonly MixPot[], plan: Plan, shelf: Shelf): ShoppingLine[] {
  const start = Date.parse(plan.startsAt);
  const prices = pricesKnown(plan.prices, shelf);
  const left = new Map(shelf.items.map((item) => [item.id, 'amountMl' in item ? item.amountMl * ML : 0]));
  const lines = new Map<string, { line: ShoppingLine; needed: number; fromShelf: number; using: string[] }>();
  for (const pot of mixed) {
    // Mixed pots first: of the same medium and colour, no thinner than wanted, still good at the last use.
    const lastAt = start + pot.uses.at(-1)!.at * 1000;
    let toMix = 1;
    const usedPots: string[] = [];
    for (const item of shelf.items) {
      if (item.kind !== 'pot' || item.medium !== pot.medium.like || !alike(item.colour, pot.colour)) continue;
      if (item.dilution > pot.dilution + 1e-9 || potUseBy(item) < lastAt) continue;
      const take = Math.min(left.get(item.id) ?? 0, pot.volume * toMix);
      if (take <= 0) continue;
      left.set(item.id, left.get(item.id)! - take);
      toMix -= take / pot.volume;
      usedPots.push(item.name);
    }
    for (const stuff of pot.goesIn) {
      if (stuff.stuff === 'water') continue;
      const paint = stuff.stuff === 'paint';
      const key = `${pot.medium.key} ${stuff.colour ?? ''} ${stuff.name}`;
      const entry = lines.get(key) ?? {
        line: {
          key,
          name: stuff.name,
          medium: paint ? pot.medium.key : null,
          colour: stuff.colour,
          needed: 0,
          fromShelf: 0,
          using: [],
          tins: [],
          price: null,
          cost: null,
        },
        needed: 0,
        fromShelf: 0,
        using: [],
      };
      entry.needed += stuff.volume;
      entry.fromShelf += stuff.volume * (1 - toMix);
      entry.using.push(...usedPots);
      let open = stuff.volume * toMix;
      for (const item of paint ? shelf.items : []) {
        if (item.kind !== 'tin' || item.medium !== pot.medium.like || !alike(item.colour, stuff.colour))
          continue;
        const take = Math.min(left.get(item.id) ?? 0, open);
        if (take <= 0) continue;
        left.set(item.id, left.get(item.id)! - take);
        open -= take;
        entry.fromShelf += take;
        entry.using.push(item.name);
      }
      lines.set(key, entry);
    }
  }
  return [...lines.values()].map(({ line, needed, fromShelf, using }) => {
    const tins = tinsFor(Math.max(0, needed - fromShelf - 1e-9));
    const price = line.medium === null ? null : (prices[line.medium] ?? null);
    const bought = tins.reduce((sum, tin) => sum + tin, 0);
    return {
      ...line,
      needed,
      fromShelf,
      using: [...new Set(using)],
      tins,
      price,
      cost: tins.length === 0 ? 0 : price === null ? null : bought * 1000 * price,
    };
  });
}

/** What was last seen of a mix of this medium: in the plan, else on the shelf. */
export function lastBody(plan: Plan, shelf: Shelf, medium: string): CoatStep['body'] {
  const steps = plan.finishes.flatMap(({ steps: own }) => own);
  const seen = steps.findLast(
    (step): step is CoatStep => step.kind === 'coat' && step.medium === medium && step.body !== null,
  );
  if (seen !== undefined) return seen.body;
  const pot = shelf.items.findLast(
    (item) => item.kind === 'pot' && item.medium === medium && item.body !== null,
  );
  return pot?.kind === 'pot' ? pot.body : null;
}
