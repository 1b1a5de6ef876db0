import { converter } from 'culori';
import { type Colour } from './rgb';

const toOklch = converter('oklch');

/*
 * Light in a paint film, channel by channel. Saunderson 1942 (J. Opt. Soc. Am. 32) joins what happens inside the film
 * to what leaves its surface; Kubelka & Munk 1931 gives the inside. Both quoted from memory.
 */

/** Reflection at the surface from outside and from inside, and the factor on absorption: matt and dry, or wetted. */
interface Surface {
  readonly outside: number;
  readonly inside: number;
  readonly absorption: number;
}
const DRY: Surface = { outside: 0.04, inside: 0.5, absorption: 1 };
/** Water, wax or clear coat fill the pores: less scatter, more is absorbed; assumed. */
const WETTED: Surface = { outside: 0.015, inside: 0.6, absorption: 1.1 };
const GLOSSY: Surface = { outside: 0, inside: 0.6, absorption: 1.1 };

const measured = (internal: number, s: Surface): number =>
  s.outside + ((1 - s.outside) * (1 - s.inside) * internal) / (1 - s.inside * internal);
const internalOf = (seen: number, s: Surface): number => {
  const above = Math.max(0, seen - s.outside) / ((1 - s.outside) * (1 - s.inside));
  return Math.min(0.999, above / (1 + s.inside * above));
};
const absorptionOf = (r: number): number => (1 - r) ** 2 / (2 * Math.max(r, 1e-4));
const reflectanceOf = (ks: number): number => 1 + ks - Math.sqrt(ks * ks + 2 * ks);

/**
 * The dry surface of a colour as it was picked on a screen: a channel darker than the surface itself reflects was not
 * measured on matt paint, and at most half of it is taken for surface.
 */
const drySurface = (seen: number): Surface => ({ ...DRY, outside: Math.min(DRY.outside, 0.5 * seen) });

const seenUnder = (dry: Colour, surface: Surface): Colour => {
  const channel = (c: number): number => {
    const own = drySurface(c);
    const outside = (surface.outside * own.outside) / DRY.outside;
    return measured(reflectanceOf(absorptionOf(internalOf(c, own)) * surface.absorption), {
      ...surface,
      outside,
    });
  };
  return [channel(dry[0]), channel(dry[1]), channel(dry[2])];
};

/** How a dry matt colour looks wet or waxed: darker and deeper, dark colours most. */
export const wetColour = (dry: Colour): Colour => seenUnder(dry, WETTED);

/**
 * How it looks under a clear film.
 * @param yellowing - 0 none … 1 as much as a thick oil film gives
 */
export function sealedColour(dry: Colour, yellowing: number): Colour {
  const [r, g, b] = seenUnder(dry, GLOSSY);
  return [r * (1 - 0.03 * yellowing), g * (1 - 0.07 * yellowing), b * (1 - 0.28 * yellowing)];
}

/** Pale paints hide worse than dark ones; yellows, whose pigments scatter little, worst of all; common practice. */
const DARK_HIDES = 0.5;
const PALE_HIDES = 1.15;
const YELLOW_HIDES = 0.8;
/** Hues of yellow [degrees in OKLCH], and the chroma from which a colour is one in full. */
const YELLOW = { from: 65, to: 115, chroma: 0.12 };

/**
 * Factor on the film a medium needs to hide, by its colour: black and earth a half and less more, white and yellow two
 * or three coats' worth. 1 for a middle grey.
 */
export function hidingFactor(colour: string | null): number {
  const lch = colour === null ? undefined : toOklch(colour);
  if (lch === undefined) return 1;
  const lightness = DARK_HIDES + PALE_HIDES * lch.l ** 2;
  const hue = lch.h ?? 0;
  const yellow = hue > YELLOW.from && hue < YELLOW.to ? Math.min(1, lch.c / YELLOW.chroma) * lch.l : 0;
  return lightness * (1 + YELLOW_HIDES * yellow);
}

/** Share that a film hides of what is below: 1 − exp(−h/hiding thickness). */
export const opacityOf = (dryUm: number, hidingUm: number): number => 1 - Math.exp(-dryUm / hidingUm);

/**
 * A thin film over a ground, after Kubelka and Munk: R = [1 − Rg (a − b coth bSh)]/[a − Rg + b coth bSh].
 * @param film - colour of the film where it hides fully, dry
 * @param ground - colour below, dry
 * @param opacity - what it hides here, 0 … 1, taken as 1 − exp(−S h)
 */
export function layered(film: Colour, ground: Colour, opacity: number): Colour {
  if (opacity <= 0) return ground;
  const scatter = -Math.log(Math.max(1e-9, 1 - opacity)) * 1.5;
  const channel = (i: 0 | 1 | 2): number => {
    const surface = drySurface(film[i]);
    const a = 1 + absorptionOf(internalOf(film[i], surface));
    const b = Math.sqrt(Math.max(1e-9, a * a - 1));
    const coth = 1 / Math.tanh(Math.max(1e-6, b * scatter));
    const rg = internalOf(ground[i], drySurface(ground[i]));
    return measured((1 - rg * (a - b * coth)) / (a - rg + b * coth), surface);
  };
  return [channel(0), channel(1), channel(2)];
}
