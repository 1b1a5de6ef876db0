import { type CrackField } from '../crack';
import { type SceneEvent } from '../outcome';
import { type CrackRaster, levelOf, rasterise, soft } from '../raster';
import { type Work } from './work';

/** Share of the final stress at which the first crack came. */
const firstBirth = (field: CrackField): number => (field.count === 0 ? 1 : field.birth[0]!);

/** How a network stands open: as its event says, or, for none, as it grew. */
export function openOf(
  work: Work,
  field: CrackField,
  event: Extract<SceneEvent, { kind: 'crack' }> | null,
): CrackRaster {
  const { columns, rows, pitchMm, opening } = work.window;
  const first = firstBirth(field);
  return rasterise(field, {
    columns,
    rows,
    pitchMm,
    load: first + (1 - first) * (opening ?? 0),
    fill: event?.fillLeft ?? 1,
    torn: work.torn(),
  });
}

/** A network opens through its layer. */
export function crack(work: Work, event: Extract<SceneEvent, { kind: 'crack' }>): void {
  const field = work.grown.get(event.network);
  if (field === undefined || work.window.opening === null) return;
  const { open, widthMm, birth } = openOf(work, field, event);
  if (event.runs < EVERYWHERE) inPlaces(work, event.runs, open, widthMm);
  work.opened.set(event.network, open);
  const first = firstBirth(field);
  for (let i = 0; i < work.points; i++) {
    const share = open[i]!;
    if (share <= 0 || !work.lies(i, event.layer) || !work.stands(i, event.on)) continue;
    work.uncover(i, event.layer, share);
    if (share > work.floor[i]!) work.floor[i] = share;
    if (widthMm[i]! > work.crackMm[i]!) {
      work.crackMm[i] = widthMm[i]!;
      work.born[i] = first < 1 ? (birth[i]! - first) / (1 - first) : 0;
    }
  }
}

/** A film of which more than this cracks does so all over. */
const EVERYWHERE = 0.85;
/** A hand lays thicker here and holds longer there: size of those places [mm], and how softly cracks fade at them. */
const PLACES = [
  { along: 45, across: 32, weight: 1 },
  { along: 14, across: 10, weight: 0.45 },
];
const FADES = 0.35;

/** Leaves cracks on a share of the panel only. */
function inPlaces(work: Work, share: number, open: Float32Array, widthMm: Float32Array): void {
  const score = work.pattern('places', PLACES, 0x3a7);
  const level = levelOf(share);
  for (let i = 0; i < work.points; i++) {
    const runs = soft(score[i]! - level, FADES);
    open[i] = open[i]! * runs;
    widthMm[i] = widthMm[i]! * runs;
  }
}
