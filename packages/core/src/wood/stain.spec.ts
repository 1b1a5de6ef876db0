import { InputError } from '../errors';
import { forecastOf } from '../testing/forecasts';
import { after, coat, FIRST, planOf, room } from '../testing/plans';
import { type Companion, type PanelPlan } from '../plan';
import { stainDarkness, type Wood, WOODS } from './stain';

// Common practice: it darkens as it sits, pine least, oak and walnut most.
describe('a reactive stain', () => {
  it('turns woods of much tannin darkest, pine least', () => {
    const dark = WOODS.map((wood) => stainDarkness(wood, 8 * 3600));
    expect([...dark].sort((a, b) => b - a)).toEqual(dark);
    expect(dark.at(-1)).toBeLessThan(0.25 * dark[0]!);
  });

  it('darkens as it sits, most of it within the first hours, and never past iron black', () => {
    const sits = [0, 600, 3600, 4 * 3600, 24 * 3600].map((s) => stainDarkness('oak', s));
    expect(sits[0]).toBe(0);
    expect([...sits].sort((a, b) => a - b)).toEqual(sits);
    expect(sits[3]! / sits[4]!).toBeGreaterThan(0.9);
    expect(sits[4]).toBeLessThan(1);
    expect(() => stainDarkness('oak', -1)).toThrowError(InputError, /wood\.sits/);
  });

  it('is seen where wood is bare, and not on what is sealed', () => {
    const stain = (wood: Wood): Companion => ({
      id: 'i',
      kind: 'companion',
      task: 'reactive-stain',
      hands: 900,
      rest: 14_400,
      wood,
      start: FIRST,
    });
    const thin = coat('a', 'chalk', 20, after(3600), { cover: { style: 'dry-brushed', share: 0.3 } });
    const ground = (plan: PanelPlan): string => forecastOf(plan).scene.layers[0]!.colour!;
    const raw = (wood: Wood): string => ground(planOf([stain(wood), thin], room(), 'raw-hardwood'));
    const red = (hex: string): number => parseInt(hex.slice(1, 3), 16);
    expect(red(raw('oak'))).toBeLessThan(red(raw('pine')) - 40);
    expect(ground(planOf([stain('oak'), thin], room(), 'sealed'))).toBe(
      ground(planOf([thin], room(), 'sealed')),
    );
  });
});
