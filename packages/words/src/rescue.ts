import { type Cause, type Outcome, type Rescue, type Wrong } from '@zaffet/workshop';
import { type UnitSystem } from '@zaffet/contract';
import { mm, perCent } from './format';

/** What went wrong, as a painter says it. */
export const WRONG_WORDS: Readonly<Record<Wrong, string>> = {
  'no-cracks': 'No cracks come',
  'closed-crackle': 'The cracks closed again',
  mush: 'It turned to mush',
  'too-late': 'I came too late',
  'no-chips': 'Nothing chips',
  'too-many-chips': 'It chips too much',
  'to-wood': 'Down to bare wood',
  burnt: 'It is burnt',
  'sticky-wax': 'The wax stays sticky',
  'colour-off': 'The colour is wrong',
  muddy: 'Glaze or wax is muddy',
  runs: 'It runs',
  'missed-spots': 'Spots were missed',
};

export const CAUSE_WORDS: Readonly<Record<Cause, string>> = {
  'glue-dry': 'The glue had skinned over before the paint came.',
  overbrushed: 'It was brushed too often in one place.',
  'second-coat': 'A second coat filled the cracks.',
  'missed-medium': 'The medium was missed there, or pressed off.',
  'medium-wet': 'The medium was still wet.',
  'thin-coat': 'The coat is too thin.',
  damp: 'The air is damp.',
  'thick-mix': 'The mix was thicker than meant.',
  'thin-mix': 'The mix was thinner than meant.',
  'sealer-dry': 'The sealer was dry already when the paint came.',
  porous: 'The ground drinks: the paint holds in its pores.',
  'too-wet-cloth': 'Too much water: the paint lets go.',
  'sealer-tacky': 'The sealer was still wet, so the paint hardly holds.',
  'left-too-long': 'It was left too long and needs force.',
  'no-barrier': 'Nothing between stops the tool before the wood.',
  'hot-too-long': 'The hot air stood too long in one place.',
  'wax-thick': 'The wax lies too thick.',
  'wax-early': 'It was buffed or coated before it was dry.',
  'wet-or-unsealed': 'It is judged wet, or before it is sealed: both shift the colour.',
  'not-wiped': 'It was not wiped back at once.',
  'too-thick': 'Too much lies on it.',
  standing: 'It was done standing.',
  'dry-places': 'The places had dried before they were reached.',
};

const RESCUE_WORDS: Readonly<Record<Rescue['key'], { readonly name: string; readonly how: string }>> = {
  again: {
    name: 'Once more',
    how: 'Let it dry through, sand it flat, wipe the dust off, then medium and coat once more: fewer strokes.',
  },
  'wet-and-heat': {
    name: 'Wet patches and warm air',
    how: 'Wet it in patches, warm air kept moving, look; again only where nothing gives.',
  },
  'stop-water': {
    name: 'Go on dry',
    how: 'Stop with water. Fine dry paper takes off what is loose and no more.',
  },
  'dry-brush': {
    name: 'Dry-brush it over',
    how: 'Hardly any paint on the brush, feathered out, only where too much is off.',
  },
  'scrape-patch': { name: 'Scrape and patch', how: 'Scrape the burnt place, smooth the rim, touch it in.' },
  'wipe-wax': {
    name: 'Wipe it back',
    how: 'Fresh wax, or a cloth with a little spirit, lifts what is too much; then leave it alone.',
  },
  repaint: {
    name: 'Paint it over',
    how: 'Try the colour on a board first, dry and sealed; then one coat over all.',
  },
  'rub-down': {
    name: 'Rub down and touch in',
    how: 'Lay it flat, let it dry through, rub the runs down, one thin coat.',
  },
};
export const rescueWords = (key: Rescue['key']): { name: string; how: string } => RESCUE_WORDS[key];

/** Shares nearer than this look the same; so does the sharpness of cracks. */
const SAME = 0.01;
const SAME_STRENGTH = 0.08;
/** Cracks weaker than this are not seen. */
const SEEN = 0.05;

/** What a way out would change, in a sentence. */
export function rescueEffect({ before, after }: Pick<Rescue, 'before' | 'after'>, units: UnitSystem): string {
  const parts: string[] = [];
  const cracks = ({ strength, spacing }: Outcome): string =>
    strength < SEEN || spacing === null ? 'no cracks' : `cracks ${mm(spacing, units)} apart`;
  if (
    Math.abs(after.strength - before.strength) > SAME_STRENGTH ||
    after.strength < SEEN !== before.strength < SEEN
  )
    parts.push(`${cracks(after)} instead of ${cracks(before)}`);
  if (Math.abs(after.chips - before.chips) > SAME)
    parts.push(`${perCent(after.chips)} chipped instead of ${perCent(before.chips)}`);
  if (Math.abs(after.bare - before.bare) > SAME)
    parts.push(`${perCent(after.bare)} bare instead of ${perCent(before.bare)}`);
  return parts.length === 0 ? 'Cracks and chips stay as they are.' : `Then ${parts.join('; ')}.`;
}
