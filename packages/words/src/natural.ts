import { NATURAL_LIMITS, type NaturalCode } from '@zaffet/core/measure';
import { type RestraintCode } from '@zaffet/core/notes';

const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** What a painter is told of how natural a panel looks, and what would change it. */
export const NATURAL_WORDS: Readonly<Record<NaturalCode, { title: string; remedy: string }>> = {
  natural: { title: 'It looks as if it came by itself.', remedy: '' },
  plain: { title: 'Nothing has cracked, chipped or worn: there is nothing to judge.', remedy: '' },
  'wear-regular': {
    title: 'The worn spots keep a distance from each other, as if stamped.',
    remedy:
      'Let them run together in a few places and leave others alone: paint the wear on, or let a use propose it.',
  },
  'wear-even': {
    title: 'It is worn alike everywhere.',
    remedy: 'Work where hands, knocks and damp would have been, and leave the rest.',
  },
  'wear-inside-only': {
    title: 'The field is worn and the edges are not; it is mostly the other way round.',
    remedy: 'Take the edges and corners a little further.',
  },
  'crackle-everywhere': {
    title: `Crackle runs over more than ${percent(NATURAL_LIMITS.everywhere)} of the panel.`,
    remedy:
      'Lay the medium only here and there, or thin it out on its map, so that some of the paint stays whole.',
  },
  'crackle-even': {
    title: 'The web is as fine in one place as in the next.',
    remedy: 'Lay medium or top coat thicker towards one side, or cross the strokes.',
  },
  'dark-wax': {
    title: `Dark wax covers more than about ${percent(NATURAL_LIMITS.darkWax)}.`,
    remedy:
      'Keep it to recesses and edges and wipe the field back; a fully waxed piece can be meant, then leave it.',
  },
};

/** What stands out of a finish that is meant for sale. */
export const RESTRAINT_WORDS: Readonly<Record<RestraintCode, string>> = {
  'much-shows': 'The colours below show on a third and more; quieter pieces find more buyers.',
  'strong-contrast': 'The two colours stand far apart; closer ones look older and calmer.',
  'strong-colour': 'The colour is strong from across the room; greyed ones suit more rooms.',
  'bare-board': 'Bare board shows; many take it for damage.',
};

export const NATURAL_MEANING =
  '100 looks as if it came by itself; worn spots as if stamped, wear alike everywhere, a crackle over everything take off it.';
