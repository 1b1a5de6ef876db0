import { type PrepHint, type PrepReason, type PrepStep } from '@zaffet/core';

const PREP_WORDS: Readonly<Record<PrepStep, string>> = {
  'test-old-paint':
    'Test the old paint for lead before you sand, scrape or heat it. Until you know: no dry sanding, no heat. Local rules and licensed people decide.',
  'loosen-flakes': 'Take off what is loose, wet, and feather the edges.',
  degrease: 'Clean and degrease, rinse, let dry.',
  dewax:
    'Take the wax or oil off with mineral spirits, several clean cloths; lay the cloths flat outdoors to dry.',
  scuff: 'Scuff to a dull surface, wipe off the dust with a damp cloth.',
  'stop-tannin': 'Stop the tannin: two thin coats of shellac, or a stain-stopping primer.',
  'seal-raw-wood': 'Seal or prime the raw wood, unless the base coat shall soak in.',
  'seal-mdf': 'Prime faces and, twice, the cut edges.',
};

const PREP_REASONS: Readonly<Record<PrepReason, string>> = {
  'age-unknown': 'nobody knows how old this paint is',
  flaking: 'new paint holds only as well as what is below it',
  always: 'grease one cannot see stops paint from holding',
  handled: 'it was handled; hands and polish leave grease',
  waxed: 'water-based paint crawls on wax and oil',
  slick: 'paint finds no hold on gloss',
  'tannin-wood': 'brown tannin comes up through water-based paint, for weeks',
  'raw-wood-drinks': 'it drinks the water out of the first coat, and unevenly',
  'mdf-swells': 'MDF swells where it gets wet, most at cut edges',
};

/** A preparation step in words, with its reason. */
export const prepWords = (hint: PrepHint): { text: string; reason: string } => ({
  text: PREP_WORDS[hint.step],
  reason: PREP_REASONS[hint.because],
});
