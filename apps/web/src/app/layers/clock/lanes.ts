import { isFilmStep, type PlanStep } from '@zaffet/contract';
import { type StepTimes } from '@zaffet/core/course';
import { type CoatForecast, type Forecast } from '@zaffet/core/forecast';
import { isClear } from '@zaffet/core/media';
import { layerWord, stepTitle } from '@zaffet/words';
import { type PartPlan } from '@zaffet/workshop';

/** States a lane is divided into; `key` names its look. */
export interface LaneSegment {
  readonly key: 'wet' | 'matte' | 'set' | 'touch' | 'recoat' | 'dry' | 'work';
  readonly label: string;
  readonly from: number;
  readonly to: number;
}

/** Heights of a film's lane, and of one for work that lays no film [px]. */
const FILM_LANE = 34;
const WORK_LANE = 26;

/** One step's lane; moments in s from the plan's start. */
export interface Lane {
  readonly id: string;
  readonly index: number;
  readonly kind: PlanStep['kind'];
  /** Top of the lane below the first [px], and its height. */
  readonly top: number;
  readonly height: number;
  readonly title: string;
  readonly colour: string;
  readonly clear: boolean;
  /** When it begins, or the coat is laid. */
  readonly laidAt: number;
  /** When the step before it ended, from which a wait counts. */
  readonly waitsFrom: number;
  /** When work that lays no film ends. */
  readonly until: number;
  readonly segments: readonly LaneSegment[];
  readonly window: {
    readonly opensAt: number;
    readonly closesAt: number | null;
    readonly label: string;
  } | null;
  readonly firstCracksAt: number | null;
}

const STATES = [
  ['matte', 'matte', 'shine gone'],
  ['tacky', 'set', 'sets'],
  ['touch', 'touch', 'touch-dry'],
  ['recoat', 'recoat', 'takes a coat'],
  ['through', 'dry', 'dry through'],
] as const;

/** Divides a coat's time by its states, in the order they come. */
function segmentsOf(coat: CoatForecast, end: number): LaneSegment[] {
  const starts: { key: LaneSegment['key']; label: string; from: number }[] = [
    { key: 'wet', label: 'wet', from: coat.laidAt },
  ];
  for (const [state, key, label] of STATES) {
    const from = coat.states[state];
    if (from !== null && from >= (starts.at(-1)?.from ?? 0)) starts.push({ key, label, from });
  }
  return starts.map((start, i) => ({ ...start, to: starts[i + 1]?.from ?? Math.max(end, start.from) }));
}

/** The lanes of a plan up to a moment, in the order of its steps. */
export function lanesOf(
  plan: PartPlan,
  forecast: Forecast,
  end: number,
  clockText: (moment: number) => string,
): Lane[] {
  const films = new Map(forecast.coats.map((coat) => [coat.coat.id, coat]));
  let top = 0;
  return plan.steps.map((step, index): Lane => {
    const times = forecast.times[index]!;
    const film = films.get(step.id);
    const height = film === undefined ? WORK_LANE : FILM_LANE;
    const lane: Lane = {
      id: step.id,
      index,
      kind: step.kind,
      top,
      height,
      title: stepTitle(step, plan.media),
      colour: isFilmStep(step) ? step.colour : 'none',
      clear: film !== undefined && isClear(film.medium),
      laidAt: times.from,
      waitsFrom: forecast.times[index - 1]?.until ?? 0,
      until: times.until,
      segments: film === undefined ? workOf(times) : segmentsOf(film, end),
      window: film === undefined ? null : windowOf(plan, index, film, clockText),
      firstCracksAt: film?.crack?.firstAt ?? null,
    };
    top += height;
    return lane;
  });
}

/** Work that lays no film: one stretch, at least wide enough to be seen. */
function workOf(times: StepTimes): LaneSegment[] {
  return [{ key: 'work', label: '', from: times.from, to: Math.max(times.until, times.from + 60) }];
}

function windowOf(
  plan: PartPlan,
  index: number,
  coat: CoatForecast,
  clockText: (moment: number) => string,
): Lane['window'] {
  const next = plan.steps[index + 1];
  const { window } = coat;
  if (window === null || next === undefined) return null;
  const closes = window.closesAt === null ? 'on' : `to ${clockText(window.closesAt)}`;
  return {
    opensAt: window.opensAt,
    closesAt: window.closesAt,
    label: `${layerWord(plan.steps, next.id, plan.media)} from ${clockText(window.opensAt)} ${closes}`,
  };
}

/** The stretch of time worth seeing: from a little before the coat that matters below to when the cracks are done. */
export function focusOf(forecast: Forecast): { from: number; to: number } {
  const i = forecast.crackedCoat ?? forecast.coats.length - 1;
  const top = forecast.coats[i];
  const below = forecast.coats[i - 1] ?? top;
  if (top === undefined || below === undefined) return { from: 0, to: 3600 };
  const end = Math.max(top.crack?.doneAt ?? 0, top.laidAt + 1800);
  const from = below.laidAt;
  const pad = Math.max(300, (end - from) * 0.1);
  return { from: from - pad, to: end + pad };
}

/** All of the plan. */
export function wholeOf(forecast: Forecast): { from: number; to: number } {
  const last = Math.max(
    3600,
    ...forecast.coats.map((coat) => coat.states.through ?? coat.laidAt + 7200),
    ...forecast.times.map((times) => times.until),
  );
  return { from: -0.02 * last, to: last * 1.04 };
}
