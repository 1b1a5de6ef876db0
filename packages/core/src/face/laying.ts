import { type SceneEvent } from '../outcome';
import { NO_FILM } from '../plan';
import { soft } from '../raster';
import { layPattern, reachOf } from './patterns';
import { type Work } from './work';

/** How much more a score falls from the ridges of a relief to its grounds than it varies by itself. */
const GROUNDS = 2;

/** A layer is laid: full, in blotches, dragged on, or into the cracks. */
export function lay(work: Work, event: Extract<SceneEvent, { kind: 'lay' }>): void {
  const { scene, window, rims, relief, hides } = work;
  const { bits, top, below, mixed, heightUm, lost, floor, crackMm, born, rim, wax, pale, worn } = work;
  const k = event.layer;
  const layer = scene.layers[k]!;
  work.keep(k);
  const marks = layPattern(
    layer,
    event,
    window,
    layer.finish === 'resist' ? work.mapped(layer.id) : null,
    scene.seed + 131 * k,
  );
  const laid = work.laid[k]!;
  const grounds = layer.finish === 'wax' ? work.carved : null;
  // Scores and grounds together vary more than the scores the level is of.
  const level = (marks?.level ?? 0) * (grounds === null ? 1 : Math.hypot(1, GROUNDS));
  for (let i = 0; i < work.points; i++) {
    if (laid !== null && laid[i]! < NO_FILM) continue;
    if (reachOf(event.where, rims, i) < 0.5) continue;
    const crackFloor = floor[i]!;
    // Wax stays in the valleys the brush left, and in the grounds of carving.
    const valley =
      layer.finish === 'wax'
        ? 0.9 * (relief[top[i]!]?.[i] ?? 0) + (grounds === null ? 0 : GROUNDS * grounds[i]!)
        : 0;
    const plain = marks === null ? 1 : soft(marks.score[i]! - valley - level, marks.width);
    const into = event.intoCracks > event.share ? event.intoCracks : plain;
    const share = plain + crackFloor * (into - plain);
    if (share <= 0) continue;
    if (layer.finish === 'wax' && event.intoCracks > event.share) {
      wax[i] = Math.max(wax[i]!, share);
      work.waxLayer = k;
    }
    heightUm[i] = heightUm[i]! + share * work.thick(k, i);
    if (share < 0.5) {
      if (hides[k] && share > mixed[i]!) {
        mixed[i] = share;
        below[i] = k;
      }
      continue;
    }
    bits[i] = bits[i]! | (1 << k);
    pale[i] = 0;
    worn[i] = 0;
    if (!hides[k]) continue;
    mixed[i] = 1 - share;
    below[i] = top[i]!;
    top[i] = k;
    lost[i] = 0;
    floor[i] = 0;
    crackMm[i] = 0;
    born[i] = 2;
    rim[i] = 0;
  }
}
