import { type FigureKey, figureRow, type Knob, type Mover, type Quantity } from '@zaffet/core/readout';
import { type UnitSystem } from '@zaffet/contract';
import { degrees, duration, figures, lengthShown, perCent, type Shown, um } from './format';

const quantityOf = (key: FigureKey | 'layer'): Quantity =>
  key === 'layer' ? 'share' : figureRow(key).quantity;

/** A figure as it is shown, with its unit; `layer` is how much of a layer is seen. */
export function figureText(key: FigureKey | 'layer', value: number, units: UnitSystem): Shown {
  switch (quantityOf(key)) {
    case 'length':
      return lengthShown(value, units);
    case 'share':
      return { number: figures(value * 100), unit: '%' };
    case 'gloss':
      return { number: figures(value), unit: 'GU' };
    case 'difference':
      return { number: figures(value), unit: 'ΔE' };
    case 'time': {
      const text = duration(value);
      const cut = text.lastIndexOf(' ');
      return /^\d+ h \d/.test(text)
        ? { number: text, unit: '' }
        : { number: text.slice(0, cut), unit: text.slice(cut + 1) };
    }
  }
}

/** A range of a figure: one unit at its end, or one at each number where they differ. */
export function figureRange(key: FigureKey | 'layer', low: number, high: number, units: UnitSystem): string {
  const [from, to] = [low, high].map((value) => figureText(key, value, units));
  const end = `${to!.number} ${to!.unit}`.trim();
  if (from!.number === to!.number && from!.unit === to!.unit) return end;
  return from!.unit === to!.unit
    ? `${from!.number} to ${end}`
    : `${`${from!.number} ${from!.unit}`.trim()} to ${end}`;
}

const signed = (by: number, text: string): string => `${by < 0 ? '−' : '+'}${text}`;

function knobText(knob: Knob, layerName: (stepId: string) => string, units: UnitSystem): string {
  const name = knob.stepId === null ? '' : layerName(knob.stepId);
  const more = knob.by > 0 ? 'more' : 'less';
  const amount = Math.abs(knob.by);
  switch (knob.kind) {
    case 'thickness':
      return `${signed(knob.by, um(amount, units))} ${name}`;
    case 'moment':
      return `${duration(knob.by)} later`;
    case 'temperature':
      return `${degrees(knob.by, units)} warmer`;
    case 'humidity':
      return `${figures(knob.by * 100)} points damper`;
    case 'passes':
      return knob.by > 0 ? 'one more brush pass' : 'one brush pass less';
    case 'dilution':
      return `${perCent(amount)} ${more} water in ${name}`;
    case 'cover':
      return `${figures(amount * 100)} points ${more} covered by ${name}`;
    case 'bonding':
      return `${perCent(amount)} ${more} bonding additive`;
    case 'resist':
      return `${figures(amount * 100)} points ${more} ${name}`;
    case 'rounds':
      return `${figures(amount)} ${knob.by > 0 ? 'more' : 'fewer'} rounds of ${name}`;
    case 'pressure':
      return `${knob.by > 0 ? 'harder' : 'lighter'} hand at ${name}`;
    case 'heat':
      return `${duration(amount)} ${more} of ${name}`;
    case 'rewet':
      return `${um(amount, units)} ${more} water when ${name}`;
    case 'coats':
      return knob.by > 0 ? `one more coat of ${name}` : `one coat less of ${name}`;
  }
}

/** What moves a figure, as a clause: "+20 µm glue: +0.4 mm"; a colour by how far. */
export function moverText(
  key: FigureKey | 'layer' | 'colour',
  mover: Mover,
  layerName: (stepId: string) => string,
  units: UnitSystem,
): string {
  const knob = knobText(mover.knob, layerName, units);
  if (mover.change === null) return `${knob}: nothing of the kind`;
  if (key === 'colour') return `${knob}: ${figures(mover.change)} ΔE away`;
  const { number, unit } = figureText(key, Math.abs(mover.change), units);
  const suffix = quantityOf(key) === 'share' ? ' points' : unit === '' ? '' : ` ${unit}`;
  return `${knob}: ${signed(mover.change, number)}${suffix}`;
}
