import { type UnitSystem } from '@zaffet/contract';
import { type Spooned } from '@zaffet/core/quantity';
import {
  kelvinToCelsius,
  metresToMm,
  metresToUm,
  SECONDS_PER_HOUR,
  SECONDS_PER_MINUTE,
  secondsToMinutes,
} from '@zaffet/core/units';

/** Three figures at most, no more digits than a painter can use. */
export function figures(value: number): string {
  const size = Math.abs(value);
  if (size === 0) return '0';
  if (size >= 100) return String(Math.round(value));
  const digits = size >= 10 ? 0 : size >= 1 ? 1 : size >= 0.1 ? 2 : 3;
  const text = value.toFixed(digits);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

/** A number as it is shown with its unit. */
export interface Shown {
  readonly number: string;
  readonly unit: string;
}

/** One inch and one mil in metres, exact; a US fluid ounce and square foot in SI, exact by definition. */
const INCH = 0.0254;
const MIL = INCH / 1000;
const FLUID_OUNCE = 29.5735295625e-6;
/** An avoirdupois ounce in kg, exact. */
const OUNCE = 0.028349523125;
export const SQUARE_FOOT = 0.09290304;

/** Factor and unit from the number a plan file holds to the number shown, by the file's unit. */
export const DISPLAY: Readonly<
  Record<UnitSystem, Readonly<Record<string, { unit: string; factor: number; offset: number }>>>
> = {
  metric: {},
  imperial: {
    µm: { unit: 'mil', factor: 1 / 25.4, offset: 0 },
    mm: { unit: 'in', factor: 1 / 25.4, offset: 0 },
    '°C': { unit: '°F', factor: 1.8, offset: 32 },
    m: { unit: 'ft', factor: 1 / 0.3048, offset: 0 },
    'm/s': { unit: 'ft/s', factor: 1 / 0.3048, offset: 0 },
    mL: { unit: 'fl oz', factor: 1e-6 / FLUID_OUNCE, offset: 0 },
    'm³': { unit: 'cu ft', factor: 1 / 0.3048 ** 3, offset: 0 },
    'g/h': { unit: 'oz/h', factor: 1e-3 / OUNCE, offset: 0 },
  },
};

const SIXTEENTHS = 16;

/** Inches as a rule reads them: "17 3/4" from an inch on, decimals below. */
export function inches(value: number): string {
  if (Math.abs(value) < 1) return figures(value);
  const all = Math.round(value * SIXTEENTHS);
  const whole = Math.trunc(all / SIXTEENTHS);
  let [over, under] = [Math.abs(all % SIXTEENTHS), SIXTEENTHS];
  if (over === 0) return String(whole);
  while (over % 2 === 0) [over, under] = [over / 2, under / 2];
  return `${whole} ${over}/${under}`;
}

/** Reads inches as they are typed: 17.75, 17 3/4, 3/4. @returns NaN where it is none */
export function parseInches(text: string): number {
  const match = /^(\d*\.?\d+)?(?:(?:^|\s+)(\d+)\/([1-9]\d*))?$/.exec(text.trim());
  if (match?.[0] === undefined || match[0] === '') return NaN;
  const [, whole = '0', over = '0', under = '1'] = match;
  return Number(whole) + Number(over) / Number(under);
}

/** What prices are for: so many litres, by that name. */
export const PRICE_VOLUMES: Readonly<Record<UnitSystem, { readonly name: string; readonly litres: number }>> =
  {
    metric: { name: 'litre', litres: 1 },
    // A US quart, exact.
    imperial: { name: 'quart', litres: 0.946352946 },
  };

/** A length [m] on the scale of cracks and panels. */
export const lengthShown = (metres: number, units: UnitSystem): Shown =>
  units === 'imperial'
    ? { number: inches(metres / INCH), unit: 'in' }
    : { number: figures(metresToMm(metres)), unit: 'mm' };

/** A film thickness [m]. */
export const thicknessShown = (metres: number, units: UnitSystem): Shown =>
  units === 'imperial'
    ? { number: figures(metres / MIL), unit: 'mil' }
    : {
        number:
          metresToUm(metres) >= 10 ? String(Math.round(metresToUm(metres))) : figures(metresToUm(metres)),
        unit: 'µm',
      };

/** A volume [m³]. */
export const volumeShown = (cubicMetres: number, units: UnitSystem): Shown => {
  if (units === 'imperial') return { number: figures(cubicMetres / FLUID_OUNCE), unit: 'fl oz' };
  return cubicMetres >= 1e-3
    ? { number: figures(cubicMetres * 1e3), unit: 'L' }
    : { number: figures(cubicMetres * 1e6), unit: 'mL' };
};

/** A mass [kg]. */
export const massShown = (kilograms: number, units: UnitSystem): Shown =>
  units === 'imperial'
    ? { number: figures(kilograms / OUNCE), unit: 'oz' }
    : { number: figures(1000 * kilograms), unit: 'g' };

/** An area [m²]. */
export const areaShown = (squareMetres: number, units: UnitSystem): Shown =>
  units === 'imperial'
    ? { number: figures(squareMetres / SQUARE_FOOT), unit: 'sq ft' }
    : { number: figures(squareMetres), unit: 'm²' };

/** A spread rate [m²/m³]. */
export const spreadShown = (rate: number, units: UnitSystem): Shown =>
  units === 'imperial'
    ? { number: figures((rate * 3.785411784e-3) / SQUARE_FOOT), unit: 'sq ft/gal' }
    : { number: figures(rate / 1000), unit: 'm²/L' };

const joined = ({ number, unit }: Shown): string => `${number} ${unit}`;
export const mm = (metres: number, units: UnitSystem): string => joined(lengthShown(metres, units));
export const um = (metres: number, units: UnitSystem): string => joined(thicknessShown(metres, units));
export const volume = (cubicMetres: number, units: UnitSystem): string =>
  joined(volumeShown(cubicMetres, units));
export const area = (squareMetres: number, units: UnitSystem): string =>
  joined(areaShown(squareMetres, units));
export const mass = (kilograms: number, units: UnitSystem): string => joined(massShown(kilograms, units));
export const perCent = (share: number): string => `${figures(share * 100)} %`;
/** A temperature [K]. */
export const celsius = (kelvin: number, units: UnitSystem): string =>
  units === 'imperial'
    ? `${figures(kelvinToCelsius(kelvin) * 1.8 + 32)} °F`
    : `${figures(kelvinToCelsius(kelvin))} °C`;
/** A difference of temperatures [K]. */
export const degrees = (kelvin: number, units: UnitSystem): string =>
  units === 'imperial' ? `${figures(kelvin * 1.8)} °F` : `${figures(kelvin)} °C`;

/** A length of time as a person says it: 45 s, 12 min, 1 h 20, 3 days. */
export function duration(seconds: number): string {
  const size = Math.abs(seconds);
  if (size < 90) return `${Math.round(seconds)} s`;
  if (size < SECONDS_PER_HOUR) {
    const minutes = secondsToMinutes(seconds);
    return `${size < 600 ? figures(minutes) : Math.round(minutes)} min`;
  }
  if (size < 48 * SECONDS_PER_HOUR) {
    const total = Math.round(secondsToMinutes(size));
    const rest = total % SECONDS_PER_MINUTE;
    const hours = Math.floor(total / SECONDS_PER_MINUTE);
    return rest === 0 || hours >= 10
      ? `${rest >= 30 && hours >= 10 ? hours + 1 : hours} h`
      : `${hours} h ${String(rest).padStart(2, '0')}`;
  }
  return `${figures(size / (24 * SECONDS_PER_HOUR))} days`;
}

const COUNTED = ['dish', 'spoon', 'teaspoon'] as const;

/** A volume as a hand measures it out: "1 dish, 2 spoons, 1½ teaspoons". */
export function spoonText({ dishes, spoons, teaspoons }: Spooned): string {
  const counts = [dishes, spoons, teaspoons];
  const told = COUNTED.flatMap((word, i) => {
    const count = counts[i]!;
    if (count === 0) return [];
    const whole = Math.floor(count);
    const number = `${whole === 0 ? '' : whole}${count % 1 === 0 ? '' : '½'}`;
    return [`${number} ${count <= 1 ? word : word === 'dish' ? 'dishes' : `${word}s`}`];
  });
  return told.length === 0 ? 'a few drops' : told.join(', ');
}
