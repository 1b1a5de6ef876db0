import { airIndexAt, hotSurface } from '../air';
import { bleachWetFor, type Course, type FilmRun, isSoftened, JETS, waxManner } from '../course';
import { isFilm, mayHoldLead, type PanelPlan, type Step } from '../plan';
import { isClear, isOf, substrate } from '../media';
import { jellySoaks, type RemovalForecast, saltBed, staysPale } from '../outcome';
import { toolOf } from '../tools';
import { softenedShare } from '../wear';
import { type AddFinding } from './codes';
import { BLISTERS, BUFFED_BY, DARK_WAX_SHARE, HARD, SCORCHES, SOLVENT_LOCK } from './limits';

/** Depth under which a cloth does nothing [m]. */
const IN_VAIN = 1.5e-6;
/** From this grit on paper smooths; common practice. */
const SMOOTHING = 280;

/** What a tool takes; how much of the panel it lays open only where all that comes of a plan is known. */
export type Removed = Omit<RemovalForecast, 'share'> & Partial<Pick<RemovalForecast, 'share'>>;

/** Resists, distressing and finishing: what will disappoint. */
export function workingRules(course: Course, removals: readonly Removed[], add: AddFinding): void {
  const { plan, films, times, air } = course;
  plan.steps.forEach((step, i) => {
    const later = plan.steps.slice(i + 1);
    const there = films.filter((film) => film.stepIndex < i);
    const top = there.at(-1);
    switch (step.kind) {
      case 'coat':
        return smoothingRule(step, top, plan.steps.slice(0, i), course, add);
      case 'resist':
        return resistRules(step, later, course, add);
      case 'distress': {
        const removal = removals.find((r) => r.stepId === step.id);
        if (top === undefined || removal === undefined) return;
        const startsAt = times[i]!.from;
        if (removal.effort !== null && removal.effort > HARD && !isSoftened(times, top, startsAt))
          add('blade-hard', 'warn', step.id, { effort: removal.effort });
        const { action } = toolOf(step.tool);
        if (action === 'rub' && removal.depth < IN_VAIN)
          add('cloth-in-vain', 'warn', step.id, { depth: removal.depth });
        if (action === 'soften') {
          const wetFor = bleachWetFor(course, step);
          if (step.rounds * 60 > wetFor)
            add('bleach-dried', 'tip', step.id, { wetFor, share: softenedShare(wetFor, wetFor) });
        }
        // Fine paper is meant to smooth, or to take what is loose: that it wears nothing is no fault.
        if (action === 'sand' && step.grit < SMOOTHING && (removal.share ?? 1) < 0.002) {
          const barrier = there.findLast((film) => film.medium.hardness >= 68);
          add(barrier === top ? 'barrier-holds' : 'nothing-comes-off', 'tip', step.id, {
            depth: removal.depth,
          });
        }
        return;
      }
      case 'heat': {
        const start = air[airIndexAt(air, times[i]!.from)]!.temperature;
        const surface = hotSurface(JETS[step.tool], start, step.duration);
        if (surface > BLISTERS) add('scorches', surface > SCORCHES ? 'warn' : 'tip', step.id, { surface });
        return;
      }
      case 'seal':
        return sealRules(step, there, course, i, add);
      case 'companion':
        return companionRules(step, later, top, plan, add);
      default:
        return;
    }
  });
  useRules(course, add);
}

/** A brittle ground is smoothed with fine paper before it is painted: what is rough then stays so; common practice. */
function smoothingRule(
  { id, medium }: Extract<Step, { kind: 'coat' }>,
  top: FilmRun | undefined,
  earlier: readonly Step[],
  { media }: Course,
  add: AddFinding,
): void {
  if (top === undefined || !isOf(top.medium, 'dries-rough') || isOf(media(medium), 'dries-rough')) return;
  const smoothed = earlier
    .slice(top.stepIndex + 1)
    .some((s) => s.kind === 'distress' && toolOf(s.tool).action === 'sand' && s.grit >= SMOOTHING);
  if (!smoothed) add('ground-rough', 'warn', id);
}

