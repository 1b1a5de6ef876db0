import { toolOf } from '@zaffet/core/tools';
import {
  type CoatStep,
  type FilmPlanStep,
  isFilmStep,
  LIMITS,
  type Plan,
  type PlanStep,
  type SealStep,
} from '@zaffet/contract';
import { opposite } from '@zaffet/core/colour';
import { forecast } from '@zaffet/core/forecast';
import { isOf, medium } from '@zaffet/core/media';
import { type Finding, type FindingCode } from '@zaffet/core/notes';
import { nextGrit } from '@zaffet/core/wear';
import { after, newCoat, newDistress, newSeal, newStep, smoothing, when } from './create';
import { ownFinish } from './finishes';
import { type PartPlan, partPlan, withSteps } from './partPlan';
import { basisOf } from './basis';

/** A way out that one press takes; undo brings everything back. */
export interface Remedy {
  /** What the press does, as an order. */
  readonly label: string;
  readonly apply: (plan: Plan) => Plan;
}

/** A change of the steps of the finish that the note speaks of. */
interface StepRemedy {
  readonly label: string;
  readonly steps: readonly PlanStep[];
}

interface Case {
  readonly finding: Finding;
  readonly plan: PartPlan;
  /** All steps of the finish, also those left out. */
  readonly steps: readonly PlanStep[];
  readonly step: PlanStep;
  readonly at: number;
  readonly nextId: () => string;
}

/** One way out, or several of which the first that helps is offered. */
type Way = (c: Case) => StepRemedy | null | readonly (StepRemedy | null)[];

const changed = ({ steps, step }: Case, changes: object, label: string): StepRemedy => ({
  label,
  steps: steps.map((s) => (s === step ? ({ ...s, ...changes } as PlanStep) : s)),
});

const inserted = (steps: readonly PlanStep[], at: number, ...more: PlanStep[]): PlanStep[] => [
  ...steps.slice(0, at),
  ...more,
  ...steps.slice(at),
];

/** Puts a step first; what began with the plan begins when the new one lets it. */
function first({ steps }: Case, step: PlanStep, label: string): StepRemedy {
  const [begins, ...others] = steps;
  return {
    label,
    steps: [{ ...step, start: begins!.start }, { ...begins!, start: when('through-dry') }, ...others],
  };
}

/** Puts a step before the one the note speaks of, or first. */
const before = (c: Case, step: PlanStep, label: string): StepRemedy =>
  c.at === 0 ? first(c, step, label) : { label, steps: inserted(c.steps, c.at, step) };

/** Where finishing begins: the first seal after a step, else the end. */
function finishing({ steps, at }: Case): number {
  const seal = steps.findIndex((s, i) => i > at && s.kind === 'seal');
  return seal < 0 ? steps.length : seal;
}

/** Moves a step to another place. */
function moved({ steps, step }: Case, to: number, label: string): StepRemedy {
  const others = steps.filter((s) => s !== step);
  return { label, steps: inserted(others, to, step) };
}

const generic = (key: string, plan: PartPlan): ReturnType<typeof medium> =>
  medium(plan.media.find((own) => own.key === key)?.like ?? key);
const usualFilm =
  (label: string): Way =>
  (c) =>
    isFilmStep(c.step) ? changed(c, { thicknessUm: generic(c.step.medium, c.plan).wetFilmUm }, label) : null;
const leftOut =
  (label: string): Way =>
  (c) =>
    changed(c, { off: true }, label);
const clearCoat = (id: string, start = when('through-dry')): CoatStep =>
  newCoat(id, 'polyW', medium('polyW').tint!, '', start);

/** The film that lies under a step. */
const below = ({ steps, at }: Case): FilmPlanStep | undefined =>
  steps
    .slice(0, at)
    .filter(isFilmStep)
    .findLast(({ off }) => !off);

/** More of what lies below. */
function thickened(c: Case, factor: number): StepRemedy | null {
  const slip = below(c);
  if (slip === undefined) return null;
  const usual = generic(slip.medium, c.plan).wetFilmUm;
  const thicknessUm = Math.min(
    LIMITS.thicknessUm.max,
    Math.round(factor * Math.max(slip.thicknessUm, usual)),
  );
  return {
    label: factor < 2 ? 'Lay what is below thicker' : 'Lay what is below twice as thick',
    steps: c.steps.map((s) => (s === slip ? { ...s, thicknessUm } : s)),
  };
}

