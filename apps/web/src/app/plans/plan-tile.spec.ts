import { FIGURE_KEYS, type FigureKey } from '@zaffet/core/readout';
import { tileFigures } from './plan-tile';

describe('the figures of a plan in the list', () => {
  const none = Object.fromEntries(FIGURE_KEYS.map((key) => [key, null])) as Record<FigureKey, number | null>;
  const cracked = { ...none, spacing: 0.0062, opening: 0.0008, strength: 0.7 };

  it('name cracks where they are seen, and not where they would be too weak', () => {
    expect(tileFigures(cracked, 'metric')).toBe('crack spacing 6.2 mm, crack opening 0.8 mm');
    expect(tileFigures({ ...cracked, strength: 0.04 }, 'metric')).toBe('no cracks to be seen');
  });

  it('keep what comes off and what is worn through apart, as the readout does', () => {
    expect(tileFigures({ ...none, chips: 0.19, worn: 0.23 }, 'metric')).toBe(
      'no cracks to be seen, comes off 19 %, worn through 23 %',
    );
    expect(tileFigures({ ...cracked, chips: 0.01, worn: 0 }, 'metric')).not.toContain('%');
  });
});
