import { parse } from 'csv-parse/sync';
import { logCsv } from './logFile';
import { shelfCsv } from './shelfFile';

const read = (text: string): Record<string, string>[] => parse(text, { columns: true });

describe('the shelf as CSV', () => {
  it('is read back by another reader: every kind of thing with what is known of it', () => {
    const rows = read(
      shelfCsv([
        {
          kind: 'tin',
          id: 't1',
          name: 'Lamp glow, "old", half',
          medium: 'flat-acrylic',
          colour: '#e0b060',
          amountMl: 412.5,
          pricePerL: 18,
          openedAt: '2026-04-02T09:00:00.000Z',
          useBy: '2027-05-14',
          restockMl: 100,
          prices: [
            { on: '2026-04-02', pricePerL: 16.5 },
            { on: '2026-08-01', pricePerL: 18 },
          ],
        },
        {
          kind: 'pot',
          id: 'p1',
          name: '=Rest of the wash',
          medium: 'milk-paint',
          colour: null,
          amountMl: 60,
          dilution: 1.5,
          mixedAt: '2026-05-01T10:00:00.000Z',
          keptCold: true,
          body: null,
        },
        { kind: 'abrasive', id: 'a1', name: 'Fine paper', grit: 220, sheets: 7 },
      ]),
    );
    expect(rows[0]).toEqual(
      jasmine.objectContaining({
        kind: 'tin',
        name: 'Lamp glow, "old", half',
        colour: '#e0b060',
        left_ml: '412.5',
        price_per_l: '18',
        opened: '2026-04-02T09:00:00.000Z',
        restock_ml: '100',
        use_by: '2027-05-14',
        prices: '2026-04-02 16.5; 2026-08-01 18',
        mixed: '',
        sheets: '',
        id: 't1',
      }),
    );
    // What a spreadsheet would take for a formula is quoted for it.
    expect(rows[1]).toEqual(
      jasmine.objectContaining({
        kind: 'pot',
        name: "'=Rest of the wash",
        left_ml: '60',
        water_per_l: '1.5',
        kept_cold: 'yes',
        opened: '',
      }),
    );
    expect(rows[1]!['what']).toMatch(/milk/i);
    expect(rows[2]).toEqual(
      jasmine.objectContaining({ kind: 'abrasive', what: '220 grit', sheets: '7', left_ml: '' }),
    );
  });

  it('of nothing has its heads all the same', () => {
    expect(shelfCsv([])).toMatch(/^kind,name,what,colour,left_ml,/);
    expect(read(shelfCsv([]))).toEqual([]);
  });
});

describe('the log as CSV', () => {
  it('is read back by another reader, with what quotes, breaks and commas are in it', () => {
    const [row] = read(
      logCsv([
        {
          runId: 'r1',
          name: 'Tide clock, "case"',
          piece: 'Clock',
          parts: ['front', 'left, side'],
          begunAt: '2026-03-02T08:00:00.000Z',
          finishedAt: null,
          afterwards: false,
          schools: ['wet-glue', 'a way of the future'],
          media: ['white-glue'],
          colours: [
            { name: 'Kelp', hex: '#2f4d3a' },
            { name: '', hex: '#e0b060' },
          ],
          spacingMm: 4.25,
          openingMm: null,
          chipped: 0.12,
          worn: null,
          verdict: 'good',
          next: 'thinner,\nand sooner',
          temperatureC: 19.5,
          humidity: 0.52,
          hours: 3,
          cost: null,
          price: 120,
          forWhom: '@harbour',
          fate: 'sold',
          photos: [{ hash: 'f'.repeat(64), when: 'dry' }],
        },
      ]),
    );
    expect(row).toEqual(
      jasmine.objectContaining({
        name: 'Tide clock, "case"',
        parts: 'front; left, side',
        finished: '',
        colours: 'Kelp #2f4d3a; #e0b060',
        spacing_mm: '4.25',
        opening_mm: '',
        chipped: '0.12',
        next_time: 'thinner,\nand sooner',
        humidity: '0.52',
        price: '120',
        cost: '',
        for_whom: "'@harbour",
        photographs: '1',
        run: 'r1',
      }),
    );
    expect(row!['way']).toMatch(/^.+; a way of the future$/);
    expect(row!['way']).not.toContain('wet-glue;');
  });
});