function resistRules(
  step: Extract<Step, { kind: 'resist' }>,
  later: readonly Step[],
  course: Course,
  add: AddFinding,
): void {
  const wipe = later.find((s) => s.kind === 'wipe');
  const scraped = later.find((s) => s.kind === 'distress');
  const cuts = scraped !== undefined;
  switch (step.agent) {
    case 'jelly':
      if (jellySoaks(course, step)) add('jelly-unsealed', 'warn', step.id);
      if (wipe === undefined) add('jelly-left', 'warn', step.id);
      else {
        add('jelly-judge', 'tip', wipe.id);
        const sealed = later.some((s) => s.kind === 'seal' && later.indexOf(s) > later.indexOf(wipe));
        if (sealed && wipe.kind === 'wipe' && !wipe.degrease) add('jelly-not-degreased', 'warn', wipe.id);
      }
      return;
    case 'salt':
      const bed = saltBed(course, step);
      if (bed === null) add('salt-loose', 'warn', step.id);
      if (scraped === undefined) add('salt-left', 'warn', step.id);
      else if (bed !== null && staysPale(course.plan.steps, scraped)) add('salt-pale', 'tip', scraped.id);
      return;
    case 'candle':
      if (!cuts && later.some(isFilm)) add('wax-left', 'tip', step.id);
  }
}

/** Whether a step takes away the dust that sanding left, or buries it before the seal does. */
const takesDust = (step: Step): boolean =>
  step.kind === 'wipe' ||
  step.kind === 'coat' ||
  step.kind === 'seal' ||
  (step.kind === 'distress' && toolOf(step.tool).action === 'rub');

function sealRules(
  step: Extract<Step, { kind: 'seal' }>,
  there: readonly FilmRun[],
  { plan, films }: Course,
  index: number,
  add: AddFinding,
): void {
  const film = films.find((f) => f.step.id === step.id)!;
  const { medium } = film;
  const earlier = plan.steps.slice(0, index);
  const sanded = earlier.findLastIndex((s) => s.kind === 'distress' && toolOf(s.tool).action === 'sand');
  if (sanded >= 0 && !earlier.slice(sanded + 1).some(takesDust)) add('dust-left', 'tip', step.id);
  if (isOf(medium, 'dark')) {
    const barrier = there.some((f) => f.medium.kind === 'clear' || isOf(f.medium, 'keeps-dark-out'));
    if (!barrier) add('dark-wax-bare', 'warn', step.id);
    if (step.cover.share > DARK_WAX_SHARE) add('dark-wax-much', 'tip', step.id, { share: step.cover.share });
  }
  // A wax that never dries has a note of its own.
  if (medium.kind === 'wax' && film.buffAfter !== null && film.openStates.touch !== null) {
    const ready = film.openStates.touch - film.laidAt;
    // Wax with pigment is wiped back while it is soft: a way of working, not a mistake.
    if (waxManner(film) === 'wiped') {
      if (isClear(medium)) add('buff-early', 'warn', step.id, { ready });
    } else if (film.buffAfter > BUFFED_BY * ready) add('buff-late', 'tip', step.id, { ready });
  }
  if (medium.kind === 'clear' && step.thickness > 1.6 * medium.wetFilmUm * 1e-6)
    add('seal-thick', 'warn', step.id, { usual: medium.wetFilmUm * 1e-6 });
  const jelly = plan.steps.slice(0, index).some((s) => s.kind === 'resist' && s.agent === 'jelly');
  const wiped = plan.steps.slice(0, index).some((s) => s.kind === 'wipe');
  if (jelly && !wiped) add('jelly-left', 'warn', step.id);
}

/** A print or tissue is cut only after a night; common practice [s]. */
const NIGHT = 8 * 3600;

