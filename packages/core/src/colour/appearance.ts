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
  /** Was there before the first coat: it contrasts with nothing. */
  readonly there?: boolean;
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
  /** ΔE00 between the topmost colour and what comes to light in it; null with fewer than two. */
  readonly contrast: number | null;
}

/** Less of a layer than this is not what comes to light. */
const COMES_TO_LIGHT = 0.002;
/** Of all that shows so much must be of another colour to tell. */
const TELLS = 0.25;
/** Two coats nearer than this are one colour [ΔE00]. */
const ONE_COLOUR = 1;

/**
 * Contrast of the topmost colour with what comes to light in it, by how much of each is seen; coats of the top's own
 * colour count for nothing as long as another one shows.
 * @param seen - share of a layer that is seen, by its id
 */
export function contrastWith(
  looks: Pick<Appearance, 'layers' | 'contrast'>,
  seen: (id: string) => number,
): number | null {
  const top = looks.layers.at(-1);
  if (top === undefined || top.contrast === null) return looks.contrast;
  const shown = looks.layers
    .slice(0, -1)
    .map(({ id, seen: colour }) => ({ share: seen(id), difference: deltaE2000(top.seen, colour) }))
    .filter(({ share }) => share > COMES_TO_LIGHT);
  const shareOf = (of: typeof shown): number => of.reduce((all, { share }) => all + share, 0);
  const other = shown.filter(({ difference }) => difference >= ONE_COLOUR);
  const told = shareOf(other) > TELLS * shareOf(shown) ? other : shown;
  const sum = shareOf(told);
  return sum === 0
    ? looks.contrast
    : told.reduce((all, { share, difference }) => all + share * difference, 0) / sum;
}

/** Colours of all layers, dry, wetted, under a clear coat, and as they will be seen. */
export function appearance(layers: readonly ColouredLayer[]): Appearance {
  const looks: LayerLook[] = [];
  let ground: Colour = [0.5, 0.5, 0.5];
  let below: string | null = null;
  let contrast: number | null = null;
  for (const layer of layers) {
    if (layer.colour === null) continue;
    const dry = layered(fromHex(layer.colour), ground, layer.opacity);
    const sealed = sealedColour(dry, layer.sealed ?? 0);
    const seen = layer.sealed === null ? dry : sealed;
    const hex = toHex(seen);
    const difference = below === null || layer.there === true ? null : deltaE2000(hex, below);
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
  return { layers: looks, contrast };
}

/**
 * All that is seen of some layers, mixed by area as the eye does from across the room.
 * @param shares - of the area, layer by layer; clear layers have no colour of their own and count for nothing
 * @returns `#rrggbb`
 */
export function meanColour(
  looks: Appearance,
  layers: readonly { readonly id: string }[],
  shares: readonly number[],
): string {
  const mean: [number, number, number] = [0, 0, 0];
  let total = 0;
  layers.forEach(({ id }, k) => {
    const look = looks.layers.find((candidate) => candidate.id === id);
    if (look === undefined) return;
    const colour = fromHex(look.seen);
    for (const c of [0, 1, 2] as const) mean[c] += shares[k]! * colour[c];
    total += shares[k]!;
  });
  return toHex(total > 0 ? [mean[0] / total, mean[1] / total, mean[2] / total] : mean);
}
