import { type Compared, type Reading, type Told } from '@zaffet/core/calibrate';
import Papa from 'papaparse';

/** What a reading is told in, and how many of it a unit of the core is. */
const IN: Readonly<Record<Reading, { readonly unit: string; readonly per: number }>> = {
  spacing: { unit: 'mm', per: 1000 },
  opening: { unit: 'mm', per: 1000 },
  first: { unit: 's', per: 1 },
  touchBelow: { unit: 's', per: 1 },
  touchTop: { unit: 's', per: 1 },
  chips: { unit: 'share', per: 1 },
  worn: { unit: 'share', per: 1 },
  under: { unit: 'share', per: 1 },
};

/** A cell, or a part, that was measured. */
export interface NamedCell {
  readonly id: string;
  readonly plan: string;
  readonly part: string;
}

const digits = (value: number): number => Number(value.toPrecision(6));

/**
 * Everything that was measured, beside what is foretold of it, as CSV (RFC 4180): a line a reading. Lengths in mm, times
 * in seconds since the film was laid, chips, wear and what shows of
 * colours below as shares.
 * @param leftOut - cells that do not count, by their ids
 */
export function readingsCsv(
  cells: readonly NamedCell[],
  compared: readonly Compared[],
  leftOut: readonly string[],
): string {
  const rows = cells.flatMap(({ id, plan, part }) =>
    compared
      .filter(({ cell }) => cell === id)
      .map(({ reading, read, before, after, weight }) => {
        const { unit, per } = IN[reading];
        const as = (value: number | null): number | '' => (value === null ? '' : digits(value * per));
        const band = ({ value, low, high }: Told, of: string): Record<string, number | ''> => ({
          [of]: as(value),
          [`${of}_low`]: as(low),
          [`${of}_high`]: as(high),
        });
        return {
          board: plan,
          cell: part,
          reading,
          unit,
          read: as(read),
          ...band(before, 'tables'),
          ...band(after, 'learned'),
          weight: digits(weight),
          counts: leftOut.includes(id) ? 'no' : 'yes',
        };
      }),
  );
  return Papa.unparse(rows, { newline: '\r\n', escapeFormulae: true });
}
