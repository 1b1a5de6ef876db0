/** Texture powder holds so much solid as it lies loose, the rest is air; assumed, as for ground chalk. */
export const POWDER_SOLIDS = 0.4;
