import { type CrackField } from '../crack';
import { type SceneEvent } from '../outcome';
import { type CrackRaster, rasterise } from '../raster';
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
