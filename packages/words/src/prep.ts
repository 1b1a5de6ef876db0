import { type PrepStep } from '@zaffet/core/plan';
import { type PrepHint, type PrepReason } from '@zaffet/core/prep';

const PREP_WORDS: Readonly<Record<PrepStep, string>> = {
  'test-old-paint':
    'Test the old paint for lead before you sand, scrape or heat it. Until you know: no dry sanding, no heat. Local rules and licensed people decide.',
  'take-off': 'Take off the hardware, pull out the drawers, label the screws.',
  mask: 'Mask what stays: glass, hinges, the inside.',
  'loosen-flakes': 'Take off what is loose, wet, and feather the edges.',
  degrease: 'Clean and degrease, rinse, let dry.',
  dewax:
    'Take the wax or oil off with mineral spirits, several clean cloths; lay the cloths flat outdoors to dry.',
  'wait-oil':
    'Fresh oil: wait some weeks, or wipe it with mineral spirits and lay the cloths flat outdoors. Long cured oil: clean it only.',
  'test-hold': 'Paint a hand-sized spot, let it dry, press tape on and pull: see whether it holds.',
  scuff: 'Scuff to a dull surface, wipe off the dust with a damp cloth.',
  bond: 'Lay a bonding primer.',
  'dry-wood': 'Let the wood come to the air of the shop before anything is painted.',
  'stop-tannin': 'Stop the tannin: two thin coats of shellac, or a stain-stopping primer.',
  'seal-raw-wood': 'Seal or prime the raw wood.',
  'seal-mdf': 'Prime faces and, twice, the cut edges.',
};

const PREP_REASONS: Readonly<Record<PrepReason, string>> = {
  'age-unknown': 'nobody knows how old this paint is, and old paint may hold lead',
  'age-old': 'paint of that age may hold lead',
  'comes-off': 'paint bridges to what stays on, and cracks there',
  'stays-on': 'what cannot come off must not be painted',
  flaking: 'new paint holds only as well as what is below it',
  always: 'grease one cannot see stops paint from holding',
  handled: 'it was handled; hands and polish leave grease',
  waxed: 'water-based paint crawls on wax and oil',
  'fresh-oil': 'water-based paint crawls on oil that has not cured',
  'old-oil': 'cured oil takes paint as varnish does',
  'unknown-coat': 'not everything holds on everything',
  slick: 'paint finds no hold on gloss',
  'holds-poorly': 'even chalk-type paint may peel here where it is handled',
  'damp-wood': 'damp wood shrinks under the paint, and takes it along',
  'tannin-wood': 'brown tannin comes up through water-based paint, for weeks',
  'raw-wood-drinks': 'it drinks the water out of the first coat, and unevenly',
  'mdf-swells': 'MDF swells where it gets wet, most at cut edges',
};

/** A preparation step in words, with its reason. */
export const prepWords = (hint: PrepHint): { text: string; reason: string } => ({
  text: PREP_WORDS[hint.step],
  reason: PREP_REASONS[hint.because],
});
