import { type Finding, type FindingCode } from '@zaffet/core/notes';
import { type UnitSystem } from '@zaffet/contract';
import { area, celsius, duration, figures, perCent, um } from './format';

/** A finding in words: what it is, why, and what to do. */
export interface FindingWords {
  readonly title: string;
  readonly text: string;
  readonly remedy: string;
}

type Values = Finding['values'];
const since = (v: Values, from: string, to: string): string =>
  duration(Math.abs((v[to] ?? 0) - (v[from] ?? 0)));

const FINDING_WORDS: Readonly<Record<FindingCode, (v: Values, units: UnitSystem) => FindingWords>> = {
  'glue-still-open': (v) => ({
    title: 'Onto wet glue.',
    text: `One school paints at once, another waits until the glue grabs. Both work until the glue skins over, ${since(v, 'laidAt', 'closesAt')} later.`,
    remedy: '',
  }),
  'glue-grabs': (v) => ({
    title: 'In the window.',
    text: `The glue grabs and is still soft below. The window closes ${since(v, 'laidAt', 'closesAt')} after you start.`,
    remedy: '',
  }),
  'glue-closing': (v) => ({
    title: 'Late for wet glue.',
    text: `The glue skinned over ${since(v, 'closesAt', 'laidAt')} before the top coat; it slips less and less, so the cracks come finer and weaker.`,
    remedy: 'Paint sooner, work a smaller section, or lay fresh glue. Thicker glue hardly stays open longer.',
  }),
  'glue-dried': (v) => ({
    title: 'The glue has dried.',
    text: `It skinned over ${since(v, 'closesAt', 'laidAt')} before the top coat and no longer slips: hardly anything will crack.`,
    remedy: 'Lay fresh glue and paint while it is wet or grabs.',
  }),
  'medium-wet': (v) => ({
    title: 'The medium is still wet.',
    text: `It is touch-dry ${since(v, 'laidAt', 'opensAt')} later. Brushed now, paint and medium mix instead of cracking.`,
    remedy: 'Wait until it is dry to the touch. Crackle medium wants the opposite of white glue.',
  }),
  'medium-ready': (v) => ({
    title: 'The medium is dry.',
    text: `It ${(v['laidAt'] ?? 0) - (v['opensAt'] ?? 0) < 60 ? 'is just touch-dry' : `has been touch-dry for ${since(v, 'opensAt', 'laidAt')}`}. Brush on quickly, flat, and never back over it.`,
    remedy: '',
  }),
  'hide-not-cured': (v) => ({
    title: 'The hide glue has not cured.',
    text: `It needs ${since(v, 'laidAt', 'opensAt')} more. Soft glue mixes into the paint.`,
    remedy: 'Wait; overnight is usual.',
  }),
  'hide-ready': () => ({
    title: 'The hide glue has cured.',
    text: 'The web forms within seconds. Do not overwork it.',
    remedy: '',
  }),
  'base-not-dry': (v) => ({
    title: 'The coat below is still soft.',
    text: `It takes a coat ${since(v, 'laidAt', 'opensAt')} later. The brush will drag it.`,
    remedy: 'Wait, or warm the room.',
  }),
  overworked: (v) => ({
    title: 'Overworked.',
    text: `${figures(v['passes'] ?? 0)} passes over one place mix paint into what should slip. Three are about the most it stands.`,
    remedy: 'Two long strokes, then leave it.',
  }),
  'second-coat-closes': (v) => ({
    title: 'A second coat closes the crackle.',
    text: `It leaves about ${perCent(v['left'] ?? 0)} of the opening. Some practitioners do it thinly; most never.`,
    remedy: 'Take the second coat off, or lay it as a wash.',
  }),
  'too-thin': (v, units) => ({
    title: 'Very thin top coat.',
    text: `${um(v['thickness'] ?? 0, units)} when dry gives hairlines at best.`,
    remedy: 'Load the brush more.',
  }),
  'never-dry': (v) => ({
    title: 'Stays soft in this air.',
    text: `At ${perCent(v['humidity'] ?? 0)} humidity this coat keeps too much water to become touch-dry.`,
    remedy: 'Dry or warm the room first.',
  }),
  'cracks-unknown': (v, units) => ({
    title: 'Nobody knows how a film this thick cracks.',
    text: `It lies ${um(v['thickness'] ?? 0, units)} thick; up to about ${um(v['most'] ?? 0, units)} something is known of this medium. No cracks or flakes are told for it, and none are drawn.`,
    remedy: 'Lay it thinner or in several coats, or paint a sample board and measure it.',
  }),
  'crackle-missing': () => ({
    title: 'Hardly any cracks.',
    text: 'The top coat does not slip enough, or cannot tear.',
    remedy: 'Look at the moment, the passes and how thick the layer below is.',
  }),
  'weak-crackle': (v) => ({
    title: 'A weak crackle.',
    text: `It reads at about ${perCent(v['strength'] ?? 0)} of a full one.`,
    remedy: '',
  }),
  'paint-before-paint': () => ({
    title: 'Nothing here makes it crack.',
    text: 'Paint on paint holds. Cracks need a layer that lets the top coat slip.',
    remedy: 'Put crackle medium or white glue under the top coat.',
  }),
  'damp-air': (v) => ({
    title: 'Damp air.',
    text: `At ${perCent(v['humidity'] ?? 0)} everything dries slower and the crackle comes weaker.`,
    remedy: 'Wait for a drier day, or warm the room.',
  }),
  'start-never': () => ({
    title: 'That moment never comes.',
    text: 'The coat below does not reach the wished state in this air. The plan takes it a day later.',
    remedy: 'Change the air, or start this step after a time instead.',
  }),
  'damp-below': (v) => ({
    title: 'What was wetted is still damp.',
    text: `It needs ${duration(v['wait'] ?? 0)} more to dry: a coat on it is thinned, and holds badly.`,
    remedy:
      'Wait until it is dry to the touch and no longer cool, or let the coat follow a state, which waits for it.',
  }),
  'sealer-dry': (v) => ({
    title: 'The sealer is dry.',
    text: `Only ${perCent(v['tacky'] ?? 0)} of it still grabs; from ${since(v, 'opensAt', 'closesAt')} after it began to, a quarter and less did. The milk paint will hold, and chip little by itself.`,
    remedy:
      'For chips, paint while the sealer still grabs the knuckle in places; or force them later with water and warm air.',
  }),
  'sealer-tacky': (v) => ({
    title: 'Onto a tacky sealer.',
    text: `This is the moment for chips: ${perCent(v['tacky'] ?? 0)} of the sealer still grabs, and lets go as the milk paint shrinks. It lasts ${since(v, 'laidAt', 'closesAt')} more.`,
    remedy: '',
  }),
  'section-large': (v, units) => ({
    title: 'Work in sections.',
    text: `Before the glue skins over, one brush lays about ${area(v['largest'] ?? 0, units)}; the panel has ${area(v['area'] ?? 0, units)}.`,
    remedy: `Glue and paint it in ${figures(v['sections'] ?? 0)} sections, each finished before the next is glued.`,
  }),
  'crackle-everywhere': () => ({
    title: 'Crackle over everything.',
    text: 'A whole panel cracked alike looks made, not aged.',
    remedy:
      'Leave the medium out where nothing would have stressed the paint, or lay it heavy at rims and thin in the middle.',
  }),
  'lever-glue': () => ({
    title: 'For larger cracks: more glue first.',
    text: 'With white glue the glue is the stronger lever, then the top coat. With bought crackle medium the schools say the top coat.',
    remedy: '',
  }),
  'lever-top': () => ({
    title: 'For larger cracks: a heavier top coat first.',
    text: 'With crackle medium the top coat is the stronger lever. Some practitioners lay the medium thick instead; both count.',
    remedy: '',
  }),
  'contrast-low': (v) => ({
    title: 'Nobody will see it.',
    text: `The two colours differ by ${figures(v['contrast'] ?? 0)} ΔE; under 3 the eye sees one colour.`,
    remedy: 'Take a lighter, darker or opposite colour for one of them.',
  }),
  'soaks-in': () => ({
    title: 'Milk paint soaks in here.',
    text: 'On a porous base it grips and hardly chips.',
    remedy: 'For chips seal the base first; or force them later with water and warm air kept moving.',
  }),
  'flakes-badly': (v) => ({
    title: 'Most of it will come off.',
    text: `About ${perCent(v['share'] ?? 0)} of this coat would let go.`,
    remedy: 'Less heat and water, a little bonding additive, or a base it can grip.',
  }),
  'poor-hold': () => ({
    title: 'A base that holds paint poorly.',
    text: 'Even chalk-type paint may peel here where it is handled.',
    remedy: 'Scuff it and lay a bonding primer first; keep it off where hands go.',
  }),
  'cold-air': (v, units) => ({
    title: 'Too cold for water-based films.',
    text: `At ${celsius(v['temperature'] ?? 0, units)} they may dry without forming a film.`,
    remedy: 'Warm the room and the piece; the label says from which temperature.',
  }),
  blush: (v, units) => ({
    title: 'It may blush white.',
    text: `The solvent cools the surface to ${celsius(v['surface'] ?? 0, units)}, below the dew point of ${celsius(v['dew'] ?? 0, units)}: water settles in the film.`,
    remedy: 'Wait for drier air, or warm the piece.',
  }),
  'tannin-bleeds': () => ({
    title: 'Tannin will bleed through.',
    text: 'This wood sends brown stain up through water-based paint, for weeks.',
    remedy: 'Two thin coats of shellac or a stain-stopping primer first.',
  }),
  'wax-below': () => ({
    title: 'Wax lies below.',
    text: 'Paint crawls on wax and polish, and comes off where it is touched.',
    remedy: 'Take it off with mineral spirits and tick it in the Piece; or begin with wax.',
  }),
  'fresh-oil-below': () => ({
    title: 'Fresh oil below.',
    text: 'Water-based paint crawls on oil that has not cured; long cured oil needs nothing.',
    remedy: 'Wait some weeks, or wipe it with mineral spirits, and tick it in the Piece.',
  }),
  'unknown-below': () => ({
    title: 'Nobody knows what lies below.',
    text: 'Not everything holds on everything.',
    remedy: 'Try a hand-sized spot: paint it, let it dry, press tape on and pull. Tick it in the Piece.',
  }),
  'fabric-late': () => ({
    title: 'The fabric comes late.',
    text: 'Runny fabric paint gets on the frame. Most paint the cloth before the frame has its last coat.',
    remedy: 'Move it earlier, or tape the frame well.',
  }),
  'transfer-soon': (v) => ({
    title: 'The print rests too short.',
    text: `${duration(v['rest'] ?? 0)} is planned; tissue and prints want a night before they are cut.`,
    remedy: 'Let it lie overnight.',
  }),
  'wash-on-sealed': () => ({
    title: 'A stain needs bare wood.',
    text: 'On paint or a seal it stands in puddles and wipes off.',
    remedy: 'Put it first, on raw wood; on paint take a glaze.',
  }),
  'glaze-unprotected': () => ({
    title: 'The glaze lies bare.',
    text: 'It tones everything down and rubs off where it is touched. Preview it on a board first.',
    remedy: 'Seal over it when it is dry.',
  }),
  'paint-over-wax': () => ({
    title: 'Paint over wax.',
    text: 'It crawls, and comes off where it is touched.',
    remedy: 'Take the wax off with mineral spirits first, or put the wax last.',
  }),
  'clear-over-wax': () => ({
    title: 'Clear coat over wax.',
    text: 'It does not hold on wax.',
    remedy: 'Clear coat first, wax over it; or take the wax off.',
  }),
  'water-over-fresh-oil': (v) => ({
    title: 'Fresh oil below.',
    text: `It was laid ${duration(v['age'] ?? 0)} before; water-based paint may crawl on it.`,
    remedy: 'Wait some days, or wipe it with mineral spirits; long cured oil needs nothing.',
  }),
  'spray-recoat': (v) => ({
    title: 'The spray may lift.',
    text: `Spray enamel takes its next coat within an hour or after a day; this is ${duration(v['age'] ?? 0)} later.`,
    remedy: 'Sooner, or wait for the time on the can.',
  }),
  'milk-old': (v) => ({
    title: 'The mix is too old.',
    text: `It would be ${duration(v['age'] ?? 0)} old and keeps about ${duration(v['life'] ?? 0)} like that. Casein that has turned does not bind.`,
    remedy:
      'Mix fresh, rest it 15 to 20 min; keep what is left in a refrigerator, closed and labelled. Mouldy: discard.',
  }),
  'wax-thick': (v, units) => ({
    title: 'Too thick to harden.',
    text: `Over ${um(v['most'] ?? 0, units)} it stays tacky for good.`,
    remedy: 'Rub it on thin and wipe the excess off.',
  }),
  'lay-flat': () => ({
    title: 'Lay it flat.',
    text: 'On a standing face it runs before it can work.',
    remedy: 'Turn this face up and do one face at a time.',
  }),
  'jelly-unsealed': () => ({
    title: 'Jelly on an unsealed base.',
    text: 'It soaks in, and nothing will hold there later.',
    remedy: 'Clear coat the whole face first and let it dry.',
  }),
  'jelly-judge': () => ({
    title: 'Judge dryness where there is no jelly.',
    text: 'Over jelly the paint looks wet for ever. First a dry lint-free cloth, then grease-cutting wipes.',
    remedy: '',
  }),
  'jelly-left': () => ({
    title: 'The jelly is never wiped off.',
    text: 'Paint over it stays loose, and no seal holds on it.',
    remedy: 'Add a wipe when the paint is dry.',
  }),
  'jelly-not-degreased': () => ({
    title: 'Degrease before you seal.',
    text: 'What the cloth leaves keeps the seal from holding.',
    remedy: 'Wipe again with grease-cutting wipes.',
  }),
  'salt-loose': () => ({
    title: 'The salt lies loose.',
    text: 'The paint has set, or is too thin for the grain: no craters.',
    remedy: 'Strew it into really wet, thick paint, mist it and leave it flat.',
  }),
  'salt-left': () => ({
    title: 'The salt is never scraped off.',
    text: 'Craters show only when the grains are out.',
    remedy: 'Add a scrape when it is dry, next day.',
  }),
  'salt-pale': () => ({
    title: 'The craters look pale.',
    text: 'Where the grains sat the paint is dull and lighter than it will be.',
    remedy: 'Judge it when it is waxed or sealed, or mist it to see.',
  }),
  'wax-left': () => ({
    title: 'The wax is never scraped.',
    text: 'It may stay under many coats; nothing shows until it comes out.',
    remedy: 'Scrape last. The map remembers where the wax lies.',
  }),
  'blade-hard': (v) => ({
    title: 'Hard by then.',
    text: `The paint cuts at ${perCent(Math.min(1, v['effort'] ?? 0))} of its full hardness; easy is below 70 %.`,
    remedy: 'Cut about two hours after painting; else a fresh blade, 80 grit, or warm water if it dissolves.',
  }),
  'cloth-in-vain': () => ({
    title: 'A damp cloth does nothing here.',
    text: 'This paint does not dissolve again, or has been dry too long.',
    remedy: 'Wipe within minutes, take chalk, clay or milk paint, or sand instead.',
  }),
  'bleach-dried': (v) => ({
    title: 'The bleach dries before that.',
    text: `It stays wet about ${duration(v['wetFor'] ?? 0)} in this air; dry it does nothing more.`,
    remedy: 'Five minutes are usual; half dry and half wet gives variety.',
  }),
  'bare-shows': (v) => ({
    title: 'Bare board will show.',
    text: `On about ${perCent(v['share'] ?? 0)} of the panel, pale and raw.`,
    remedy: 'A dark or wood-like barrier below, finer grit, or dry-brush the colour back.',
  }),
  'barrier-holds': () => ({
    title: 'The barrier holds.',
    text: 'This grit does not get through the hard coat on top.',
    remedy: 'That is what barriers are for; coarser than 100 goes through.',
  }),
  'nothing-comes-off': () => ({
    title: 'Nothing comes off.',
    text: 'The paint is too hard for this grit and so few passes.',
    remedy: 'Coarser grit, more passes, or sooner after painting.',
  }),
  scorches: (v, units) => ({
    title: 'Keep it moving.',
    text: `Held on one place that long the surface could pass ${celsius(v['surface'] ?? 0, units)}; wet paint blisters from about ${celsius(368.15, units)}, wood and paint scorch from about ${celsius(423.15, units)}. Real tools run hotter than this estimate.`,
    remedy: 'A hairdryer, more distance, or less heat and more passes. Burnt: scrape and patch.',
  }),
  'dark-wax-bare': () => ({
    title: 'Dark wax on bare paint.',
    text: 'Most put clear wax or a clear coat below, so that it can be wiped back. Some rub it straight on distressed milk paint, or over white wax.',
    remedy: 'A clear wax or clear coat first, unless you want it to stain.',
  }),
  'dark-wax-much': (v) => ({
    title: 'Much dark wax.',
    text: `${perCent(v['share'] ?? 0)} of the surface; a natural style keeps to about 15 %. Some wax a whole crackled piece over a barrier.`,
    remedy: 'Only recesses and edges, faded out with the empty brush.',
  }),
  'wax-on-wet-dark': () => ({
    title: 'Wax on wet dark wax.',
    text: 'They mix to an odd colour.',
    remedy: 'Let the dark wax dry first; or clear first, then dark.',
  }),
  'buff-early': (v) => ({
    title: 'Too early to buff.',
    text: `It is ready ${duration(v['ready'] ?? 0)} after it is rubbed on; now the cloth drags it.`,
    remedy: 'Wait 20 to 30 min.',
  }),
  'buff-late': () => ({
    title: 'Late to buff.',
    text: 'Left overnight it dries matte; a buff next day still brings some sheen.',
    remedy: 'For satin buff after 20 to 30 min.',
  }),
  'use-unsealed': (v) => ({
    title: 'Nothing seals it.',
    text: 'For what it has to stand it needs a seal. Some leave pieces raw, for looking at.',
    remedy: `${figures(v['coats'] ?? 2)} clear coats, thin.`,
  }),
  'use-wax-only': (v) => ({
    title: 'A thin seal for this use.',
    text: `It has ${figures(v['has'] ?? 0)} clear coats; tops that are wiped or take hot cups usually get ${figures(v['coats'] ?? 5)}, and a heat-resistant one for cups.`,
    remedy: 'More clear coats; two of wax are for legs and sides.',
  }),
  'ground-rough': () => ({
    title: 'The ground is not smoothed.',
    text: 'Brush marks and crumbs of the ground show through the paint, and cannot be sanded out of it later.',
    remedy: 'Lightly with 400 grit, until it is smooth to the hand; its texture stays.',
  }),
  'dust-left': () => ({
    title: 'Dust lies under the seal.',
    text: 'What sanding leaves is sealed in: the surface comes out rough and dull.',
    remedy: 'Wipe it dry, or with a barely damp cloth, before you seal.',
  }),
  'seal-thick': (v, units) => ({
    title: 'Clear coat laid thick.',
    text: `Thick it yellows and runs; ${um(v['usual'] ?? 0, units)} is usual.`,
    remedy: 'Several thin coats; lay off with a feather-light last pass.',
  }),
  'heat-on-solvent': () => ({
    title: 'No hot air over solvent films.',
    text: 'Lacquer, shellac, spray and oil hold solvent that can burn, and nothing here can compute what is trapped under paint.',
    remedy: "Wait for the product label's full dry time, or seal with a water-based coat instead.",
  }),
  'heat-on-grease': () => ({
    title: 'No hot air near jelly or wax.',
    text: 'Residue melts, smokes and can catch fire.',
    remedy: 'Wipe and degrease first, or leave the heat out.',
  }),
  'heat-on-bleach': () => ({
    title: 'No hot air on wet bleach.',
    text: 'It gives off gas.',
    remedy: 'Rinse, and let it dry by itself.',
  }),
  'heat-on-old-paint': () => ({
    title: 'No hot air on unknown old paint.',
    text: 'It may hold lead; heat makes fumes of it.',
    remedy: 'Test it first; local rules and licensed people decide.',
  }),
  'sand-old-paint': () => ({
    title: 'Do not sand or scrape unknown paint dry.',
    text: 'It may hold lead; the dust is poisonous.',
    remedy: 'Test it first; local rules and licensed people decide.',
  }),
  'bleach-on-casein': () => ({
    title: 'No bleach on casein or hide glue.',
    text: 'It attacks them and can give off harmful gas.',
    remedy: 'Soften these with warm water instead.',
  }),
  'bleach-after-alcohol': () => ({
    title: 'No bleach after alcohol.',
    text: 'Shellac and spirits must not meet it.',
    remedy: 'Rinse and let dry fully; better take another way.',
  }),
};

/** @param units - how lengths and temperatures are shown */
export const findingWords = (finding: Finding, units: UnitSystem): FindingWords =>
  FINDING_WORDS[finding.code](finding.values, units);
