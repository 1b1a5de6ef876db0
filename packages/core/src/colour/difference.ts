import { converter, differenceCiede2000, formatHex } from 'culori';

const difference = differenceCiede2000();
const toLab65 = converter('lab65');
const toOklch = converter('oklch');

/**
 * Colour difference ΔE00 between two sRGB colours, CIE 142-2001, through culori in its D65 Lab: its plain `lab` adapts
 * to D50 and is off by up to 0.6.
 * @param a - `#rrggbb`
 */
export const deltaE2000 = (a: string, b: string): number => differenceFrom(a)(b);

/**
 * How far colours are off one [ΔE00], for many of them.
 * @param a - `#rrggbb`
 */
export function differenceFrom(a: string): (b: string) => number {
  const from = toLab65(a);
  return (b) => {
    const to = toLab65(b);
    return from === undefined || to === undefined ? 0 : difference(from, to);
  };
}

/** What a contrast between two layers looks like; common practice. */
export function contrastWord(deltaE: number): 'none' | 'subtle' | 'clear' | 'strong' {
  return deltaE < 3 ? 'none' : deltaE < 8 ? 'subtle' : deltaE < 20 ? 'clear' : 'strong';
}

/** The opposite of a colour: half round the hue circle of OKLCH, same lightness and chroma as far as a screen can. */
export function opposite(hex: string): string {
  const colour = toOklch(hex);
  if (colour === undefined) return hex;
  return formatHex({ ...colour, h: ((colour.h ?? 0) + 180) % 360 });
}

/** Hues of the painters' wheel [degrees of HSL] at equal steps: red, orange, yellow, green, blue, violet. */
const WHEEL = [0, 30, 60, 120, 240, 280, 360] as const;
const toHsl = converter('hsl');

/** The opposite on the red-yellow-blue wheel painters learn: red and green, orange and blue, yellow and violet. */
export function painterOpposite(hex: string): string {
  const colour = toHsl(hex);
  if (colour === undefined) return hex;
  const hue = (colour.h ?? 0) % 360;
  const i = Math.max(
    0,
    WHEEL.findLastIndex((at) => at <= hue),
  );
  const from = WHEEL[i]!;
  const to = WHEEL[i + 1]!;
  const place = (i + (hue - from) / (to - from) + 3) % 6;
  const k = Math.floor(place);
  const h = WHEEL[k]! + (place - k) * (WHEEL[k + 1]! - WHEEL[k]!);
  return formatHex({ ...colour, h: h % 360 });
}
