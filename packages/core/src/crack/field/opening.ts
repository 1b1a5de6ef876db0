import { type LocalFilm } from './localFilm';
import { SEGMENT_STRIDE, type Segments } from './segments';
import { edgePull } from './shearLag';

/** Segments that one look left and right stands for. */
const FOLLOWING = 4;

/**
 * Old cracks open further as the film shrinks on: one segment in four looks left and right, those after it follow.
 * Widths are written in place.
 * @param load - share of the final stress now reached
 */
export function openFurther(
  segments: Segments,
  film: LocalFilm,
  slipNumber: number,
  stepMm: number,
  load: number,
): void {
  let next = 0;
  for (let i = 0; i < segments.count; i = next) {
    // Neighbours that grew in one go open alike.
    next = i + 1;
    while (next < i + FOLLOWING && next < segments.count && segments.birth[next] === segments.birth[i])
      next++;
    const at = i * SEGMENT_STRIDE;
    const ex = segments.data[at + 2]!;
    const ey = segments.data[at + 3]!;
    const length = Math.sqrt(ex * ex + ey * ey);
    if (length < 1e-9) continue;
    const x = segments.data[at]! + 0.5 * ex;
    const y = segments.data[at + 1]! + 0.5 * ey;
    film.at(x, y);
    const reach = (5 + Math.max(0, slipNumber - 1)) * film.pull;
    const crack = segments.data[at + 4]!;
    const arc = segments.data[at + 5]!;
    const nx = -ey / length;
    const ny = ex / length;
    const near = 2 * stepMm;
    const left = segments.ray(x, y, nx, ny, reach, crack, arc, near) / film.pull;
    const right = segments.ray(x, y, -nx, -ny, reach, crack, arc, near) / film.pull;
    const pull = film.pull * load * (edgePull(left, slipNumber) + edgePull(right, slipNumber));
    const gain = film.strain * (pull - segments.pull[i]!);
    if (gain <= 0) continue;
    for (let k = i; k < next; k++) {
      segments.width[k] = segments.width[k]! + gain;
      segments.pull[k] = pull;
    }
  }
}
