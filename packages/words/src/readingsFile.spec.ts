import { type Compared } from '@zaffet/core/calibrate';
import { parse } from 'csv-parse/sync';
import { readingsCsv } from './readingsFile';

const told = (value: number | null): Compared['before'] => ({
  value,
  low: value === null ? null : value / 2,
  high: value === null ? null : value * 2,
});
const one = (cell: string, reading: Compared['reading'], read: number, before: number | null): Compared => ({
  cell,
  board: 'r',
  reading,
  read,
  before: told(before),
  after: told(read),
  weight: 0.5,
});

describe('readings as CSV', () => {
  it('are read back by another reader: lengths in mm, times in seconds, names as they are', () => {
    const text = readingsCsv(
      [
        { id: 'r a', plan: 'Board, "white"', part: '=Cell 1' },
        { id: 'r b', plan: 'Board', part: 'Cell 2' },
      ],
      [one('r a', 'spacing', 0.0061, 0.0055), one('r a', 'first', 73, null), one('r b', 'chips', 0.25, 0.2)],
      ['r b'],
    );
    const rows = parse(text, { columns: true }) as Record<string, string>[];
    expect(rows.length).toBe(3);
    expect(rows[0]).toEqual({
      board: 'Board, "white"',
      // What a spreadsheet would take for a formula is quoted for it.
      cell: "'=Cell 1",
      reading: 'spacing',
      unit: 'mm',
      read: '6.1',
      tables: '5.5',
      tables_low: '2.75',
      tables_high: '11',
      learned: '6.1',
      learned_low: '3.05',
      learned_high: '12.2',
      weight: '0.5',
      counts: 'yes',
    });
    expect([rows[1]!['unit'], rows[1]!['read'], rows[1]!['tables']]).toEqual(['s', '73', '']);
    expect([rows[2]!['unit'], rows[2]!['read'], rows[2]!['counts']]).toEqual(['share', '0.25', 'no']);
  });
});
