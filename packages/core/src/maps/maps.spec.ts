import { evenMap, mapAt, mapMean, rimMap } from '../plan';
import { fillMap, paintMap } from './paint';
import { WEAR_CAUSES, wearByUse } from './use';
import { MAP_ZONES, zoneReach } from './zones';

const SIZE = { width: 0.6, height: 0.4 };
const even = evenMap(SIZE.width, SIZE.height);
const none = evenMap(SIZE.width, SIZE.height, 0);

describe('maps of a panel', () => {
  it('run evenly from rim to middle about a mean of one', () => {
    const map = rimMap(0.6, 0.4, 1.8, 0.05);
    expect(mapMean(map)).toBeCloseTo(1, 2);
    expect(mapAt(map, 0.01, 0.5) / mapAt(map, 0.5, 0.5)).toBeGreaterThan(1.7);
  });

  it('are painted where the brush went, and nowhere else', () => {
    const dabs = [
      { u: 0.2, v: 0.5, radius: 0.02 },
      { u: 0.4, v: 0.5, radius: 0.02 },
    ];
    const map = paintMap(even, dabs, 1.6, SIZE);
    expect(mapAt(map, 0.3, 0.5)).toBeCloseTo(1.6, 6);
    expect(mapAt(map, 0.3, 0.62)).toBe(1);
    expect(mapAt(map, 0.6, 0.5)).toBe(1);
    expect(even.values.every((value) => value === 1)).toBeTrue();
    expect(paintMap(even, dabs, 1, SIZE)).toBe(even);
  });

  it('go back to what they were under the eraser', () => {
    const dabs = [{ u: 0.5, v: 0.5, radius: 0.05 }];
    const back = paintMap(paintMap(even, dabs, 2, SIZE), [{ u: 0.5, v: 0.5, radius: 0.2 }], 1, SIZE);
    expect(back.values.every((value) => Math.abs(value - 1) < 1e-9)).toBeTrue();
  });

  it('are filled by zones that make up the whole panel', () => {
    for (const zone of MAP_ZONES) {
      const map = fillMap(none, zone, 1, SIZE);
      expect(mapMean(map)).withContext(zone).toBeGreaterThan(0.001);
      expect(Math.max(...map.values))
        .withContext(zone)
        .toBeGreaterThan(0.6);
    }
    expect(zoneReach('field', 0.3, 0.2, SIZE) + zoneReach('edges', 0.3, 0.2, SIZE)).toBe(1);
    expect(zoneReach('edges', 0.002, 0.2, SIZE)).toBeCloseTo(1, 6);
    expect(zoneReach('corners', 0.3, 0.002, SIZE)).toBe(0);
  });

  it('are worn by use where the cause works, irregularly, the same from the same seed', () => {
    const map = (cause: (typeof WEAR_CAUSES)[number], seed = 4): ReturnType<typeof wearByUse> =>
      wearByUse(none, cause, [], SIZE, seed);
    for (const cause of WEAR_CAUSES) {
      const worn = map(cause);
      const mean = mapMean(worn);
      expect(mean).withContext(cause).toBeGreaterThan(0.004);
      expect(mean).withContext(cause).toBeLessThan(0.8);
      expect(Math.max(...worn.values))
        .withContext(cause)
        .toBeLessThanOrEqual(2.5);
      expect(map(cause)).toEqual(worn);
      expect(map(cause, 5)).not.toEqual(worn);
    }
    const band = (of: ReturnType<typeof wearByUse>, from: number, to: number): number => {
      const rows = of.values.filter((_, i) => {
        const v = (Math.floor(i / of.columns) + 0.5) / of.rows;
        return v > from && v < to;
      });
      return rows.reduce((sum, value) => sum + value, 0) / rows.length;
    };
    expect(band(map('damp'), 0.8, 1)).toBeGreaterThan(4 * band(map('damp'), 0, 0.3));
    expect(band(map('sun'), 0, 0.2)).toBeGreaterThan(2 * band(map('sun'), 0.8, 1));
    expect(band(map('hung-on'), 0.05, 0.3)).toBeGreaterThan(2 * band(map('hung-on'), 0.7, 1));
  });

  it('are worn round the places that are touched, and keep what was there', () => {
    const there = wearByUse(none, 'handled', [{ u: 0.5, v: 0.25 }], SIZE, 3);
    expect(mapAt(there, 0.5, 0.25)).toBeGreaterThan(10 * mapAt(there, 0.1, 0.9));
    const painted = paintMap(none, [{ u: 0.1, v: 0.9, radius: 0.03 }], 0.8, SIZE);
    expect(
      mapAt(wearByUse(painted, 'handled', [{ u: 0.5, v: 0.25 }], SIZE, 3), 0.1, 0.9),
    ).toBeGreaterThanOrEqual(0.79);
    const wax = wearByUse(none, 'sun', [], SIZE, 3, 1);
    expect(Math.max(...wax.values)).toBeLessThanOrEqual(1);
  });
});
