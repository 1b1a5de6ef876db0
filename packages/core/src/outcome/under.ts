import { type Area } from '../maps';
import { GROUND_IDS } from './history';
import { type Outcome } from './types';

/**
 * Share on which the last colour is not seen. A glaze, a stain or a wax over it tints what is there and is no colour of
 * its own: what lies under it is told as if it were not there.
 */
export function underShare(
  result: Pick<Outcome, 'layers' | 'scene' | 'appearance'>,
  area: Area = 'panel',
): number {
  const coloured = new Set(result.appearance.layers.map(({ id }) => id));
  const finishOf = new Map(result.scene.layers.map(({ id, finish }) => [id, finish]));
  const paints = result.layers.filter(({ id }) => finishOf.get(id) !== 'glaze' && finishOf.get(id) !== 'wax');
  const shareOf = (layer: (typeof paints)[number]): number =>
    area === 'panel' ? layer.share : layer.zones[area];
  const all = paints.reduce((sum, layer) => sum + shareOf(layer), 0);
  const top = paints.findLast(({ id }) => coloured.has(id) && !GROUND_IDS.includes(id));
  return top === undefined || all <= 0 ? 1 : 1 - shareOf(top) / all;
}
