import { coat, distress, FIRST, planOf, when, after } from '../testing/plans';
import { forecastOf } from '../testing/forecasts';
import { restraint, type RestraintCode } from './restraint';

const said = (top: string, rounds: number, base = '#8d8a7c'): RestraintCode[] =>
  restraint(
    forecastOf(
      planOf([
        coat('a', 'chalk', 90, FIRST, { colour: base }),
        coat('b', 'chalk', 80, when('through-dry', 3600), { colour: top }),
        distress('s', 'sand', after(43200), { grit: 120, rounds }),
      ]),
    ),
  );

// Common practice: for sale, restrained and neutral.
describe('restraint', () => {
  it('has nothing to say of a quiet colour, a little worn', () => {
    expect(said('#d9d3c0', 2)).toEqual([]);
  });

  it('names what stands out', () => {
    expect(said('#d9d3c0', 40)).toContain('much-shows');
    expect(said('#ff6a00', 1)).toContain('strong-colour');
    expect(said('#f4efe0', 1, '#16191c')).toContain('strong-contrast');
  });
});
