import { type CoatStep, isFilmStep, LIMITS, type PlanStep } from '@zaffet/contract';
import { type Candidate, type Cell, chooseCells, type Reading, SCATTER } from '@zaffet/core/calibrate';
import { courseOf } from '@zaffet/core/course';
import { forecast } from '@zaffet/core/forecast';
import { type Learned } from '@zaffet/core/media';
import { EIGHTY_PER_CENT } from '@zaffet/core/numeric';
import { wishValues } from '@zaffet/core/solve';
import { basisOf } from '../basis';
import { type PartPlan, withSteps } from '../partPlan';
import { type BoardSize, SEEN } from './questions';

/** Thicknesses tried, of what the finish has; common practice: a half to twice the usual. */
const BELOW = [0.6, 0.8, 1, 1.25, 1.6] as const;
const TOP = [0.75, 1, 1.35] as const;
/** Waits tried, of what the finish has. */
const WAITS = [0.35, 0.6, 1, 1.6, 2.5] as const;
/** Water for each part of what lies below, from as it comes to half and half; common practice. */
const THINNED = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.65, 0.8, 1] as const;
/** Strokes of the brush over the same place; common practice: three at most. */
const PASSES = [1, 2, 3, 4] as const;
/** Later than a state that is waited for [min]. */
const LATER = [0, 20, 60] as const;
/** Rounds of what takes paint off, of what the finish has. */
const WORK = [1, 2] as const;

/** The film of a part that is to crack, with the one it goes on; null where nothing of it cracks. */
export function crackingSteps(
  plan: PartPlan,
): { readonly top: CoatStep; readonly below: PlanStep & { thicknessUm: number } } | null {
  const told = forecast(basisOf(plan));
  const films = plan.steps.filter(isFilmStep);
  // What was to crack and does not is asked of boards as well: what lies on a film that lets it slip.
  const strongest =
    told.crackedCoat ??
    told.coats.findLastIndex(
      ({ crack }, i) => crack !== null && (told.coats[i - 1]?.medium.slipRate ?? 0) > 0,
    );
  const top = films.find(({ id }) => id === told.coats[strongest]?.coat.id);
  const below = films[films.indexOf(top!) - 1];
  return top?.kind !== 'coat' || below === undefined ? null : { top, below };
}

/** A cell that could be made: how much of each film, 0 without it; how the top coat waits; how much is taken off. */
interface Variant {
  readonly below: number;
  readonly top: number;
  readonly start: PlanStep['start'];
  readonly work?: number;
  /** Of the film below; as the finish has it where left out. */
  readonly dilution?: number;
  /** Of the brush over the same place; as the finish has it where left out. */
  readonly passes?: number;
}

/** What a board is asked that varies one finish. */
type OwnQuestion = 'how-thick' | 'when' | 'both' | 'thinned' | 'passes' | 'chips';

function variantsOf(question: OwnQuestion, { start }: PlanStep): Variant[] {
  const thick: Variant[] = BELOW.flatMap((below) => TOP.map((top) => ({ below, top, start })));
  const starts: PlanStep['start'][] =
    start.rule === 'after'
      ? [...new Set(WAITS.map((by) => Math.max(1, Math.round(start.waitMin * by))))].map((waitMin) => ({
          ...start,
          waitMin,
        }))
      : start.rule === 'state'
        ? LATER.map((later) => ({ ...start, waitMin: start.waitMin + later }))
        : [start];
  const timed = starts.flatMap((own) => TOP.map((top) => ({ below: 1, top, start: own })));
  const both = starts.flatMap((own) => BELOW.map((below) => ({ below, top: 1, start: own })));
  const thinned = THINNED.map((dilution): Variant => ({ below: 1, top: 1, start, dilution }));
  const passes = PASSES.flatMap((often) =>
    TOP.map((top): Variant => ({ below: 1, top, start, passes: often })),
  );
  if (question !== 'chips') return { 'how-thick': thick, when: timed, both, thinned, passes }[question];
  const grounds = starts.flatMap((own) => [0, 1, 1.6].map((below) => ({ below, top: 1, start: own })));
  return WORK.flatMap((work) => grounds.map((ground) => ({ ...ground, work })));
}

/** Steps of a finish that a cell ends with: the film that cracks, or what takes paint off it before it is sealed. */
function lastOf(question: OwnQuestion, steps: readonly PlanStep[], topId: string): number {
  const top = steps.findIndex(({ id }) => id === topId);
  if (question !== 'chips') return top;
  const sealed = steps.findIndex(({ kind }, n) => n > top && kind === 'seal');
  return sealed < 0 ? steps.length - 1 : sealed - 1;
}

