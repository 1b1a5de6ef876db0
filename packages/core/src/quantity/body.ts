import { type Medium } from '../media';

/** How a mix runs off the brush, from thin to thick: what the hand sees where a ratio does not tell. */
export const BODIES = ['water', 'drips', 'shake', 'cream', 'paste'] as const;
export type Body = (typeof BODIES)[number];

/** How thick one brushed coat of a mix comes to lie against the usual one of its medium; assumed, by hand. */
const FILM: Readonly<Record<Body, number>> = {
  water: 0.55,
  drips: 0.75,
  shake: 0.9,
  cream: 1.15,
  paste: 1.7,
};

/** Wet film that one easily brushed coat of a medium comes to when it has this body [m]. */
export const filmOfBody = ({ wetFilmUm }: Pick<Medium, 'wetFilmUm'>, body: Body): number =>
  wetFilmUm * FILM[body] * 1e-6;

/** The body whose usual film is nearest to a wished one. */
export function bodyFor(medium: Pick<Medium, 'wetFilmUm'>, thickness: number): Body {
  const off = (body: Body): number => Math.abs(Math.log(filmOfBody(medium, body) / thickness));
  return BODIES.reduce((best, body) => (off(body) < off(best) ? body : best));
}
