import { type FilmPlanStep, isFilmStep, type PlanStep } from '@zaffet/contract';
import { forecast, type Forecast } from '@zaffet/core/forecast';
import { type MediumKind, mediumLookup } from '@zaffet/core/media';
import { type FindingCode } from '@zaffet/core/notes';
import { type ToolAction, toolOf } from '@zaffet/core/tools';
import { basisOf } from '../basis';
import { after, newDistress, newHeat, newRewet, newWipe, when } from '../create';
import { type PartPlan, withSteps } from '../partPlan';
import { type Run, stepKey } from '../runs/fold';

/*
 * When it went wrong: what may be the cause, by what was really done, and what helps, with what it would do. Causes and
 * remedies are common practice; which of them fits is told by the forecast of the run as it was carried out.
 */

export const WRONGS = [
  'no-cracks',
  'closed-crackle',
  'mush',
  'too-late',
  'no-chips',
  'too-many-chips',
  'to-wood',
  'burnt',
  'sticky-wax',
  'colour-off',
  'muddy',
  'runs',
  'missed-spots',
] as const;
export type Wrong = (typeof WRONGS)[number];

export const CAUSES = [
  'glue-dry',
  'overbrushed',
  'second-coat',
  'missed-medium',
  'medium-wet',
  'thin-coat',
  'damp',
  'thick-mix',
  'thin-mix',
  'sealer-dry',
  'porous',
  'too-wet-cloth',
  'sealer-tacky',
  'left-too-long',
  'no-barrier',
  'hot-too-long',
  'wax-thick',
  'wax-early',
  'wet-or-unsealed',
  'not-wiped',
  'too-thick',
  'standing',
  'dry-places',
] as const;
export type Cause = (typeof CAUSES)[number];

/** Causes each may have, most usual first. */
const USUAL: Readonly<Record<Wrong, readonly Cause[]>> = {
  'no-cracks': ['overbrushed', 'second-coat', 'glue-dry', 'missed-medium', 'medium-wet', 'thin-coat', 'damp'],
  'closed-crackle': ['second-coat', 'overbrushed', 'thin-coat', 'damp', 'thin-mix'],
  mush: ['overbrushed', 'medium-wet', 'thick-mix'],
  'too-late': ['glue-dry', 'sealer-dry'],
  'no-chips': ['sealer-dry', 'porous', 'thin-coat'],
  'too-many-chips': ['too-wet-cloth', 'sealer-tacky', 'thick-mix'],
  'to-wood': ['left-too-long', 'no-barrier', 'too-wet-cloth'],
  burnt: ['hot-too-long'],
  'sticky-wax': ['wax-thick', 'wax-early'],
  'colour-off': ['wet-or-unsealed', 'thin-coat'],
  muddy: ['not-wiped', 'too-thick'],
  runs: ['too-thick', 'standing', 'thin-mix'],
  'missed-spots': ['dry-places', 'thin-coat'],
};

/** What the forecast of a run says that speaks for a cause. */
const SPEAKS: Readonly<Partial<Record<FindingCode, Cause>>> = {
  'glue-dried': 'glue-dry',
  'glue-closing': 'glue-dry',
  overworked: 'overbrushed',
  'second-coat-closes': 'second-coat',
  'medium-wet': 'medium-wet',
  'too-thin': 'thin-coat',
  'damp-air': 'damp',
  'weak-crackle': 'thin-coat',
  'sealer-dry': 'sealer-dry',
  'sealer-tacky': 'sealer-tacky',
  'soaks-in': 'porous',
  'blade-hard': 'left-too-long',
  'barrier-holds': 'no-barrier',
  scorches: 'hot-too-long',
  'wax-thick': 'wax-thick',
  'buff-early': 'wax-early',
  'lay-flat': 'standing',
  'seal-thick': 'too-thick',
};

