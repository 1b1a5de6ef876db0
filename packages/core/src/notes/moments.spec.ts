import { type AirSample } from '../air';
import { type PanelPlan } from '../plan';
import { forecastOf } from '../testing/forecasts';
import { after, coat, FIRST, planOf, rewet, room, seal } from '../testing/plans';

/** Notes at the seal of a plan. */
const at = (plan: PanelPlan): string[] =>
  forecastOf(plan)
    .findings.filter(({ stepId }) => stepId === 'seal')
    .map(({ code }) => code);

// The first coat of a seal meets what lies below it, however many follow (common practice).
describe('a seal of several coats', () => {
  const base = coat('base', 'latex', 120, FIRST);
  const sealed = (coats: number, wait: number): PanelPlan =>
    planOf([base, seal('seal', 'polyW', 80, after(wait), { coats })]);

  it('is warned of wet paint below it as one coat is', () => {
    for (const coats of [1, 2, 3]) {
      expect(at(sealed(coats, 300)))
        .withContext(`${coats} coats`)
        .toContain('base-not-dry');
      expect(at(sealed(coats, 48 * 3600))).not.toContain('base-not-dry');
    }
  });

  it('is warned of water that is still in what lies below it', () => {
    const wetted = (coats: number): PanelPlan =>
      planOf([base, rewet('wet', after(48 * 3600), 200), seal('seal', 'polyW', 80, after(60), { coats })]);
    for (const coats of [1, 3]) expect(at(wetted(coats))).toContain('damp-below');
  });

  it('is warned of a cold morning on which its first coat goes on, warm as the day becomes', () => {
    const plan = sealed(2, 48 * 3600);
    const morning = (celsius: number): PanelPlan => {
      const [sample] = plan.air;
      const cold: AirSample = { ...sample!, ...room(celsius), from: 40 * 3600 };
      return { ...plan, air: [sample!, cold, { ...sample!, from: 49 * 3600 }] };
    };
    expect(at(morning(6))).toContain('cold-air');
    expect(at(morning(18))).not.toContain('cold-air');
  });
});
