import { Growth } from '../crack';
import {
  brushRelief,
  type CrackedLayer,
  type DrawnPanel,
  drawPanel,
  type FaceView,
  faceView,
  type FaceViewKey,
  type PanelField,
  patternInput,
  runScene,
} from '../face';
import { forecast, type Forecast } from '../forecast';
import { onTables } from '../basis';
import { type PanelPlan } from '../plan';

export interface PaintedFace {
  readonly result: Forecast;
  readonly view: FaceView;
  readonly cracked: readonly CrackedLayer[];
  readonly panel: PanelField;
}

/** Plays a plan point by point on one of its views, `columns` pixels wide, in one go. */
export function playedFace(
  plan: PanelPlan,
  key: FaceViewKey,
  columns: number,
  aspect = plan.panel.width / plan.panel.height,
): PaintedFace {
  const result = forecast(onTables(plan));
  const { scene } = result;
  const view = faceView(
    plan.panel,
    key,
    aspect,
    scene.networks.map(({ law }) => law),
  );
  const cracked = scene.networks.map((network): CrackedLayer => {
    const growth = new Growth(patternInput(scene, network, view, 'full'));
    while (growth.step());
    return { key: network.key, field: growth.result() };
  });
  const pitchMm = view.widthMm / columns;
  const rows = Math.round(view.heightMm / pitchMm);
  const panel = runScene(
    scene,
    {
      columns,
      rows,
      pitchMm,
      leftMm: view.leftMm,
      topMm: view.topMm,
      opening: 1,
      until: scene.events.length,
    },
    cracked,
    (strokes, layer) => brushRelief(columns, rows, pitchMm, strokes, scene.seed ^ (layer & 1 ? 0x7f : 0)),
  );
  return { result, view, cracked, panel };
}

/** The same as a picture. */
export function drawnFace(plan: PanelPlan, key: FaceViewKey, columns: number, aspect?: number): DrawnPanel {
  const { result, panel } = playedFace(plan, key, columns, aspect);
  return drawPanel(result.scene, panel, { raking: 0.5 });
}
