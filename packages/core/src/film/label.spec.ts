import { medium, PARAMETERS } from '../media';
import { fromLabel, labelTimes } from './label';

const HOUR = 3600;

describe('label times', () => {
  it('make a medium that dries as its tin says, within what a tin is true to', () => {
    for (const [key, touch, recoat] of [
      ['latex', 1, 4],
      ['polyW', 0.5, 2],
      ['chalk', 0.7, 2],
      ['polyO', 2, 6],
      ['enamelO', 4, 16],
    ] as const) {
      const changes = fromLabel(medium(key), { touch: touch * HOUR, recoat: recoat * HOUR });
      const told = labelTimes({ ...medium(key), ...changes })!;
      expect(told.touch / HOUR / touch)
        .withContext(`${key} touch`)
        .toBeCloseTo(1, 1);
      expect(told.recoat / HOUR / recoat)
        .withContext(`${key} recoat`)
        .toBeCloseTo(1, 1);
      for (const [name, value] of Object.entries(changes)) {
        const { min, max } = PARAMETERS[name as keyof typeof PARAMETERS];
        expect(value).withContext(name).toBeGreaterThanOrEqual(min);
        expect(value).withContext(name).toBeLessThanOrEqual(max);
      }
    }
  });

  it('come as near as they can where no such film exists, and are none for what never dries', () => {
    const told = labelTimes({
      ...medium('latex'),
      ...fromLabel(medium('latex'), { touch: 30, recoat: 10 }),
    })!;
    expect(told.touch).toBeGreaterThan(30);
    expect(told.recoat).toBeGreaterThanOrEqual(told.touch);
    expect(labelTimes(medium('jelly'))).toBeNull();
  });
});
