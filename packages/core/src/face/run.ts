import { type Scene, type SceneLayer } from '../outcome';
import { crack } from './cracking';
import { chip } from './flakes';
import { lay } from './laying';
import { lift } from './lifting';
import { rub } from './rubbing';
import { type CrackedLayer, type PanelField, type SceneWindow, Work } from './work';

/*
 * The panel point by point: the same events as the closed form follows in shares, laid on a raster. Painter's way:
 * before a layer is laid, what is there is kept; where the layer goes, what was kept comes back. At every point a set
 * of bits says which layers are in its stack.
 */

/**
 * Runs a scene over a window.
 * @param cracked - grown cracks of the layers that have any; a layer without shows none
 * @param relief - how thick a brush of some strokes lays, against the mean, on this grid
 */
export function runScene(
  scene: Scene,
  window: SceneWindow,
  cracked: readonly CrackedLayer[],
  relief: (strokes: SceneLayer['strokes'], layer: number) => Float32Array,
): PanelField {
  const work = new Work(scene, window, cracked, relief);
  const events = scene.events.slice(0, window.until);
  for (const event of events) {
    switch (event.kind) {
      case 'lay':
        lay(work, event);
        break;
      case 'crack':
        crack(work, event);
        break;
      case 'chip':
        chip(work, event);
        break;
      case 'lift':
        lift(work, event);
        break;
      case 'rub':
        rub(work, event);
        break;
    }
  }
  return work.field(events.length - 1);
}