/** What makes a crackle come: fewer passes, the right moment, more below, a paint that can tear. */
const cracking: Way = (c) => {
  const { step } = c;
  const slip = below(c);
  if (!isFilmStep(step) || slip === undefined) return null;
  const wet = generic(slip.medium, c.plan).kind === 'wet-glue';
  const moment = wet
    ? after(1)
    : when(generic(slip.medium, c.plan).kind === 'cured-glue' ? 'through-dry' : 'touch-dry');
  const usual = generic(step.medium, c.plan).wetFilmUm;
  return [
    step.passes > 2 ? changed(c, { passes: 2 }, 'Two passes') : null,
    changed(c, { start: moment }, wet ? 'Paint a minute after the glue' : 'Paint when what is below is dry'),
    step.thicknessUm < usual ? changed(c, { thicknessUm: usual }, 'Lay it as thick as usual') : null,
    thickened(c, 1.4),
    thickened(c, 2),
    changed(
      c,
      { medium: 'chalk', thicknessUm: medium('chalk').wetFilmUm, passes: 2, start: moment },
      'Take chalk-type paint, at the right moment',
    ),
  ];
};

const sealed =
  (coats: (c: Case) => number): Way =>
  (c) => {
    const wanted = coats(c);
    const clear = c.steps.findLast(
      (s): s is SealStep => s.kind === 'seal' && !s.off && generic(s.medium, c.plan).kind === 'clear',
    );
    if (clear !== undefined)
      return {
        label: `${wanted} clear coats`,
        steps: c.steps.map((s) => (s === clear ? { ...clear, coats: wanted } : s)),
      };
    const wax = c.steps.findIndex((s) => s.kind === 'seal' && generic(s.medium, c.plan).kind === 'wax');
    const seal = { ...newSeal(c.nextId(), 'polyW', when('through-dry', 60)), coats: wanted };
    return {
      label: `Seal it with ${wanted} thin clear coats`,
      steps: inserted(c.steps, wax < 0 ? c.steps.length : wax, seal),
    };
  };

/** Less of a tool, from finer grit to a light hand. */
const softer: Way = (c) => {
  const { step } = c;
  if (step.kind !== 'distress') return null;
  const finer: StepRemedy[] = [];
  if (toolOf(step.tool).action === 'sand')
    for (let grit = nextGrit(step.grit, 1); grit !== null; grit = nextGrit(grit, 1))
      finer.push(changed(c, { grit }, `Sand with ${grit} grit`));
  const half = Math.max(1, Math.round(step.rounds / 2));
  return [
    ...finer,
    changed(c, { pressure: 0.6 }, 'A lighter hand'),
    changed(c, { rounds: half, pressure: 0.5 }, 'Half as much, with a light hand'),
    changed(c, { off: true }, 'Leave it out'),
  ];
};

const bonding = (c: Case, share: number, label: string): StepRemedy => ({
  label,
  steps: c.steps.map((s) =>
    s.kind === 'coat' && isOf(generic(s.medium, c.plan), 'casein') && s.bonding < share
      ? { ...s, bonding: share }
      : s,
  ),
});
const milder = (c: Case): StepRemedy => ({
  label: 'Leave hot air and water out',
  steps: c.steps.map((s) => (s.kind === 'heat' || s.kind === 'rewet' ? { ...s, off: true } : s)),
});

