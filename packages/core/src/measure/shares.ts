import { type Scene } from '../outcome';
import { type PanelField } from '../face';
import { fromRim } from '../plan';
import { type Grid } from '../raster';

/** 1 where a point of a grid lies outside an oval panel; null where the panel fills its size. */
export function outsideOf({ widthMm, heightMm, oval }: Scene, grid: Grid): Uint8Array | null {
  if (!oval) return null;
  const { columns, rows, pitchMm, leftMm, topMm } = grid;
  const size = { width: widthMm, height: heightMm, oval };
  return Uint8Array.from({ length: columns * rows }, (_, i) => {
    const x = leftMm + ((i % columns) + 0.5) * pitchMm;
    const y = topMm + (Math.floor(i / columns) + 0.5) * pitchMm;
    return fromRim(size, x, y) < 0 ? 1 : 0;
  });
}

/** Figures measured on a panel field. */
export interface PanelShares {
  /** Share of the window on which each layer is seen, the panel first; adds up to 1. */
  readonly layers: readonly number[];
  /** Share that is floor of an open crack. */
  readonly open: number;
  /** Share of the window that is rim of a flake. */
  readonly rim: number;
}

/**
 * How much of each layer is seen, counted point by point, thin films seen through as in the closed form.
 */
export function measurePanel(scene: Scene, field: PanelField): PanelShares {
  const { bits, floor, rim, wax, waxLayer, mixed, below, top } = field;
  const outside = outsideOf(scene, field.grid);
  const n = bits.length - (outside?.reduce((sum, out) => sum + out, 0) ?? 0);
  const layers = new Float64Array(scene.layers.length);
  const opacity = scene.layers.map((layer) => layer.opacity);
  let open = 0;
  let rims = 0;
  const see = (from: number, mask: number, amount: number): void => {
    let left = amount;
    for (let k = from; k >= 1 && left > 1e-9; k--) {
      if ((mask & (1 << k)) === 0) continue;
      layers[k] = layers[k]! + left * opacity[k]!;
      left *= 1 - opacity[k]!;
    }
    layers[0] = layers[0]! + left;
  };
  for (let i = 0; i < bits.length; i++) {
    if (outside?.[i] === 1) continue;
    open += floor[i]!;
    rims += rim[i]! > 0.05 ? 1 : 0;
    const rubbed = waxLayer > 0 ? wax[i]! * opacity[waxLayer]! : 0;
    if (rubbed > 0) layers[waxLayer] = layers[waxLayer]! + rubbed;
    const rest = 1 - rubbed;
    // A point at a border belongs partly to what is on the other side.
    const give = mixed[i]!;
    see(scene.layers.length - 1, waxLayer > 0 ? bits[i]! & ~(1 << waxLayer) : bits[i]!, rest * (1 - give));
    if (give > 0) see(below[i]!, below[i]! > top[i]! ? bits[i]! | (1 << below[i]!) : bits[i]!, rest * give);
  }
  return { layers: Array.from(layers, (share) => share / n), open: open / n, rim: rims / n };
}
