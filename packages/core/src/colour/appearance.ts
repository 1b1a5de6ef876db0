import { deltaE2000 } from './difference';
import { layered, sealedColour, wetColour } from './film';
import { type Colour, fromHex, toHex } from './rgb';

/** A layer as colours need it, from the ground up. */
export interface ColouredLayer {
  readonly id: string;
  /** `#rrggbb`; null for clear layers. */
  readonly colour: string | null;
  /** What it hides of what is below, 0 … 1. */
  readonly opacity: number;
  /** Yellowing of the clear films over it; null where none lies over it. */
  readonly sealed: number | null;
  /** Share of the area on which it is seen. */
  readonly seen: number;
}

/** How one layer looks; colours as `#rrggbb`. */
export interface LayerLook {
  readonly id: string;
  readonly dry: string;
  readonly wet: string;
  readonly sealed: string;
  /** As it will look on the finished panel. */
  readonly seen: string;
  /** ΔE00 against the coloured layer below it. */
  readonly contrast: number | null;
}

export interface Appearance {
  readonly layers: readonly LayerLook[];
  /** All that is seen, mixed by area as the eye does from across the room. */
  readonly mean: string;
  /** ΔE00 between the topmost colour and the one below it; null with fewer than two. */
  readonly contrast: number | null;
}

/** Colours of all layers, dry, wetted, under a clear coat, and as they will be seen. */
export function appearance(layers: readonly ColouredLayer[]): Appearance {
  const looks: LayerLook[] = [];
  const mean = [0, 0, 0];
  let ground: Colour = [0.5, 0.5, 0.5];
  let below: string | null = null;
  let contrast: number | null = null;
  for (const layer of layers) {
    if (layer.colour === null) continue;
    const dry = layered(fromHex(layer.colour), ground, layer.opacity);
    const sealed = sealedColour(dry, layer.sealed ?? 0);
    const seen = layer.sealed === null ? dry : sealed;
    for (const c of [0, 1, 2] as const) mean[c] = mean[c]! + layer.seen * seen[c];
    const hex = toHex(seen);
    const difference = below === null ? null : deltaE2000(hex, below);
    if (difference !== null) contrast = difference;
    looks.push({
      id: layer.id,
      dry: toHex(dry),
      wet: toHex(wetColour(dry)),
      sealed: toHex(sealed),
      seen: hex,
      contrast: difference,
    });
    ground = dry;
    below = hex;
  }
  const total = layers.reduce((sum, layer) => sum + (layer.colour === null ? 0 : layer.seen), 0);
  const scaled = mean.map((c) => (total > 0 ? c / total : 0)) as [number, number, number];
  return { layers: looks, mean: toHex(scaled), contrast };
}