/** Work beside the layers: what its place in the order does to it. */
function companionRules(
  step: Extract<Step, { kind: 'companion' }>,
  later: readonly Step[],
  top: FilmRun | undefined,
  plan: PanelPlan,
  add: AddFinding,
): void {
  const coats = later.some((s) => s.kind === 'coat');
  switch (step.task) {
    case 'fabric':
      if (!coats && top !== undefined) add('fabric-late', 'tip', step.id);
      return;
    case 'transfer':
      if (step.rest < NIGHT) add('transfer-soon', 'warn', step.id, { rest: step.rest });
      return;
    case 'wash':
    case 'reactive-stain':
      if (top !== undefined || !substrate(plan.panel.substrate).bare) add('wash-on-sealed', 'tip', step.id);
      return;
    case 'glaze':
      if (!later.some((s) => s.kind === 'seal')) add('glaze-unprotected', 'tip', step.id);
      return;
    case 'repair':
      return;
  }
}

/** What a part has to stand decides how it is sealed; common practice. */
function useRules({ plan, films }: Course, add: AddFinding): void {
  const { use } = plan.panel;
  const last = films.at(-1);
  if (last === undefined || use === 'display') return;
  const seals = films.filter((film) => film.step.kind === 'seal');
  const clear = seals.filter((film) => film.medium.kind === 'clear');
  const standsCups = clear.some((film) => isOf(film.medium, 'heat-resistant'));
  const wanted = use === 'hands' || (use === 'hot-cups' && standsCups) ? 2 : 5;
  const coats = clear.reduce((sum, { step }) => sum + (step.kind === 'seal' ? step.coats : 1), 0);
  if (seals.length === 0) add('use-unsealed', 'warn', last.step.id, { coats: wanted });
  else if (use !== 'hands' && coats < wanted)
    add('use-wax-only', 'tip', last.step.id, { coats: wanted, has: coats });
}

/** What must not be done at all: stops, that defer to labels and licensed people. */
export function safetyStops(course: Course, add: AddFinding): void {
  const { plan, films, times, media } = course;
  const unknownPaint = mayHoldLead(plan.panel.history);
  plan.steps.forEach((step, i) => {
    const at = times[i]!.from;
    const before = films.filter((film) => film.stepIndex < i);
    const earlier = plan.steps.slice(0, i);
    if (step.kind === 'heat') {
      const solvent = before.findLast(
        (film) =>
          film.medium.carrier !== 'water' && film.medium.carrier !== 'none' && film.medium.kind !== 'wax',
      );
      if (solvent && at - solvent.laidAt < SOLVENT_LOCK) add('heat-on-solvent', 'stop', step.id);
      const greased = earlier.some((s, k) => {
        if (s.kind === 'resist' && s.agent === 'jelly')
          return !earlier.slice(k).some((w) => w.kind === 'wipe');
        return s.kind === 'seal' && media(s.medium).kind === 'wax';
      });
      if (greased) add('heat-on-grease', 'stop', step.id);
      const bleach = earlier.findLast((s) => s.kind === 'distress' && toolOf(s.tool).action === 'soften');
      if (bleach && bleach.kind === 'distress') {
        const laid = times[plan.steps.indexOf(bleach)]!.from;
        if (at < laid + bleachWetFor(course, bleach)) add('heat-on-bleach', 'stop', step.id);
      }
      if (unknownPaint) add('heat-on-old-paint', 'stop', step.id);
    }
    if (step.kind === 'distress') {
      const first = before.length === 0;
      const { action } = toolOf(step.tool);
      if (unknownPaint && (action === 'sand' || action === 'cut'))
        add('sand-old-paint', first ? 'stop' : 'warn', step.id);
      if (action === 'soften') {
        if (before.some((film) => isOf(film.medium, 'casein', 'protein-glue')))
          add('bleach-on-casein', 'stop', step.id);
        if (before.some((film) => film.medium.carrier === 'alcohol' && at - film.laidAt < SOLVENT_LOCK))
          add('bleach-after-alcohol', 'stop', step.id);
        if (!plan.panel.flat) add('lay-flat', 'warn', step.id);
      }
    }
  });
}
