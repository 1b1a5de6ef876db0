import { fallsTo, type StateTimes } from '../film';
import { type FilmRun, type TopcoatWindow } from './types';

/** White glue is spread and left to grab for about this long; common practice. */
const GLUE_GRABS = 60;

/** When a film takes the next one as its kind wants it. */
export function windowOf(film: FilmRun): TopcoatWindow | null {
  const { laidAt, openStates: open } = film;
  const from = (opensAt: number | null): TopcoatWindow | null =>
    opensAt === null ? null : { opensAt, closesAt: null };
  switch (film.medium.kind) {
    case 'wet-glue': {
      const closesAt = open.skinned;
      return {
        opensAt: closesAt === null ? laidAt + GLUE_GRABS : Math.min(laidAt + GLUE_GRABS, closesAt),
        closesAt,
      };
    }
    case 'crackle-medium':
      return from(open.touch);
    case 'cured-glue':
      return from(open.through);
    case 'wax':
      return from(open.touch);
    case 'clear':
    case 'paint':
    case 'primer':
    case 'ground':
    case 'glaze':
      return from(open.recoat);
    case 'resist':
    case 'agent':
      return null;
  }
}

/** States of a film that another covered: what it had reached stays, the rest follows its water under the cover. */
export function coveredStates(before: FilmRun, over: FilmRun): StateTimes {
  const { open: curve, openStates: open, medium: m } = before;
  const coveredAt = before.coveredAt ?? Infinity;
  const under = (reached: number | null, water: number): number | null => {
    if (reached !== null && reached <= coveredAt) return reached;
    // What dries without the other's carrier goes on as if it were open.
    if (over.medium.carrier !== m.carrier) return reached;
    const later = fallsTo(over.open, over.open.waterBelow, water);
    return later === null ? null : Math.max(coveredAt + later, reached ?? 0);
  };
  const s = curve.solidsUm;
  const through = under(open.through, m.throughWater * s);
  const cureTime = open.cured !== null && open.through !== null ? open.cured - open.through : null;
  return {
    matte: open.matte !== null && open.matte <= coveredAt ? open.matte : null,
    tacky: under(open.tacky, (s * m.gelWater) / (1 - m.gelWater)),
    skinned: open.skinned !== null && open.skinned <= coveredAt ? open.skinned : null,
    touch: under(open.touch, m.touchWater * s),
    recoat: under(open.recoat, m.recoatWater * s),
    through,
    cured: through === null || cureTime === null ? null : through + cureTime,
  };
}