/** What to do about each note, where one press can do it. */
const WAYS: Readonly<Partial<Record<FindingCode, Way>>> = {
  'glue-closing': (c) => changed(c, { start: after(1) }, 'Paint a minute after the glue'),
  'glue-dried': (c) => [
    changed(c, { start: after(1) }, 'Paint a minute after the glue'),
    thickened({ ...c, steps: c.steps.map((s) => (s === c.step ? { ...s, start: after(1) } : s)) }, 1.6),
  ],
  'medium-wet': (c) => changed(c, { start: when('touch-dry') }, 'Wait until it is dry to the touch'),
  'hide-not-cured': (c) => changed(c, { start: when('through-dry') }, 'Wait until the glue has cured'),
  'base-not-dry': (c) => [
    changed(c, { start: when('recoat') }, 'Wait until it takes a coat'),
    changed(c, { start: when('through-dry') }, 'Wait until it is dry through'),
  ],
  'sealer-dry': (c) => changed(c, { start: when('tacky') }, 'Paint while the sealer still grabs'),
  'start-never': (c) => changed(c, { start: after(1440) }, 'Begin a day after the step before'),
  overworked: (c) => changed(c, { passes: 2 }, 'Two passes'),
  'second-coat-closes': leftOut('Leave the second coat out'),
  'too-thin': usualFilm('Lay it as thick as usual'),
  'crackle-missing': cracking,
  'weak-crackle': cracking,
  'paint-before-paint': (c) =>
    before(
      c,
      newCoat(c.nextId(), 'crackle', medium('crackle').tint!, '', when('recoat')),
      'Put crackle medium under it',
    ),
  'crackle-everywhere': (c) => {
    const slip = below(c);
    if (slip === undefined) return null;
    return {
      label: 'Leave medium out in places',
      steps: c.steps.map((s) => (s === slip ? { ...slip, cover: { style: 'blotchy', share: 0.7 } } : s)),
    };
  },
  'contrast-low': (c) => {
    const paint = c.steps
      .slice(0, c.at)
      .filter(isFilmStep)
      .findLast(({ medium: key, off }) => !off && generic(key, c.plan).kind === 'paint');
    return paint === undefined
      ? null
      : [
          changed(c, { colour: opposite(paint.colour), colourName: '' }, 'Take the opposite colour'),
          changed(c, { colour: '#ece6d6', colourName: '' }, 'Take a pale colour'),
          changed(c, { colour: '#2b2f31', colourName: '' }, 'Take a dark colour'),
        ];
  },
  'soaks-in': (c) => before(c, clearCoat(c.nextId()), 'Seal the base first'),
  'flakes-badly': (c) => [
    bonding(c, 0.33, 'A third of the bonding additive'),
    bonding(c, 0.66, 'Two thirds of the bonding additive'),
    milder(c),
    bonding(c, 1, 'A full dose of bonding additive'),
  ],
  'poor-hold': (c) =>
    first(c, newCoat(c.nextId(), 'primer', '#d9d6cc', 'Primer', after(0)), 'Prime it first'),
  'tannin-bleeds': (c) =>
    first(c, newCoat(c.nextId(), 'shellac', medium('shellac').tint!, '', after(0)), 'Shellac first'),
  'water-over-fresh-oil': (c) =>
    changed(c, { start: when('through-dry', 3 * 1440) }, 'Wait three days longer'),
  'spray-recoat': (c) => changed(c, { start: after(1440) }, 'Wait a day'),
  'milk-old': (c) => changed(c, { mixedHours: null }, 'Mix it fresh'),
  'wax-thick': usualFilm('Rub it on thin'),
  'seal-thick': usualFilm('Lay it thin'),
  'jelly-unsealed': (c) => before(c, clearCoat(c.nextId()), 'Clear coat the face first'),
  'jelly-left': (c) => ({
    label: 'Wipe it off when the paint is dry',
    steps: inserted(c.steps, finishing(c), newStep('wipe', c.nextId())),
  }),
  'ground-rough': (c) => before(c, smoothing(c.nextId()), 'Smooth it with 400 grit first'),
  'dust-left': (c) => {
    const wipe = { ...newStep('wipe', c.nextId()), degrease: false, start: after(0) } as PlanStep;
    return before(c, wipe, 'Wipe the dust off first');
  },
  'jelly-not-degreased': (c) => changed(c, { degrease: true }, 'Grease-cutting wipes after the cloth'),
  'salt-loose': (c) => {
    const paint = below(c);
    return {
      label: 'Strew it into a thick wet coat',
      steps: c.steps.map((s) => {
        if (s === c.step) return { ...s, start: after(1) };
        return s === paint ? { ...paint, thicknessUm: Math.max(200, paint.thicknessUm) } : s;
      }),
    };
  },
  'salt-left': (c) => ({
    label: 'Scrape it off next day',
    steps: inserted(c.steps, finishing(c), newDistress(c.nextId(), 'scrape', after(720))),
  }),
  'wax-left': (c) => ({
    label: 'Scrape it when all is dry',
    steps: inserted(c.steps, finishing(c), newDistress(c.nextId(), 'scrape', when('through-dry', 30))),
  }),
  'blade-hard': (c) => [
    changed(c, { start: after(120) }, 'Cut two hours after painting'),
    changed(c, { start: after(45) }, 'Cut three quarters of an hour after painting'),
    changed(c, { tool: 'sand', grit: 80, rounds: 8 }, 'Sand with 80 grit instead'),
  ],
  'cloth-in-vain': (c) => changed(c, { tool: 'sand', grit: 220, rounds: 8 }, 'Sand instead'),
  'bleach-dried': (c) => changed(c, { rounds: 5 }, 'Leave it on five minutes'),
  'bare-shows': (c) => (c.step.kind === 'distress' ? softer(c) : null),
  'nothing-comes-off': (c) => {
    const { step } = c;
    if (step.kind !== 'distress') return null;
    const rounds = Math.min(LIMITS.rounds.max, step.rounds + 6);
    const ways = [changed(c, { rounds }, `${rounds} passes`)];
    for (let grit = nextGrit(step.grit, -1); grit !== null; grit = nextGrit(grit, -1))
      ways.push(changed(c, { grit, rounds }, `${rounds} passes with ${grit} grit`));
    return ways;
  },
  scorches: (c) => {
    if (c.step.kind !== 'heat') return null;
    const half = Math.max(LIMITS.durationS.min, Math.round(c.step.durationS / 2));
    return [
      changed(c, { durationS: half }, `${half} s over a place`),
      changed(c, { tool: 'dryer', durationS: c.step.durationS }, 'A hairdryer instead'),
      changed(c, { tool: 'dryer', durationS: Math.min(60, half) }, 'A hairdryer, briefly'),
    ];
  },
  'dark-wax-bare': (c) => before(c, newSeal(c.nextId(), 'clearWax', when('through-dry')), 'Clear wax first'),
  'dark-wax-much': (c) => changed(c, { cover: { style: 'blotchy', share: 0.12 } }, 'Only on 12 % of it'),
  'wax-on-wet-dark': (c) => [
    changed(c, { start: when('through-dry', 720) }, 'Let the dark wax dry overnight'),
    changed(c, { start: after(2880) }, 'Let the dark wax dry two days'),
  ],
  'buff-early': buffed,
  'buff-late': buffed,
  'use-unsealed': sealed(({ finding }) => finding.values['coats'] ?? 2),
  'use-wax-only': sealed(({ finding }) => finding.values['coats'] ?? 5),
  'heat-on-solvent': leftOut('Leave the hot air out'),
  'heat-on-grease': leftOut('Leave the hot air out'),
  'heat-on-bleach': leftOut('Leave the hot air out'),
  'heat-on-old-paint': leftOut('Leave the hot air out'),
  'bleach-on-casein': (c) => changed(c, { tool: 'sponge', rounds: 8 }, 'Soften it with a wet sponge'),
  'bleach-after-alcohol': leftOut('Leave the bleach out'),
  'paint-over-wax': (c) => waxLast(c),
  'clear-over-wax': (c) => waxLast(c),
  'fabric-late': (c) => {
    const coat = c.steps.findLastIndex((s, i) => i < c.at && s.kind === 'coat');
    return coat <= 0 ? null : moved(c, coat, 'Paint the cloth before the last coat');
  },
  'transfer-soon': (c) => changed(c, { restMin: 720 }, 'Let it lie overnight'),
  'wash-on-sealed': (c) => (c.at === 0 ? leftOut('Leave it out')(c) : moved(c, 0, 'Stain first')),
  'glaze-unprotected': (c) => ({
    label: 'Seal over it',
    steps: [...c.steps, newSeal(c.nextId(), 'polyW', when('through-dry'))],
  }),
};

