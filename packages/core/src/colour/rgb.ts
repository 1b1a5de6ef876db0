/** Linear light in the sRGB primaries, D65, 0 … 1. */
export type Colour = readonly [number, number, number];

const toLinear = (c: number): number => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4);
const fromLinear = (c: number): number => (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055);

/** Linear light of each byte. */
export const LINEAR = Float32Array.from({ length: 256 }, (_, byte) => toLinear(byte / 255));
/** The byte of linear light, in steps of a 4096th. */
export const ENCODED = Uint8ClampedArray.from({ length: 4097 }, (_, i) => 255 * fromLinear(i / 4096));

/** `#rrggbb` as linear light (IEC 61966-2-1 transfer curve). The value was checked at the door. */
export function fromHex(hex: string): Colour {
  const value = Number.parseInt(hex.slice(1), 16);
  return [toLinear((value >> 16) / 255), toLinear(((value >> 8) & 255) / 255), toLinear((value & 255) / 255)];
}

/** Linear light as `#rrggbb`, clipped to what a screen can show. */
export function toHex(colour: Colour): string {
  const byte = (c: number): string =>
    Math.round(255 * Math.min(1, Math.max(0, fromLinear(Math.max(0, c)))))
      .toString(16)
      .padStart(2, '0');
  return `#${byte(colour[0])}${byte(colour[1])}${byte(colour[2])}`;
}
