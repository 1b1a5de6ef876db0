import { type SceneEvent } from '../outcome';
import { soft } from '../raster';
import { toolOf } from '../tools';
import { reachOf } from './patterns';
import { type Work } from './work';

/** Rubbing: slow pressure of the hand, the pad, the grain of the film. */
const RUB = [
  { along: 60, across: 40, weight: 0.75 },
  { along: 14, across: 10, weight: 0.6 },
  { along: 4, across: 2.4, weight: 0.5 },
  { along: 1.3, across: 0.7, weight: 0.35 },
];
const CUT = [
  { along: 90, across: 15, weight: 0.9 },
  { along: 34, across: 6, weight: 0.55 },
  { along: 9, across: 2.2, weight: 0.3 },
  { along: 1.8, across: 1, weight: 0.22 },
];
/** A point drawn over it: fine lines, long and short, each its own way. */
const SCRATCH = [
  { along: 90, across: 1.1, weight: 1 },
  { along: 26, across: 0.7, weight: 0.7 },
];
/** A tool goes over the panel and takes off what its work is enough for, layer by layer. */
export function rub(work: Work, event: Extract<SceneEvent, { kind: 'rub' }>): void {
  const { scene, rims, floor, relief, top, below, mixed, worn, heightUm } = work;
  if (!(event.medianUm > 0)) return;
  const { action, lines = false } = toolOf(event.tool);
  const cuts = action === 'cut';
  // Every second rubbing goes its own way; a hand has no more than a few.
  const way = scene.events.indexOf(event) & 1;
  const [kind, strands] = lines ? ['scratch', SCRATCH] : cuts ? ['cut', CUT] : ['rub', RUB];
  const strokes = work.pattern(`${kind} ${way}`, strands, 0x91 + 7 * way);
  const { field, edge, corner } = event.exposure;
  const worked = work.mapped(event.stepId);
  const wet = action === 'rub' || action === 'soften';
  const spared = Math.exp(-0.5 * (event.relief ** 2 + event.carving ** 2));
  const carved = event.carving === 0 ? null : work.carved;
  for (let i = 0; i < work.points; i++) {
    if (reachOf(event.where, rims, i) < 0.5) continue;
    // Crack floors lie out of reach of what rubs on the surface.
    if (floor[i]! > 0.5) continue;
    // Ridges stand proud: what is stiff takes them first.
    const ridge = event.relief === 0 ? 0 : height(i) / event.roughUm;
    const exposure = field + rims.edge[i]! * (edge - field) + rims.corner[i]! * (corner - edge);
    const form = carved === null ? 0 : event.carving * carved[i]!;
    const depth = spared * Math.exp(event.spread * strokes[i]! + event.relief * ridge + form);
    let rest = event.medianUm * (worked?.[i] ?? 1) * exposure * depth;
    const left = below[i]!;
    if (mixed[i]! > 0 && left > top[i]!) {
      // What an earlier tool left of a layer at its border goes as the layer itself goes here.
      const cost = work.thick(left, i) * event.resistance[left]!;
      mixed[i] = mixed[i]! * (1 - soft(rest / cost - 1, wet ? 0.45 : 0.2));
    }
    for (let k = scene.layers.length - 1; k >= 1 && rest > 0; k--) {
      if (!work.lies(i, k)) continue;
      const resistance = event.resistance[k]!;
      const thickness = work.thick(k, i);
      const uncut = Math.max(0.3 * thickness, thickness - worn[i]!);
      const cost = uncut * resistance;
      if (!(rest > cost * (wet ? 0.55 : 0.8))) {
        worn[i] = worn[i]! + Math.min(rest / resistance, uncut);
        heightUm[i] = Math.max(0, heightUm[i]! - Math.min(rest / resistance, uncut));
        break;
      }
      // Near breaking through, wet tools let one layer run into the next; dry ones leave a harder line.
      const share = soft(rest / cost - 1, wet ? 0.45 : 0.2);
      work.uncover(i, k, share);
      if (share < 0.5) break;
      rest -= cost;
    }
  }

  /** How far the surface of what lies at a point stands above its mean [µm]. */
  function height(i: number): number {
    let sum = 0;
    for (let k = 1; k < scene.layers.length; k++)
      if (work.lies(i, k)) sum += scene.layers[k]!.thicknessUm * (relief[k]![i] ?? 0);
    return sum;
  }
}
