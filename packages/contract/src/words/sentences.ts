import {
  type FigureKey,
  type Finding,
  type FindingCode,
  type Knob,
  type Mover,
  type PrepHint,
  type PrepReason,
  type PrepStep,
} from '@zaffet/core';
import { duration, figures, perCent, um } from './format';

/** A finding in words: what it is, why, and what to do. */
export interface FindingWords {
  readonly title: string;
  readonly text: string;
  readonly remedy: string;
}

type Values = Finding['values'];
const since = (v: Values, from: string, to: string): string =>
  duration(Math.abs((v[to] ?? 0) - (v[from] ?? 0)));

const FINDING_WORDS: Readonly<Record<FindingCode, (v: Values) => FindingWords>> = {
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
    remedy: 'Paint sooner, lay the glue thicker, or work a smaller section.',
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
  'too-thin': (v) => ({
    title: 'Very thin top coat.',
    text: `${um(v['thickness'] ?? 0)} when dry gives hairlines at best.`,
    remedy: 'Load the brush more.',
  }),
  'never-dry': (v) => ({
    title: 'Stays soft in this air.',
    text: `At ${perCent(v['humidity'] ?? 0)} humidity this coat keeps too much water to become touch-dry.`,
    remedy: 'Dry or warm the room first.',
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
    remedy: 'Change the air, or start this coat after a time instead.',
  }),
};

export const findingWords = (finding: Finding): FindingWords => FINDING_WORDS[finding.code](finding.values);

/** How far a figure moves, with its unit. */
export function figureText(key: FigureKey, value: number): { number: string; unit: string } {
  switch (key) {
    case 'spacing':
    case 'opening':
      return { number: figures(value * 1000), unit: 'mm' };
    case 'openArea':
    case 'strength':
      return { number: figures(value * 100), unit: '%' };
    case 'firstCracks': {
      const text = duration(value);
      const cut = text.lastIndexOf(' ');
      return /^\d+ h \d/.test(text)
        ? { number: text, unit: '' }
        : { number: text.slice(0, cut), unit: text.slice(cut + 1) };
    }
  }
}

function knobText(knob: Knob, layerName: (coatId: string) => string): string {
  const coat = knob.coatId === null ? '' : layerName(knob.coatId);
  switch (knob.kind) {
    case 'thickness':
      return `${knob.by < 0 ? '−' : '+'}${um(Math.abs(knob.by))} ${coat}`;
    case 'moment':
      return `${duration(knob.by)} later`;
    case 'temperature':
      return `${figures(knob.by)} °C warmer`;
    case 'humidity':
      return `${figures(knob.by * 100)} points damper`;
    case 'passes':
      return knob.by > 0 ? 'one more brush pass' : 'one brush pass less';
    case 'dilution':
      return `${perCent(knob.by)} more water in ${coat}`;
  }
}

/** What moves a figure, as a clause: "+20 µm glue: +0.4 mm". */
export function moverText(key: FigureKey, mover: Mover, layerName: (coatId: string) => string): string {
  const knob = knobText(mover.knob, layerName);
  if (mover.change === null) return `${knob}: nothing cracks`;
  const { number, unit } = figureText(key, Math.abs(mover.change));
  const points = key === 'openArea' || key === 'strength' ? ' points' : unit === '' ? '' : ` ${unit}`;
  return `${knob}: ${mover.change < 0 ? '−' : '+'}${number}${points}`;
}

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