/** What a plan must have for a cause to be possible; causes that any plan may have are left out. */
const NEEDS: Readonly<Partial<Record<Cause, (plan: PartPlan) => boolean>>> = {
  'glue-dry': (plan) => hasKind(plan, 'wet-glue', 'cured-glue'),
  'missed-medium': (plan) => hasKind(plan, 'crackle-medium', 'wet-glue', 'cured-glue'),
  'medium-wet': (plan) => hasKind(plan, 'crackle-medium'),
  'second-coat': ({ steps }) => steps.filter(({ kind }) => kind === 'coat').length > 1,
  'sealer-dry': hasSealerBelow,
  'sealer-tacky': hasSealerBelow,
  'too-wet-cloth': (plan) =>
    plan.steps.some(({ kind }) => kind === 'rewet' || kind === 'wipe') || hasTool(plan, 'rub'),
  'left-too-long': (plan) => hasTool(plan, 'cut', 'soften', 'rub'),
  'hot-too-long': ({ steps }) => steps.some(({ kind }) => kind === 'heat'),
  'wax-thick': (plan) => hasKind(plan, 'wax'),
  'wax-early': (plan) => hasKind(plan, 'wax'),
  'not-wiped': (plan) => hasKind(plan, 'wax', 'glaze') || hasTool(plan, 'rub'),
};

function hasKind(
  { steps, media }: Pick<PartPlan, 'steps' | 'media'>,
  ...kinds: readonly MediumKind[]
): boolean {
  const lookup = mediumLookup(media);
  return steps.some((step) => isFilmStep(step) && kinds.includes(lookup(step.medium).kind));
}
/** A clear film with paint over it. */
function hasSealerBelow(plan: PartPlan): boolean {
  const last = plan.steps.findLastIndex(({ kind }) => kind === 'coat');
  return hasKind({ ...plan, steps: plan.steps.slice(0, Math.max(0, last)) }, 'clear');
}
const hasTool = ({ steps }: PartPlan, ...actions: readonly ToolAction[]): boolean =>
  steps.some((step) => step.kind === 'distress' && actions.includes(toolOf(step.tool).action));

/** A cause, and whether what was done speaks for it. */
export interface RankedCause {
  readonly cause: Cause;
  readonly likely: boolean;
}

/** A way out: steps put in after what was done, and what they would do. */
export interface Rescue {
  readonly key:
    | 'again'
    | 'wet-and-heat'
    | 'stop-water'
    | 'dry-brush'
    | 'scrape-patch'
    | 'wipe-wax'
    | 'repaint'
    | 'rub-down';
  readonly steps: readonly PlanStep[];
  /** Crack opening [m], chipped and bare share as it stands and with them; null where there is none. */
  readonly before: Outcome;
  readonly after: Outcome;
}
export interface Outcome {
  readonly spacing: number | null;
  readonly strength: number;
  readonly chips: number;
  readonly bare: number;
}

/** Causes of something that went wrong that the plan can have, those that what was done speaks for first. */
export function causesOf(wrong: Wrong, run: Run, of: PartPlan): RankedCause[] {
  const told = new Set<Cause>();
  for (const { code } of forecast(basisOf(of)).findings) {
    const cause = SPEAKS[code];
    if (cause !== undefined) told.add(cause);
  }
  for (const step of of.steps.filter(isFilmStep)) {
    const done = run.steps[stepKey(of.part.id, step.id)];
    if (done === undefined) continue;
    if ((done.passes ?? 0) > step.passes) told.add('overbrushed');
    if (done.mix === 'thicker') told.add('thick-mix');
    if (done.mix === 'thinner') told.add('thin-mix');
  }
  const possible = USUAL[wrong].filter((cause) => told.has(cause) || (NEEDS[cause]?.(of) ?? true));
  const usual = possible.map((cause): RankedCause => ({ cause, likely: told.has(cause) }));
  return [...usual.filter(({ likely }) => likely), ...usual.filter(({ likely }) => !likely)];
}

type Way = (c: { films: readonly FilmPlanStep[]; nextId: () => string }) => PlanStep[];
const copy = (step: FilmPlanStep, id: string, start: FilmPlanStep['start']): FilmPlanStep => ({
  ...step,
  id,
  start,
});

