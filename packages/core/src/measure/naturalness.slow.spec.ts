import { forecastOf } from '../testing/forecasts';
import { wearByUse } from '../maps';
import { evenMap, type Distress, type PanelPlan } from '../plan';
import { chanceFrom } from '../testing/chance';
import { playedFace } from '../testing/faces';
import { after, coat, distress, FIRST, overMedium, planOf, seal, when } from '../testing/plans';
import { marksOf, naturalness, type Naturalness, type SurfaceMarks } from './naturalness';

const COLUMNS = 240;
const ROWS = 160;

/** Marks of a panel 480 × 320 mm with round patches at places [pixels]. */
function patched(places: readonly (readonly [number, number, number])[]): SurfaceMarks {
  const gone = new Uint8Array(COLUMNS * ROWS);
  for (const [x, y, r] of places) {
    for (let row = 0; row < ROWS; row++) {
      for (let column = 0; column < COLUMNS; column++) {
        if (Math.hypot(column - x, row - y) < r) gone[row * COLUMNS + column] = 1;
      }
    }
  }
  return {
    columns: COLUMNS,
    rows: ROWS,
    pitchMm: 2,
    gone,
    cracked: new Uint8Array(COLUMNS * ROWS),
    outside: null,
    darkWax: 0,
  };
}

function read(plan: PanelPlan): Naturalness {
  const { result, panel } = playedFace(plan, 'whole', 300);
  return naturalness(marksOf(result.scene, panel));
}

const sanded = (map?: Distress['map']): PanelPlan =>
  planOf([
    coat('a', 'chalk', 90, FIRST, { colour: '#2f3d46' }),
    coat('b', 'chalk', 60, when('through-dry', 3600), { colour: '#ddd6c4' }),
    { ...distress('s', 'sand', after(43200), { grit: 120, rounds: 16 }), ...(map ? { map } : {}) },
  ]);

describe('naturalness', () => {
  it('tells a lattice of patches from places of chance, as Clark and Evans have it', () => {
    const lattice: [number, number, number][] = [];
    for (let x = 15; x < COLUMNS; x += 30) for (let y = 13; y < ROWS; y += 26) lattice.push([x, y, 4]);
    const chance = chanceFrom(7);
    const random = lattice.map((): [number, number, number] => [chance() * COLUMNS, chance() * ROWS, 4]);
    const regular = naturalness(patched(lattice));
    const scattered = naturalness(patched(random));
    // A square lattice has R = 2 far from its edge; chance has 1.
    expect(regular.wear!.spacingRatio!).toBeGreaterThan(1.6);
    expect(regular.wear!.spacingRatio!).toBeLessThan(2.1);
    expect(scattered.wear!.spacingRatio!).toBeGreaterThan(0.75);
    expect(scattered.wear!.spacingRatio!).toBeLessThan(1.3);
    expect(regular.codes).toContain('wear-regular');
    expect(scattered.codes).not.toContain('wear-regular');
  });

  it('scores a regular grid of wear clearly worse than caused wear', () => {
    const lattice: [number, number, number][] = [];
    for (let x = 12; x < COLUMNS; x += 24) for (let y = 12; y < ROWS; y += 24) lattice.push([x, y, 5]);
    const size = { width: 0.6, height: 0.4 };
    const handled = wearByUse(evenMap(0.6, 0.4, 0), 'handled', [], size, 5);
    const caused = read(sanded(wearByUse(handled, 'knocked', [], size, 6)));
    expect(caused.wear!.share).toBeGreaterThan(0.01);
    expect(naturalness(patched(lattice)).score).toBeLessThan(0.5 * caused.score);
    expect(caused.codes).toEqual(['natural']);
  });

  it('flags a crackle over the whole panel, and not one on a part of it', () => {
    const whole = read(overMedium(150, 170));
    expect(whole.codes).toContain('crackle-everywhere');
    const marks = patched([]);
    const cracked = new Uint8Array(COLUMNS * ROWS);
    for (let row = 0; row < ROWS; row++)
      for (let column = 0; column < COLUMNS / 3; column++)
        if ((column + row) % 9 === 0) cracked[row * COLUMNS + column] = 1;
    const part = naturalness({ ...marks, cracked });
    expect(part.crackle!.share).toBeLessThan(0.5);
    expect(part.codes).not.toContain('crackle-everywhere');
    expect(part.score).toBeGreaterThan(whole.score);
  });

  it('warns of more than about fifteen per cent of dark wax (common practice)', () => {
    const waxed = (share: number): PanelPlan =>
      planOf([
        coat('a', 'chalk', 90, FIRST, { colour: '#ddd6c4' }),
        seal('c', 'clearWax', 12, when('through-dry'), { buffAfter: 1500 }),
        seal('w', 'darkWax', 12, when('through-dry'), { share }),
      ]);
    expect(read(waxed(0.08)).codes).not.toContain('dark-wax');
    expect(read(waxed(0.6)).codes).toContain('dark-wax');
  });

  it('has nothing to judge on a plain coat', () => {
    const plain = read(planOf([coat('a', 'chalk', 90, FIRST, { colour: '#ddd6c4' })]));
    expect([plain.wear, plain.crackle, plain.codes]).toEqual([null, null, ['plain']]);
    expect(forecastOf(planOf([coat('a', 'chalk', 90, FIRST)])).whole.wornShare).toBe(0);
  });
});
