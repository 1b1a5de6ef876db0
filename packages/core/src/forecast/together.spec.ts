import { type PanelPlan, type Step } from '../plan';
import {
  after,
  coat,
  distress,
  FIRST,
  heat,
  overGlue,
  overMedium,
  planOf,
  resist,
  room,
  seal,
  when,
  wipe,
} from '../testing/plans';
import { forecastOf } from '../testing/forecasts';
import { type FindingCode } from '../notes';

const codes = (plan: PanelPlan): FindingCode[] => forecastOf(plan).findings.map((finding) => finding.code);

describe('what does not go together (common practice)', () => {
  const solventFirst = (steps: readonly Step[]): PanelPlan =>
    planOf([coat('a', 'latex', 90, FIRST), coat('l', 'lacquer', 75, when('through-dry')), ...steps]);
  const panel = (plan: PanelPlan, changes: Partial<PanelPlan['panel']>): PanelPlan => ({
    ...plan,
    panel: { ...plan.panel, ...changes },
  });
  const milkOn = (age: number): PanelPlan =>
    planOf([
      coat('a', 'latex', 90, FIRST),
      coat('s', 'polyW', 80, when('through-dry', 3600)),
      coat('m', 'milk', 70, after(age)),
    ]);
  const jelly = (sealed: boolean, wiped: boolean, degrease = true): PanelPlan =>
    planOf([
      coat('a', 'chalk', 90, FIRST),
      ...(sealed ? [coat('v', 'polyW', 80, when('through-dry'))] : []),
      resist('j', 'jelly', 0.3, when('through-dry')),
      coat('c', 'chalk', 60, after(60)),
      ...(wiped ? [wipe('w', when('through-dry', 36000), degrease)] : []),
      seal('e', 'polyW', 80, after(3600)),
    ]);
  const dark = (under: readonly Step[], share = 0.1): PanelPlan =>
    planOf([
      coat('a', 'milk', 70, FIRST),
      ...under,
      seal('d', 'darkWax', 12, when('through-dry'), { share }),
    ]);
  const cut = (hours: number): PanelPlan =>
    planOf(
      [coat('a', 'mineral', 100, FIRST), distress('b', 'blade', after(hours * 3600))],
      room(),
      'scuffed',
    );

  const EXPECTED: readonly [FindingCode, string, PanelPlan, PanelPlan][] = [
    [
      'heat-on-solvent',
      'hot air over lacquer, but not over water-based clear coat',
      solventFirst([heat('h', 'gun', 30, after(900))]),
      planOf([coat('a', 'polyW', 80, FIRST), heat('h', 'gun', 30, after(900))]),
    ],
    [
      'heat-on-grease',
      'hot air near jelly that was not wiped',
      planOf([
        coat('a', 'polyW', 80, FIRST),
        resist('j', 'jelly', 0.2, after(9000)),
        heat('h', 'gun', 30, after(60)),
      ]),
      planOf([
        coat('a', 'polyW', 80, FIRST),
        resist('j', 'jelly', 0.2, after(9000)),
        wipe('w', after(60)),
        heat('h', 'gun', 30, after(60)),
      ]),
    ],
    [
      'heat-on-bleach',
      'hot air on wet bleach',
      planOf([
        coat('a', 'latex', 80, FIRST),
        distress('b', 'bleach', after(36000)),
        heat('h', 'dryer', 30, after(0)),
      ]),
      planOf([
        coat('a', 'latex', 80, FIRST),
        distress('b', 'bleach', after(36000)),
        heat('h', 'dryer', 30, after(7200)),
      ]),
    ],
    [
      'heat-on-old-paint',
      'hot air on paint nobody knows',
      panel(planOf([coat('a', 'latex', 80, FIRST), heat('h', 'dryer', 30, after(600))]), {
        history: { handled: false, tannin: false, coat: 'unknown', age: 'unknown', condition: 'sound' },
      }),
      planOf([coat('a', 'latex', 80, FIRST), heat('h', 'dryer', 30, after(600))]),
    ],
    [
      'bleach-on-casein',
      'bleach on milk paint',
      planOf([coat('a', 'milk', 80, FIRST), distress('b', 'bleach', after(36000))]),
      planOf([coat('a', 'latex', 80, FIRST), distress('b', 'bleach', after(36000))]),
    ],
    [
      'bleach-after-alcohol',
      'bleach on fresh shellac',
      planOf([coat('a', 'shellac', 60, FIRST), distress('b', 'bleach', after(36000))]),
      planOf([coat('a', 'polyW', 60, FIRST), distress('b', 'bleach', after(36000))]),
    ],
    [
      'scorches',
      'a heat gun long on one place, not a hairdryer',
      planOf([coat('a', 'chalk', 80, FIRST), heat('h', 'gun', 60, after(3600))]),
      planOf([coat('a', 'chalk', 80, FIRST), heat('h', 'dryer', 60, after(3600))]),
    ],
    ['sealer-dry', 'milk paint on a fully dry sealer', milkOn(40000), milkOn(900)],
    ['sealer-tacky', 'milk paint on a tacky one', milkOn(1500), milkOn(40000)],
    [
      'soaks-in',
      'milk paint on bare MDF',
      planOf([coat('m', 'milk', 70, FIRST)], room(), 'mdf-face'),
      milkOn(900),
    ],
    [
      'milk-old',
      'milk paint mixed two days ago in the room',
      planOf([coat('m', 'milk', 70, FIRST, { mixedAge: 2 * 86400 })]),
      planOf([coat('m', 'milk', 70, FIRST, { mixedAge: 2 * 86400, keptCold: true })]),
    ],
    [
      'milk-old',
      'milk paint fifteen days old, even refrigerated',
      planOf([coat('m', 'milk', 70, FIRST, { mixedAge: 15 * 86400, keptCold: true })]),
      planOf([coat('m', 'milk', 70, FIRST)]),
    ],
    ['blade-hard', 'a blade after a night on mineral paint', cut(14), cut(2.8)],
    [
      'cloth-in-vain',
      'a wet cloth on acrylic',
      planOf([coat('a', 'latex', 80, FIRST), distress('c', 'cloth', after(36000), { rounds: 10 })]),
      planOf([coat('a', 'chalk', 80, FIRST), distress('c', 'cloth', after(3600), { rounds: 10 })]),
    ],
    [
      'dark-wax-bare',
      'dark wax without a barrier',
      dark([]),
      dark([seal('c', 'clearWax', 12, when('through-dry'))]),
    ],
    ['dark-wax-much', 'dark wax over 15 %', dark([], 0.3), dark([], 0.1)],
    [
      'wax-on-wet-dark',
      'light wax on wet dark wax',
      { ...dark([]), steps: [...dark([]).steps, seal('w', 'clearWax', 12, after(120))] },
      { ...dark([]), steps: [...dark([]).steps, seal('w', 'clearWax', 12, when('recoat'))] },
    ],
    ['jelly-unsealed', 'jelly on an unsealed base', jelly(false, true), jelly(true, true)],
    ['jelly-left', 'jelly that is never wiped', jelly(true, false), jelly(true, true)],
    ['jelly-not-degreased', 'sealing over jelly residue', jelly(true, true, false), jelly(true, true)],
    [
      'lay-flat',
      'milk paint on a standing face',
      panel(planOf([coat('m', 'milk', 70, FIRST)]), { flat: false }),
      planOf([coat('m', 'milk', 70, FIRST)]),
    ],
    [
      'use-unsealed',
      'a top that is wiped, without a seal',
      panel(planOf([coat('a', 'chalk', 80, FIRST)]), { use: 'wiping' }),
      panel(
        planOf([coat('a', 'chalk', 80, FIRST), seal('s', 'polyW', 80, when('through-dry'), { coats: 5 })]),
        {
          use: 'wiping',
        },
      ),
    ],
    [
      'use-wax-only',
      'a top for hot cups with wax only',
      panel(planOf([coat('a', 'chalk', 80, FIRST), seal('s', 'clearWax', 12, when('through-dry'))]), {
        use: 'hot-cups',
      }),
      panel(
        planOf([coat('a', 'chalk', 80, FIRST), seal('s', 'polyW', 80, when('through-dry'), { coats: 5 })]),
        {
          use: 'hot-cups',
        },
      ),
    ],
    [
      'tannin-bleeds',
      'water-based paint straight on wood that bleeds',
      panel(planOf([coat('a', 'chalk', 80, FIRST)], room(), 'raw-hardwood'), {
        history: { handled: false, tannin: true, coat: 'none', age: 'years', condition: 'sound' },
      }),
      panel(
        planOf(
          [coat('s', 'shellac', 60, FIRST), coat('a', 'chalk', 80, when('recoat'))],
          room(),
          'raw-hardwood',
        ),
        {
          history: { handled: false, tannin: true, coat: 'none', age: 'years', condition: 'sound' },
        },
      ),
    ],
    [
      'clear-over-wax',
      'clear coat over wax',
      planOf([
        coat('a', 'chalk', 80, FIRST),
        seal('w', 'clearWax', 12, when('through-dry')),
        seal('c', 'polyW', 80, when('recoat')),
      ]),
      planOf([
        coat('a', 'chalk', 80, FIRST),
        seal('c', 'polyW', 80, when('through-dry')),
        seal('w', 'clearWax', 12, when('recoat')),
      ]),
    ],
    [
      'blush',
      'lacquer in damp warm air',
      planOf([coat('l', 'lacquer', 75, FIRST)], room(25, 0.8)),
      planOf([coat('l', 'lacquer', 75, FIRST)], room(21, 0.5)),
    ],
    [
      'spray-recoat',
      'spray enamel painted over after six hours',
      planOf([coat('s', 'spray', 50, FIRST), coat('b', 'spray', 50, after(6 * 3600))]),
      planOf([coat('s', 'spray', 50, FIRST), coat('b', 'spray', 50, after(2400))]),
    ],
    [
      'poor-hold',
      'paint straight on vinyl',
      planOf([coat('a', 'chalk', 80, FIRST)], room(), 'vinyl'),
      planOf([coat('p', 'primer', 80, FIRST)], room(), 'vinyl'),
    ],
    [
      'contrast-low',
      'crackle in two colours nobody can tell apart',
      {
        ...overMedium(70, 60),
        steps: overMedium(70, 60).steps.map((step) => ({ ...step, colour: '#8a8f80' }) as Step),
      },
      {
        ...overMedium(70, 60),
        steps: overMedium(70, 60).steps.map(
          (step, i) => ({ ...step, colour: i === 0 ? '#2f3a30' : '#e3dccb' }) as Step,
        ),
      },
    ],
    [
      'crackle-everywhere',
      'a whole panel crackled alike',
      overMedium(70, 60),
      planOf([coat('a', 'chalk', 80, FIRST)]),
    ],
    ['lever-glue', 'larger cracks over white glue', overGlue(110, 90, 90), overMedium(70, 60)],
    ['lever-top', 'larger cracks over crackle medium', overMedium(70, 60), overGlue(110, 90, 90)],
    [
      'bare-shows',
      'sanding through to pale board without a barrier',
      planOf(
        [coat('a', 'chalk', 70, FIRST), distress('s', 'sand', after(36000), { grit: 80, rounds: 20 })],
        room(),
        'raw-softwood',
      ),
      planOf(
        [coat('a', 'chalk', 70, FIRST), distress('s', 'sand', after(36000), { grit: 400, rounds: 2 })],
        room(),
        'raw-softwood',
      ),
    ],
    [
      'wax-thick',
      'wax laid thick',
      planOf([coat('a', 'chalk', 80, FIRST), seal('w', 'clearWax', 60, when('through-dry'))]),
      planOf([coat('a', 'chalk', 80, FIRST), seal('w', 'clearWax', 12, when('through-dry'))]),
    ],
    [
      'salt-loose',
      'salt strewn on dry paint',
      planOf([coat('a', 'latex', 200, FIRST), resist('s', 'salt', 0.2, after(20000))]),
      planOf([coat('a', 'latex', 200, FIRST), resist('s', 'salt', 0.2, after(30))]),
    ],
    [
      'section-large',
      'gluing a large panel at once',
      panel(overGlue(110, 90, 90), { width: 2, height: 1 }),
      panel(overGlue(110, 90, 90), { width: 0.4, height: 0.3 }),
    ],
  ];
  for (const [code, what, wrong, right] of EXPECTED) {
    it(`says so: ${what}`, () => {
      expect(codes(wrong)).toContain(code);
      expect(codes(right)).not.toContain(code);
    });
  }
});
