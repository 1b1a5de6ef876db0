import { type FilmCracks } from '@zaffet/core/course';
import { openingHistory } from '@zaffet/core/crack';
import { type FaceMode, type FaceView, faceView, type FaceViewKey } from '@zaffet/core/face';
import { type Forecast } from '@zaffet/core/forecast';
import { type FaceRequest } from './messages';

/** How a face shall be drawn. */
export interface FaceLook {
  readonly view: FaceViewKey;
  readonly columns: number;
  readonly rows: number;
  readonly quality: 'coarse' | 'full';
  /** Draw half as many pixels each way, while a hand moves. */
  readonly halfPixels: boolean;
  readonly raking: number;
  readonly mode: FaceMode;
  /** Time since the cracked coat was laid [s]; null for the end. */
  readonly age: number | null;
}

/** The cracks the panel shows. */
const cracksShown = ({ crackedCoat, course }: Forecast): FilmCracks | null =>
  crackedCoat === null ? null : (course.cracks[crackedCoat] ?? null);

/** Share of the final opening at an age of the coat; null before the first crack. */
export function openingAt(forecast: Forecast, age: number): number | null {
  const crack = cracksShown(forecast);
  if (crack === null) return null;
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

/** Age of the coat [s] at which its cracks had opened to a share; null where none cracks while it dries. */
export function ageAtOpening(forecast: Forecast, share: number): number | null {
  const crack = cracksShown(forecast);
  if (crack === null || crack.firstAt === null) return null;
  const history = openingHistory(crack.input);
  let k = 1;
  while (k < history.share.length - 1 && (history.share[k] ?? 1) < share) k++;
  const s0 = history.share[k - 1] ?? 0;
  const s1 = history.share[k] ?? 1;
  const t0 = history.time[k - 1] ?? 0;
  const t1 = history.time[k] ?? t0;
  return t0 + (s1 > s0 ? Math.min(1, Math.max(0, (share - s0) / (s1 - s0))) * (t1 - t0) : 0);
}

/** The layer whose cracks the panel shows. */
function crackedLayer(forecast: Forecast): number | null {
  const id = forecast.crackedCoat === null ? undefined : forecast.coats[forecast.crackedCoat]?.coat.id;
  const layer = forecast.scene.layers.findIndex((l) => l.id === id);
  return layer < 0 ? null : layer;
}

/** What the worker must draw for a plan as it stands. */
export function faceRequest(forecast: Forecast, look: FaceLook): FaceRequest {
  const { scene } = forecast;
  const view: FaceView = faceView(
    forecast.course.plan.panel,
    look.view,
    look.columns / look.rows,
    scene.networks.map(({ law }) => law),
  );
  const aspect = view.widthMm / view.heightMm;
  const fitsWidth = aspect >= look.columns / look.rows;
  const columns = fitsWidth ? look.columns : Math.max(8, Math.round(look.rows * aspect));
  const rows = fitsWidth ? Math.max(8, Math.round(look.columns / aspect)) : look.rows;
  const scale = look.halfPixels ? 0.5 : 1;
  const layer = crackedLayer(forecast);
  // While cracks are opening, what is done after them has not happened yet.
  const cracks = scene.events.findIndex((event) => event.kind === 'crack' && event.layer === layer);
  const opening = look.age !== null && cracks >= 0;
  return {
    scene,
    view,
    quality: look.quality,
    columns: Math.round(columns * scale),
    rows: Math.round(rows * scale),
    raking: look.raking,
    mode: look.mode,
    openingShare: opening ? openingAt(forecast, look.age!) : 1,
    until: opening ? cracks + 1 : scene.events.length,
    measured: scene.networks.find((network) => network.layer === layer)?.key ?? null,
  };
}

/** Pixels across a panel that is judged by how natural it looks: patches of a few mm are told apart. */
const JUDGED_COLUMNS = 300;

/** The whole panel, as coarse as it takes to judge how natural it looks. */
export function naturalRequest(forecast: Forecast): FaceRequest {
  const { width, height } = forecast.course.plan.panel;
  return faceRequest(forecast, {
    view: 'whole',
    columns: width >= height ? JUDGED_COLUMNS : Math.round((JUDGED_COLUMNS * width) / height),
    rows: width >= height ? Math.round((JUDGED_COLUMNS * height) / width) : JUDGED_COLUMNS,
    quality: 'coarse',
    halfPixels: false,
    raking: 0,
    mode: 'colour',
    age: null,
  });
}