const WAYS: Readonly<Record<Rescue['key'], Way>> = {
  // Let it dry, sand it flat, and lay the cracking pair once more.
  again: ({ films, nextId }) => {
    const [below, top] = films.slice(-2);
    if (below === undefined || top === undefined) return [];
    return [
      newDistress(nextId(), 'sand', when('through-dry')),
      copy(below, nextId(), after(10)),
      copy(top, nextId(), top.start),
    ];
  },
  'wet-and-heat': ({ nextId }) => [newRewet(nextId(), after(0)), newHeat(nextId(), 'dryer', 90, after(1))],
  'stop-water': ({ nextId }) => [
    { ...newDistress(nextId(), 'sand', when('through-dry')), grit: 320, rounds: 4 } as PlanStep,
  ],
  'dry-brush': ({ films, nextId }) => {
    const top = films.at(-1);
    if (top === undefined) return [];
    return [
      {
        ...copy(top, nextId(), when('recoat')),
        passes: 1,
        strokes: 'crosswise',
        cover: { style: 'dry-brushed', share: 0.4 },
        thicknessUm: Math.max(30, Math.round(top.thicknessUm / 2)),
      },
    ];
  },
  'scrape-patch': ({ films, nextId }) => {
    const top = films.at(-1);
    return [
      newDistress(nextId(), 'scrape', after(10)),
      ...(top === undefined ? [] : [copy(top, nextId(), after(10))]),
    ];
  },
  'wipe-wax': ({ nextId }) => [newWipe(nextId(), after(5), false)],
  repaint: ({ films, nextId }) => {
    const top = films.at(-1);
    return top === undefined ? [] : [copy(top, nextId(), when('recoat'))];
  },
  'rub-down': ({ films, nextId }) => {
    const top = films.at(-1);
    return [
      newDistress(nextId(), 'sand', when('through-dry')),
      ...(top === undefined ? [] : [copy(top, nextId(), after(10))]),
    ];
  },
};

/** Ways out of each, the gentlest first. */
const HELPS: Readonly<Record<Wrong, readonly Rescue['key'][]>> = {
  'no-cracks': ['again'],
  'closed-crackle': ['again'],
  mush: ['again'],
  'too-late': ['again', 'repaint'],
  'no-chips': ['wet-and-heat', 'stop-water'],
  'too-many-chips': ['stop-water', 'dry-brush'],
  'to-wood': ['dry-brush', 'repaint'],
  burnt: ['scrape-patch'],
  'sticky-wax': ['wipe-wax'],
  'colour-off': ['dry-brush', 'repaint'],
  muddy: ['wipe-wax', 'repaint'],
  runs: ['rub-down'],
  'missed-spots': ['dry-brush'],
};

const outcomeOf = ({ whole }: Forecast): Outcome => ({
  spacing: whole.crack?.spacing ?? null,
  strength: whole.crack?.strength ?? 0,
  chips: whole.chippedShare,
  bare: whole.bareShare,
});

/**
 * What may be done about it after the last step that was begun, and what each would change.
 * @param afterStepId - put in after this step; first of all where null
 */
export function rescuesFor(
  wrong: Wrong,
  of: PartPlan,
  afterStepId: string | null,
  nextId: () => string,
): Rescue[] {
  const at = of.steps.findIndex(({ id }) => id === afterStepId) + 1;
  const [done, rest] = [of.steps.slice(0, at), of.steps.slice(at)];
  const before = outcomeOf(forecast(basisOf(of)));
  return HELPS[wrong].flatMap((key): Rescue[] => {
    const steps = WAYS[key]({ films: done.filter(isFilmStep), nextId });
    if (steps.length === 0) return [];
    const plan = withSteps(of, [...done, ...steps, ...rest]);
    return [{ key, steps, before, after: outcomeOf(forecast(basisOf(plan))) }];
  });
}
