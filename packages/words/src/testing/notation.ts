import { type Notation } from '@zaffet/contract';

/** What nothing metric and no hour after noon may be left in. */
export const INCHES_BY_12_HOURS: Notation = { units: 'imperial', clock: '12' };

/** A number in metric units, and a time by 24 hours. */
const OTHERWISE = [
  /\d\s?(?:mm|cm|m|µm|m²|m³|mL|ml|L|g|kg|°C|m\/s|g\/h)(?![\p{L}\d])/gu,
  /(?<![\d:.,-])(?:[01]?\d|2[0-3]):[0-5]\d(?!:?\d)(?!\s?[AP]M)/gu,
];

/** Finds what is not written in inches and ounces, and by 12 hours, each with the words around it. */
export const writtenOtherwise = (text: string): string[] =>
  OTHERWISE.flatMap((pattern) =>
    [...text.matchAll(pattern)].map(({ 0: found, index }) =>
      text.slice(Math.max(0, index - 40), index + found.length + 10).replace(/\s+/g, ' '),
    ),
  );
