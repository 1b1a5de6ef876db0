/** Which way a part looks on the standing piece; `loose` parts lie by themselves. */
export const FACINGS = ['top', 'front', 'left', 'right', 'back', 'bottom', 'inside', 'loose'] as const;
export type Facing = (typeof FACINGS)[number];

/** Places of a part that are not told by its rim alone. */
export const PLACED_ZONES = ['pull', 'rail', 'recess', 'relief', 'spot'] as const;
export type PlacedZone = (typeof PLACED_ZONES)[number];

/** A part as far as its place on the piece goes; lengths in m. */
export interface Placeable {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  readonly facing: Facing;
}

/** A part on the unfolded sheet: upper left corner and size [m]. */
export interface Placed extends Placeable {
  readonly x: number;
  readonly y: number;
}
