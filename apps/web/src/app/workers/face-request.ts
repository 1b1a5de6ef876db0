import { type Plan } from '@zaffet/contract';
import {
  type CoatForecast,
  type Forecast,
  type FaceView,
  type FaceViewKey,
  faceView,
  openingHistory,
  type PanelPlan,
  type Rgb,
} from '@zaffet/core';
import { type FaceRequest } from './messages';

/** `#rrggbb` as channels. */
export function rgbOf(hex: string): Rgb {
  const value = Number.parseInt(hex.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}

/** How a face shall be drawn. */
export interface FaceLook {
  readonly view: FaceViewKey;
  readonly columns: number;
  readonly rows: number;
  readonly quality: 'coarse' | 'full';
  /** Draw half as many pixels each way, while a hand moves. */
  readonly halfPixels: boolean;
  readonly raking: number;
  /** Time since the cracked coat was laid [s]; null for the end. */
  readonly age: number | null;
}

/** A film with a colour of its own. */
const coloured = (coat: CoatForecast | undefined): coat is CoatForecast =>
  coat !== undefined && coat.medium.hidingUm < 1000 && coat.medium.kind !== 'wax';

/** How a film looks on the finished panel, as the core computes it. */
function lookOf(forecast: Forecast, coat: CoatForecast | undefined): string | undefined {
  return forecast.appearance.layers.find((layer) => layer.id === coat?.coat.id)?.seen;
}

/** The colour seen through the cracks: of the next paint below, clear media being clear; wax where it fills them. */
function colourBelow(forecast: Forecast, index: number): string {
  const wax = forecast.coats.find((coat) => coat.medium.key === 'darkWax');
  if (wax && forecast.coats.indexOf(wax) > index) return lookOf(forecast, wax) ?? '#3f2f20';
  for (let i = index - 1; i >= 0; i--) {
    if (coloured(forecast.coats[i])) return lookOf(forecast, forecast.coats[i]) ?? '#b98f5f';
  }
  return forecast.appearance.layers[0]?.seen ?? '#b98f5f';
}

/** The topmost film that has a colour of its own. */
function topPaint(forecast: Forecast): number {
  return Math.max(0, forecast.coats.findLastIndex(coloured));
}

/** Share of the final opening at an age of the coat; null before the first crack. */
export function openingAt(forecast: Forecast, age: number): number | null {
  const i = forecast.crackedCoat;
  const crack = i === null ? null : forecast.coats[i]?.crack;
  if (!crack) return null;
  const history = openingHistory(crack.input);
  const first = history.time[0] ?? Infinity;
  if (crack.firstAt === null || age < first) return null;
  let k = 1;
  while (k < history.time.length && (history.time[k] ?? 0) < age) k++;
  if (k >= history.time.length) return 1;
  const t0 = history.time[k - 1] ?? 0;
  const t1 = history.time[k] ?? t0;
  const s0 = history.share[k - 1] ?? 0;
  const s1 = history.share[k] ?? 1;
  return s0 + (t1 > t0 ? ((age - t0) / (t1 - t0)) * (s1 - s0) : 0);
}

/** What the worker must draw for a plan as it stands. */
export function faceRequest(plan: Plan, model: PanelPlan, forecast: Forecast, look: FaceLook): FaceRequest {
  const i = forecast.crackedCoat ?? topPaint(forecast);
  const coat = forecast.coats[i];
  const crack = forecast.crackedCoat === null ? null : (coat?.crack ?? null);
  const law = crack?.law ?? null;
  const strokes = coat?.coat.strokes ?? 'one-way';
  const view: FaceView = faceView(model.panel, look.view, look.columns / look.rows, law);
  // Coats over the crackled one give the picture its colour; one that is clear shows the colour below.
  const shown =
    forecast.coats[Math.max(forecast.crackedCoat === null || coloured(coat) ? i : 0, topPaint(forecast))];
  const aspect = view.widthMm / view.heightMm;
  const fitsWidth = aspect >= look.columns / look.rows;
  const columns = fitsWidth ? look.columns : Math.max(8, Math.round(look.rows * aspect));
  const rows = fitsWidth ? Math.max(8, Math.round(look.columns / aspect)) : look.rows;
  const scale = look.halfPixels ? 0.5 : 1;
  return {
    law,
    view,
    strokes,
    seed: plan.seed,
    quality: look.quality,
    columns: Math.round(columns * scale),
    rows: Math.round(rows * scale),
    finish: {
      top: rgbOf(lookOf(forecast, shown) ?? forecast.appearance.mean),
      below: rgbOf(colourBelow(forecast, i)),
      thicknessMm: (coat?.curve.solidsUm ?? 40) / 1000,
      strokes,
      seed: plan.seed,
      raking: look.raking,
    },
    openingShare: law === null ? null : look.age === null ? 1 : openingAt(forecast, look.age),
  };
}
