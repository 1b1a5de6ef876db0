import { crackPattern, Growth } from '../crack';
import { brushRelief, type CrackedLayer, drawPanel, type FaceView, patternInput, runScene } from '../face';
import { type Scene } from '../outcome';
import { CELL } from './frame';
import { type Painted } from './shot';

/** Pixels a side a cell is painted with: eight a millimetre. */
const SIDE = 8 * CELL.side;
/** Light a little from one side, as a window throws it on paint's own relief. */
const FLAT = -0.25;

const WHOLE: FaceView = {
  widthMm: CELL.side,
  heightMm: CELL.side,
  leftMm: 0,
  topMm: 0,
  edges: { left: 'free', right: 'free', top: 'free', bottom: 'free' },
  reduced: false,
};

/** Cracks closer than this are finer than a picture shows, and there would be hundreds of thousands of them [µm]. */
const FINEST = 400;

/** What a cell comes to, as it would be seen: its cracks grown and its layers drawn over all of its side. */
export function paintedCell(scene: Scene): Painted {
  const seen = scene.networks.filter(({ law }) => crackPattern(law).spacingUm > FINEST);
  const cracked = seen.map((network): CrackedLayer => {
    const growth = new Growth(patternInput(scene, network, WHOLE, 'full'));
    while (growth.step());
    return { key: network.key, field: growth.result() };
  });
  const pitchMm = CELL.side / SIDE;
  const grid = { columns: SIDE, rows: SIDE, pitchMm, leftMm: 0, topMm: 0 };
  const panel = runScene(
    scene,
    { ...grid, opening: 1, until: scene.events.length },
    cracked,
    (strokes, layer) => brushRelief(SIDE, SIDE, pitchMm, strokes, scene.seed ^ (layer & 1 ? 0x7f : 0)),
  );
  return drawPanel(scene, panel, { raking: FLAT });
}