/** Buffs a wax when it is ready; one that never gets there is left. */
function buffed(c: Case): StepRemedy {
  const ready = c.finding.values['ready'] ?? Infinity;
  const minutes = Math.ceil(ready / 60 / 5) * 5;
  return minutes > LIMITS.buffAfterMin.max
    ? changed(c, { buffAfterMin: null }, 'Leave it unbuffed')
    : changed(c, { buffAfterMin: minutes }, `Buff after ${minutes} min`);
}

/** Brings the wax below a coat to the end. */
function waxLast(c: Case): StepRemedy | null {
  const wax = below(c);
  if (wax === undefined) return null;
  return moved({ ...c, step: wax }, c.steps.length - 1, 'Put the wax last');
}

/** Whether a plan still says the same of the same step. */
function remains(plan: PartPlan, { code, stepId }: Finding): boolean {
  return forecast(basisOf(plan)).findings.some((other) => other.code === code && other.stepId === stepId);
}

/**
 * The one-press way out of a note, or null where a hand has to decide. Only what helps is offered: after it the plan
 * no longer says so.
 * @param nextId - new ids for steps that are added
 */
export function remedyFor(finding: Finding, plan: PartPlan, nextId: () => string): Remedy | null {
  if (finding.code === 'lay-flat') {
    const { id } = plan.part;
    return {
      label: 'Lay this face up',
      apply: (file) => ({
        ...file,
        piece: {
          ...file.piece,
          parts: file.piece.parts.map((part) => (part.id === id ? { ...part, flat: true } : part)),
        },
      }),
    };
  }
  const { steps, id } = plan.finish;
  const at = steps.findIndex((step) => step.id === finding.stepId);
  const step = steps[at];
  if (step === undefined) return null;
  const ways = [WAYS[finding.code]?.({ finding, plan, steps, step, at, nextId }) ?? []].flat();
  const way = ways.find(
    (tried): tried is StepRemedy =>
      tried !== null &&
      tried.steps.length <= LIMITS.steps.max &&
      tried.steps.some(({ off }) => !off) &&
      !remains(
        withSteps(
          plan,
          tried.steps.filter(({ off }) => !off),
        ),
        finding,
      ),
  );
  if (way === undefined) return null;
  return {
    label: way.label,
    apply: (file) =>
      BY_USE.includes(finding.code)
        ? sealedWhereAsked(file, plan, finding, way.steps, nextId)
        : withFinish(file, id, way.steps),
  };
}

