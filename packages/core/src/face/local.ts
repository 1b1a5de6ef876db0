import { fieldInput, type FieldInput, type FieldWindow, type LocalLaw } from '../crack';
import { answerAt } from '../numeric/answer';
import { mapAt } from '../plan';
import { type LawResponse, type Scene, type SceneNetwork } from '../outcome';
import { type FaceView } from './view';

/** Cells of a local law are about this wide [mm]; maps are no finer. */
const CELL_MM = 4;

/** What the responses of a network make of one of the law's numbers at a place of the panel, as a ratio. */
export function responseAt(
  scene: Scene,
  responses: readonly LawResponse[],
  of: (response: LawResponse) => readonly number[],
  xMm: number,
  yMm: number,
): number {
  return responses.reduce((all, response) => {
    const map = scene.maps[response.stepId];
    if (map === undefined) return all;
    const factor = mapAt(map, xMm / scene.widthMm, yMm / scene.heightMm);
    return all * answerAt(response.nodes, of(response), factor);
  }, 1);
}

/** How a network's law differs over a view of the panel; undefined where it is alike all over. */
function localLaw(scene: Scene, network: SceneNetwork, view: FaceView): LocalLaw | undefined {
  if (network.responses.length === 0) return undefined;
  const columns = Math.max(2, Math.ceil(view.widthMm / CELL_MM));
  const rows = Math.max(2, Math.ceil(view.heightMm / CELL_MM));
  const over = (of: (response: LawResponse) => readonly number[]): number[] =>
    Array.from({ length: columns * rows }, (_, i) =>
      responseAt(
        scene,
        network.responses,
        of,
        view.leftMm + (((i % columns) + 0.5) / columns) * view.widthMm,
        view.topMm + ((Math.floor(i / columns) + 0.5) / rows) * view.heightMm,
      ),
    );
  return { columns, rows, pull: over((r) => r.pull), strain: over((r) => r.strain) };
}

/**
 * What to grow for a network of a scene on a view of its panel. The pattern painters look at, the last one, takes the
 * plan's seed, those below it seeds of their own.
 * @throws InputError as `fieldInput`
 */
export function patternInput(
  scene: Scene,
  network: SceneNetwork,
  view: FaceView,
  quality: FieldWindow['quality'],
): FieldInput {
  const local = localLaw(scene, network, view);
  return fieldInput(network.law, {
    widthMm: Math.max(5, view.widthMm),
    heightMm: Math.max(5, view.heightMm),
    edges: view.edges,
    seed: scene.seed + (network.layer === scene.networks.at(-1)!.layer ? 0 : network.layer),
    strokes: scene.layers[network.layer]!.strokes,
    quality,
    ...(local === undefined ? {} : { local }),
  });
}
