import { isFilmStep, type PlanStep } from '@zaffet/contract';
import {
  type Belief,
  believe,
  heard,
  inShopAir,
  type Look,
  shopAirAfter,
  type Spread,
  stepFactors,
  usualPrior,
} from '@zaffet/core/live';
import { type Learned, PRIOR_SPREAD, type StepFactors } from '@zaffet/core/media';
import { type Run, type Seen, stepKey, type StepRun } from '../runs/fold';
import { buffCoat } from '../runs/known';
import { carriedOut, type Worked } from './carriedOut';

/** What the air of a shop is off the plan's before anybody has looked: the tables' own doubt [ln]. */
const AIR: Spread = { mean: 0, sd: PRIOR_SPREAD.air };

/** What a calibration leaves open of the air, and how it differs from day to day [sd of ln]; assumed. */
const DAY_TO_DAY = 0.15;
export function airExpected(learned: Learned | null): Spread {
  const at = learned?.keys.indexOf('air') ?? -1;
  return at < 0 ? AIR : { mean: 0, sd: Math.hypot(Math.sqrt(learned!.covariance[at]![at]!), DAY_TO_DAY) };
}

/** Beliefs that were worked out, by all that they rest on. */
export type Beliefs = Map<string, Belief>;
/** So many are kept; the oldest go first. */
const KEPT = 400;

/** A coat that was laid, with what was said of it. */
export interface Laid {
  readonly partId: string;
  readonly step: PlanStep;
  readonly laidAt: number;
  readonly looks: readonly Look[];
  readonly weighed: boolean;
  /** How many steps of its part come before it; and whether a section of it waits for its coat. */
  readonly order: number;
  readonly waits: boolean;
}

/** The film on top of a part: glue while a section of it is still to be painted, else the last that was laid. */
export function topOf(laid: readonly Laid[], partId: string): Laid | undefined {
  const mine = laid.filter((one) => one.partId === partId).sort((a, b) => a.order - b.order);
  return mine.findLast(({ waits }) => waits) ?? mine.at(-1);
}

/** What is believed of a coat before a look counts, and since when it lies; null where none was laid. */
export function beliefNow(
  run: Run,
  partId: string,
  stepId: string,
  now: number,
  known: Beliefs,
): { readonly belief: Belief; readonly laidAt: number } | null {
  const worked = run.plan.piece.parts.map(({ id }) => carriedOut(run, id, now));
  const laid = worked.flatMap((one) => laidOf(run, one)).sort((a, b) => a.laidAt - b.laidAt);
  let air = airExpected(run.learned);
  for (const coat of laid) {
    const of = worked.find(({ plan }) => plan.part.id === coat.partId)!;
    const asked = coat.partId === partId && coat.step.id === stepId;
    if (!asked && coat.looks.length === 0) continue;
    const belief = believed(of, coat, air, known);
    if (asked) return { belief, laidAt: coat.laidAt };
    air = shopAirAfter(air, belief);
  }
  return null;
}

/** The coats of a part that were laid, with the looks at them. */
export function laidOf(run: Run, { plan }: Worked): Laid[] {
  const partId = plan.part.id;
  return plan.steps.filter(isFilmStep).flatMap((step): Laid[] => {
    const coats = Array.from(
      { length: buffCoat(step) },
      (_, coat) => run.steps[stepKey(partId, step.id, coat)],
    );
    const last = coats.findLast((one) => one?.begunAt != null);
    if (last === undefined) return [];
    const seen = run.seen.filter((one) => one.partId === partId && one.stepId === step.id);
    return [
      {
        partId,
        step,
        laidAt: openSince(last),
        looks: seen.map((one) => lookOf(one, last)),
        weighed: last.thicknessUm !== null,
        order: plan.steps.indexOf(step),
        waits:
          last.doneAt === null &&
          last.sections.some(({ gluedAt, paintedAt }) => gluedAt !== null && paintedAt === null),
      },
    ];
  });
}

/** Since when a coat lies; of glue in sections, the oldest that nothing went over. */
function openSince({ begunAt, sections }: StepRun, at = Number.POSITIVE_INFINITY): number {
  const open = sections.flatMap(({ gluedAt, paintedAt }) =>
    gluedAt !== null && gluedAt <= at && (paintedAt === null || paintedAt > at) ? [gluedAt] : [],
  );
  return open.length === 0 ? begunAt! : Math.min(...open);
}

/** Some places of a coat are through before the others: what is so in some of them is coming there just now. */
function lookOf(seen: Seen, coat: StepRun): Look {
  const since = Math.max(1, (seen.at - openSince(coat, seen.at)) / 1000);
  const { after, before, now, places } = seen;
  if (places === 'none' && after !== null) return { since, after: null, before: after, now: false };
  return { since, after, before, now: now || places === 'some' };
}

/** What is believed of a coat: drawn once for the air the plan expects, then weighed by the shop's and by looks. */
export function believed(of: Worked, coat: Laid, air: Spread, known: Beliefs): Belief {
  const basis = of.basis(of.plan.circumstances.shop.learned);
  const { done, air: read } = basis.known!;
  const key = JSON.stringify([coat.partId, coat.step, coat.laidAt, coat.weighed, done, read]);
  let drawn = known.get(key);
  if (drawn === undefined) {
    drawn = believe(basis, coat.step.id, usualPrior(AIR, coat.weighed));
    if (known.size >= KEPT) known.delete(known.keys().next().value!);
    known.set(key, drawn);
  }
  return coat.looks.reduce(heard, inShopAir(drawn, AIR, air));
}

/** What a part goes on with: the air of today, and its coats that somebody looked at. */
export function learnedToday(
  { plan }: Worked,
  air: Spread,
  beliefs: ReadonlyMap<string, Belief>,
  laid: readonly Laid[],
): Learned | null {
  const partId = plan.part.id;
  const steps = Object.fromEntries(
    laid.flatMap(({ partId: part, step, looks }) => {
      const belief = beliefs.get(stepKey(partId, step.id));
      if (part !== partId || looks.length === 0 || belief === undefined) return [];
      const factors = stepFactors(belief);
      // The coat's own air counts on top of the shop's.
      return [[step.id, { ...factors, air: factors.air - air.mean }] as const];
    }),
  );
  return withToday(plan.circumstances.shop.learned, air, steps);
}

/** What was learned, with the air of today and the coats that somebody looked at. */
function withToday(
  learned: Learned | null,
  air: Spread,
  steps: Readonly<Record<string, StepFactors>>,
): Learned | null {
  const { keys, mean, covariance } = learned ?? { keys: [], mean: [], covariance: [] };
  const at = keys.indexOf('air');
  const others = keys.map((_, i) => i).filter((i) => i !== at);
  return {
    ...learned,
    keys: ['air', ...others.map((i) => keys[i]!)],
    mean: [(at < 0 ? 0 : mean[at]!) + air.mean, ...others.map((i) => mean[i]!)],
    covariance: [
      [air.sd ** 2, ...others.map(() => 0)],
      ...others.map((i) => [0, ...others.map((k) => covariance[i]![k]!)]),
    ],
    steps,
  };
}
