import { type Area } from '../maps';
import { GROUND_IDS } from './history';
import { type Outcome } from './types';

type Seen = Pick<Outcome, 'layers' | 'scene' | 'appearance'>;

/** The layers that are colours of their own, from the lowest: a glaze, a stain or a wax over one tints it. */
function paintsOf({ layers, scene }: Seen): Outcome['layers'] {
  const finishOf = new Map(scene.layers.map(({ id, finish }) => [id, finish]));
  return layers.filter(({ id }) => finishOf.get(id) !== 'glaze' && finishOf.get(id) !== 'wax');
}

/** The layers somebody can tell by their colour, from the lowest: the surface and what is put on with one. */
export function coloursOf(result: Seen): Outcome['layers'] {
  const coloured = new Set([...GROUND_IDS, ...result.appearance.layers.map(({ id }) => id)]);
  return paintsOf(result).filter(({ id }) => coloured.has(id));
}

/** Id of the last colour; null where nothing coloured is put on. */
export function topPaint(result: Seen): string | null {
  const coloured = new Set(result.appearance.layers.map(({ id }) => id));
  return paintsOf(result).findLast(({ id }) => coloured.has(id) && !GROUND_IDS.includes(id))?.id ?? null;
}

/** Share on which the last colour is not seen. */
export function underShare(result: Seen, area: Area = 'panel'): number {
  const paints = paintsOf(result);
  const shareOf = (layer: (typeof paints)[number]): number =>
    area === 'panel' ? layer.share : layer.zones[area];
  const all = paints.reduce((sum, layer) => sum + shareOf(layer), 0);
  const topId = topPaint(result);
  const top = paints.find(({ id }) => id === topId);
  return top === undefined || all <= 0 ? 1 : 1 - shareOf(top) / all;
}
