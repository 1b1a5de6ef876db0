import { layerWord, mediumName, type Plan } from '@zaffet/contract';
import { type CoatForecast, type Forecast } from '@zaffet/core';

/** States a lane is divided into; `key` names its look. */
export interface LaneSegment {
  readonly key: 'wet' | 'matte' | 'set' | 'touch' | 'recoat' | 'dry';
  readonly label: string;
  readonly from: number;
  readonly to: number;
}

/** One coat's lane; moments in s from the plan's start. */
export interface Lane {
  readonly id: string;
  readonly index: number;
  readonly title: string;
  readonly colour: string;
  readonly clear: boolean;
  readonly laidAt: number;
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

/** The lanes of a plan up to a moment, from the ground up. */
export function lanesOf(
  plan: Plan,
  forecast: Forecast,
  end: number,
  clockText: (moment: number) => string,
): Lane[] {
  return forecast.coats.map((coat, index): Lane => {
    const step = plan.steps[index]!;
    const next = plan.steps[index + 1];
    const { window } = coat;
    const closes = window?.closesAt == null ? 'on' : `to ${clockText(window.closesAt)}`;
    return {
      id: step.id,
      index,
      title: step.colourName || mediumName(step.medium),
      colour: step.colour,
      clear: coat.curve.medium.slipRate > 0,
      laidAt: coat.laidAt,
      segments: segmentsOf(coat, end),
      window:
        window === null || next === undefined
          ? null
          : {
              opensAt: window.opensAt,
              closesAt: window.closesAt,
              label: `${layerWord(plan.steps, next.id)} ${window.closesAt === null ? 'from ' : ''}${clockText(window.opensAt)} ${closes}`,
            },
      firstCracksAt: coat.crack?.firstAt ?? null,
    };
  });
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
  const last = Math.max(...forecast.coats.map((coat) => coat.states.through ?? coat.laidAt + 7200));
  return { from: -0.02 * last, to: last * 1.04 };
}