/** The steps of a cell: the finish up to a step, made otherwise. */
function cellSteps(
  steps: readonly PlanStep[],
  { below, top }: { readonly below: PlanStep; readonly top: PlanStep },
  last: number,
  by: Variant,
): PlanStep[] {
  return steps.slice(0, last + 1).flatMap((step): PlanStep[] => {
    if (step.id === top.id && step.kind === 'coat')
      return [
        {
          ...step,
          thicknessUm: Math.round(step.thicknessUm * by.top),
          start: by.start,
          passes: by.passes ?? step.passes,
        },
      ];
    if (step.id === below.id && isFilmStep(step))
      return by.below === 0
        ? []
        : [
            {
              ...step,
              thicknessUm: Math.round(step.thicknessUm * by.below),
              dilution: by.dilution ?? step.dilution,
            },
          ];
    if (step.kind === 'distress' && by.work !== undefined)
      return [{ ...step, rounds: Math.min(LIMITS.rounds.max, step.rounds * by.work) }];
    return [step];
  });
}

/** What a board is expected to teach of the figures that are asked: 8 in 10 lie within a factor, of lengths or of odds. */
export interface Teaches {
  readonly asked: readonly Reading[];
  /** Now, and with each cell more. */
  readonly before: number;
  readonly after: readonly number[];
}

/** What is read off the cells of a board: a photo or a ruler, and a stop watch. */
const READS: readonly Reading[] = ['spacing', 'opening', 'first', 'touchBelow', 'touchTop'];
const CRACKS: readonly Reading[] = ['spacing', 'opening'];

/** What is left open, told in the scatter of readings, as a factor on the figures that are asked. */
function withinOf(asked: readonly Reading[], left: number): number {
  const scatter = asked.reduce((sum, reading) => sum + SCATTER[reading], 0) / asked.length;
  return Math.exp(EIGHTY_PER_CENT * left * scatter);
}

/** What lies below the boundary that parts where a film flakes: on it hangs what chips. */
function bedOf(from: PartPlan, topId: string): PlanStep | null {
  const { films, cracks } = courseOf(basisOf(from));
  const boundary = cracks[films.findIndex(({ step }) => step.id === topId)]?.boundary ?? 0;
  const bed = films[boundary - 1]?.step.id;
  return from.steps.find(({ id }) => id === bed) ?? null;
}

/** The cells that teach most of what is asked of a finish; null where nothing of it cracks, or chips. */
export function taughtCells(
  from: PartPlan,
  question: OwnQuestion,
  size: BoardSize,
  learned: Learned | null,
): { readonly cells: readonly (readonly PlanStep[])[]; readonly teaches: Teaches } | null {
  const cracking = crackingSteps(from);
  if (cracking === null) return null;
  const { top } = cracking;
  const below = question === 'chips' ? (bedOf(from, top.id) ?? cracking.below) : cracking.below;
  const last = lastOf(question, from.steps, top.id);
  const figures: readonly Reading[] = question === 'chips' ? ['chips'] : CRACKS;
  const variants = variantsOf(question, top);
  const cellOf = (steps: readonly PlanStep[], n: number): Cell => ({
    id: String(n),
    board: 'board',
    basis: basisOf(withSteps(from, steps)),
    top: top.id,
    read: {},
    cracked: null,
  });
  const tried = variants.map((by) => cellSteps(from.steps, { top, below }, last, by));
  const chips = (steps: readonly PlanStep[]): number =>
    wishValues(forecast(basisOf(withSteps(from, steps)))).chips ?? 0;
  if (question === 'chips' && tried.every((steps) => chips(steps) < SEEN)) return null;
  const reads = question === 'chips' ? [...READS, ...figures] : READS;
  const candidates = tried.map((steps, n): Candidate => ({ cell: cellOf(steps, n), reads }));
  const asked = tried
    .filter((_, n) => n % 2 === 0)
    .map((steps, n) => ({ cell: cellOf(steps, n), reads: figures }));
  const { chosen, before } = chooseCells(candidates, asked, size, learned);
  return {
    cells: chosen.map(({ index }) => tried[index]!),
    teaches: {
      asked: figures,
      before: withinOf(figures, before),
      after: chosen.map(({ left }) => withinOf(figures, left)),
    },
  };
}
