import { type PanelPlan } from '../plan';
import { after, coat, distress, FIRST, heat, planOf, room, seal, when } from '../testing/plans';
import { HAZARD_CODES, type HazardCode, hazards } from './hazard';

const codes = (plan: PanelPlan): HazardCode[] => hazards(plan).map((hazard) => hazard.code);

// Common practice, no source.
describe('hazards', () => {
  it('follow from the steps and name them', () => {
    const plan = planOf([
      coat('a', 'chalk', 80, FIRST),
      coat('l', 'lacquer', 75, when('through-dry')),
      heat('h', 'gun', 30, after(60)),
      distress('s', 'sand', after(60)),
      distress('b', 'bleach', after(60)),
      distress('k', 'blade', after(60)),
      seal('o', 'polyO', 75, after(60)),
    ]);
    const found = hazards(plan);
    const steps = (code: HazardCode): readonly string[] =>
      found.find((hazard) => hazard.code === code)?.stepIds ?? [];
    expect(steps('hot-air')).toEqual(['h']);
    expect(steps('heat-and-solvent')).toEqual(['h']);
    expect(steps('flammable-vapour')).toEqual(['l', 'o']);
    expect(steps('dust')).toEqual(['s']);
    expect(steps('bleach-mixing')).toEqual(['b']);
    expect(steps('blade')).toEqual(['k']);
    expect(steps('oily-rags')).toEqual(['o']);
    expect(found.map((hazard) => HAZARD_CODES.indexOf(hazard.code))).toEqual(
      [...found.map((hazard) => HAZARD_CODES.indexOf(hazard.code))].sort((a, b) => a - b),
    );
  });

  it('follow from the piece: old paint, raw wood, food, damp, weight', () => {
    const plan = planOf(
      [coat('a', 'chalk', 80, FIRST), distress('s', 'sand', after(9000))],
      room(18, 0.9),
      'raw-softwood',
    );
    const risky: PanelPlan = {
      ...plan,
      panel: {
        ...plan.panel,
        width: 2,
        height: 1,
        use: 'children',
        history: { handled: true, tannin: false, coat: 'unknown', age: 'unknown', condition: 'flaking' },
      },
    };
    expect(codes(risky)).toEqual(
      jasmine.arrayContaining([
        'old-paint',
        'splinters',
        'food-and-children',
        'mould',
        'lifting',
      ] as HazardCode[]),
    );
    expect(codes(planOf([coat('a', 'latex', 80, FIRST)]))).toEqual(['cups']);
  });
});
