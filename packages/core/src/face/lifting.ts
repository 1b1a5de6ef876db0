import { type SceneEvent } from '../outcome';
import { blurred, levelOf, soft } from '../raster';
import { SPOT } from './flakes';
import { craters, reachOf } from './patterns';
import { type Work } from './work';

/** A peeled film tears and lifts this far at its border [mm]. */
const PEEL_MM = 0.45;

/** A layer comes off where a resist lies under it, or where salt sat in it. */
export function lift(work: Work, event: Extract<SceneEvent, { kind: 'lift' }>): void {
  const { scene, window, rims, rim, top, pale } = work;
  const salt = event.agent === 'salt';
  const strewn = work.mapOf(event.stepId);
  const comes = event.by === null ? null : work.wentTo(event.by.stepId, event.by.where);
  const marks = salt
    ? craters(window, event.share, event.grainUm / 1000, scene.seed ^ 0x5a17, strewn)
    : work.pattern('lift', SPOT, 0x77);
  const level = salt ? 0 : levelOf(event.share);
  const ragged = salt ? work.pattern('lift', SPOT, 0x77) : null;
  const lifted = new Float32Array(work.points);
  const over = top.slice();
  for (let i = 0; i < work.points; i++) {
    if (reachOf(event.where, rims, i) < 0.5 || comes?.[i] === 0) continue;
    // No grain is round, and paint tears a little as it comes out.
    const margin = marks[i]! - level + (ragged === null ? 0 : 0.12 * ragged[i]!);
    const lay = work.lies(i, event.layer);
    if (margin > -0.12) {
      const open = soft(margin, 0.12);
      work.uncover(i, event.layer, open);
      if (event.pale && lay) pale[i] = Math.max(pale[i]!, open);
    }
    if (lay && !work.lies(i, event.layer)) lifted[i] = 1;
    if (margin < 0 && margin > -0.3 && work.lies(i, event.layer)) {
      rim[i] = Math.max(rim[i]!, (0.6 * (margin + 0.3)) / 0.3);
    }
  }
  if (!salt) feather(work, lifted, over);
}

/** What peels off tears thin at its border and lifts what stays: a ragged film inside, a raised rim outside. */
function feather(work: Work, lifted: Float32Array, over: Uint8Array): void {
  const { window, rim, mixed, below, top } = work;
  const torn = work.torn();
  const near = blurred(lifted, window, Math.max(1, Math.round(PEEL_MM / window.pitchMm)));
  for (let i = 0; i < work.points; i++) {
    const there = near[i]!;
    if (lifted[i]! === 0) {
      if (there > 0.02) rim[i] = Math.max(rim[i]!, Math.min(1, 1.7 * there));
      continue;
    }
    const film = Math.min(0.48, 1.5 * (0.82 - there) * (0.7 + 0.5 * torn[i]!));
    if (film <= mixed[i]! || over[i] === top[i]) continue;
    mixed[i] = film;
    below[i] = over[i]!;
  }
}
