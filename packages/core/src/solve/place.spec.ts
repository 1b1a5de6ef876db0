import { onTables } from '../basis';
import { forecastOf } from '../testing/forecasts';
import { mapAt, type PanelPlan, type Step } from '../plan';
import { after, coat, distress, FIRST, overGlue, planOf, resist, when, wipe } from '../testing/plans';
import { type Where } from '../maps';
import { fitPlace, type PlaceFit, placeValues } from './place';

const sanded = planOf([
  coat('a', 'chalk', 90, FIRST, { colour: '#2f3d46' }),
  coat('b', 'chalk', 80, when('through-dry', 3600), { colour: '#ddd6c4' }),
  distress('s', 'sand', after(43200), { grit: 120, rounds: 11 }),
]);
const jelly = planOf([
  coat('a', 'chalk', 90, FIRST, { colour: '#7b4427' }),
  coat('v', 'polyW', 80, when('through-dry')),
  resist('j', 'jelly', 0.1, when('through-dry')),
  coat('b', 'chalk', 90, after(300), { colour: '#cfd6cf', passes: 1 }),
  wipe('w', when('through-dry', 20000)),
]);
const PULL: Where = { left: 0.45, top: 0.15, width: 0.12, height: 0.12 };

const fitted = (plan: PanelPlan, { stepId, map, changes }: PlaceFit): PanelPlan => ({
  ...plan,
  steps: plan.steps.map((step) => (step.id === stepId ? ({ ...step, ...changes, map } as Step) : step)),
});

describe('a place that shall look otherwise', () => {
  it('is worked until it is as worn as wished, and nothing else is', () => {
    const fit = fitPlace(onTables(sanded), PULL, 'worn', 0.6)!;
    expect(fit.stepId).toBe('s');
    expect(fit.met).toBeTrue();
    const after = fitted(sanded, fit);
    expect(placeValues(onTables(after), PULL).worn!).toBeCloseTo(0.6, 1);
    expect(mapAt(fit.map, 0.1, 0.9)).toBe(1);
    expect(forecastOf(after).zones.edge.wornShare).toBeCloseTo(forecastOf(sanded).zones.edge.wornShare, 2);
  });

  it('can be a zone: edges kept whole while the field wears', () => {
    const fit = fitPlace(onTables(sanded), 'edge', 'worn', 0.02)!;
    const { zones } = forecastOf(fitted(sanded, fit));
    expect(zones.edge.wornShare).toBeLessThan(0.07);
    expect(zones.field.wornShare).toBeGreaterThan(2 * zones.edge.wornShare);
  });

  it('gets wax or jelly where it shall come off', () => {
    const fit = fitPlace(onTables(jelly), PULL, 'chips', 0.7)!;
    expect(fit).toEqual(jasmine.objectContaining({ stepId: 'j', met: true }));
    expect(placeValues(onTables(fitted(jelly, fit)), PULL).chips!).toBeCloseTo(0.7, 1);
    // Elsewhere as much as before: the map counts from a denser smear.
    expect(forecastOf(fitted(jelly, fit)).whole.chippedShare).toBeLessThan(0.17);
  });

  it('gets a thicker coat for cracks wider apart', () => {
    const plan = overGlue(130, 120, 120);
    const now = placeValues(onTables(plan), PULL).spacing!;
    const fit = fitPlace(onTables(plan), PULL, 'spacing', 1.5 * now)!;
    expect(fit.met).toBeTrue();
    expect(mapAt(fit.map, 0.85, 0.52)).toBeGreaterThan(1);
  });

  it('says where nothing can be done, or how near it comes', () => {
    expect(fitPlace(onTables(planOf([coat('a', 'chalk', 90, FIRST)])), PULL, 'worn', 0.5)).toBeNull();
    const far = fitPlace(onTables(overGlue(130, 120, 120)), PULL, 'spacing', 0.09)!;
    expect(far.met).toBeFalse();
    expect(far.value).toBeGreaterThan(placeValues(onTables(overGlue(130, 120, 120)), PULL).spacing!);
  });
});