const withFinish = (file: Plan, id: string, steps: readonly PlanStep[]): Plan => ({
  ...file,
  finishes: file.finishes.map((finish) => (finish.id === id ? { ...finish, steps } : finish)),
});

/** Notes that go by what a part is used for. */
const BY_USE: readonly FindingCode[] = ['use-unsealed', 'use-wax-only'];

/** Seals the parts whose use asks for as much. Others of that finish keep it: they get a seal when they ask for one. */
function sealedWhereAsked(
  file: Plan,
  plan: PartPlan,
  { code, values }: Finding,
  steps: readonly PlanStep[],
  nextId: () => string,
): Plan {
  const { id, name } = plan.finish;
  const sharing = file.piece.parts.filter(({ finish }) => finish === id);
  const asks = (partId: string): boolean =>
    forecast(basisOf(partPlan(file, partId))).findings.some(
      (finding) => finding.code === code && finding.values['coats'] === values['coats'],
    );
  const asking = sharing.map((part) => part.id).filter((partId) => partId === plan.part.id || asks(partId));
  if (asking.length === sharing.length || file.finishes.length >= LIMITS.finishes.max)
    return withFinish(file, id, steps);
  // Sealed first and copied then, so that the copy has ids for the new step too.
  const sealedFile = withFinish(file, id, steps);
  const copyId = nextId();
  const split = ownFinish(
    sealedFile,
    asking,
    copyId,
    `${name}, sealed`.slice(0, LIMITS.textLength.max),
    steps.map(nextId),
  );
  return withFinish(split, id, plan.finish.steps);
}
