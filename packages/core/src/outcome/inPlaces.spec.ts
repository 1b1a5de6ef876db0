import { type Region, outlineMap, withinOutline } from '../maps';
import {
  evenMap,
  fromRim,
  mapAt,
  mapMean,
  panelArea,
  type PanelMap,
  type PanelPlan,
  type Place,
  reaches,
  type Step,
  type Zone,
  zonePlaces,
  ZONES,
  zoneShares,
} from '../plan';
import { handsOn, working } from '../course';
import { quantities } from '../quantity';
import { forecastOf } from '../testing/forecasts';
import {
  after,
  coat,
  distress,
  FIRST,
  heat,
  planOf,
  resist,
  rewet,
  room,
  when,
  wipe,
} from '../testing/plans';
import { type LayerShare } from './types';

const SIZE = { width: 0.6, height: 0.4 };
const AREAS = zoneShares(SIZE);
const DAY = 86_400;

const seen = (plan: PanelPlan, id: string): LayerShare => {
  const { layers } = forecastOf(plan);
  return layers.find((layer) => layer.id === id)!;
};
const placed = <S extends Step>(step: S, where: Place): S => ({ ...step, where });
/** Only the left half. */
const half: PanelMap = outlineMap(SIZE, [{ left: 0, top: 0, width: 0.3, height: 0.4 }], []);
const around = (left: number, top: number, side: number, oval = false): Region => ({
  left,
  top,
  width: side,
  height: side,
  oval,
});

describe('a coat that goes on in places', () => {
  const base = coat('a', 'latex', 90, FIRST, { colour: '#203040' });
  const top = coat('b', 'latex', 90, when('through-dry'), { colour: '#e8e0d0' });

  for (const where of ['field', 'edges', 'corners'] as const) {
    it(`lies on ${where} and nowhere else, and takes as much paint as that`, () => {
      const plan = planOf([base, placed(top, where)]);
      const { zones, share } = seen(plan, 'b');
      const reached = ZONES.filter((zone) => reaches(where, zone));
      for (const zone of ZONES) {
        const there = reached.includes(zone);
        expect(zones[zone])
          .withContext(zone)
          [there ? 'toBeGreaterThan' : 'toBeLessThan'](there ? 0.8 : 1e-9);
      }
      const area = reached.reduce((sum, zone) => sum + AREAS[zone], 0);
      expect(share / area).toBeGreaterThan(0.8);
      const [, laid] = quantities(plan);
      const [, full] = quantities(planOf([base, top]));
      expect(laid!.volume / full!.volume).toBeCloseTo(area, 6);
    });
  }

  it('leaves out what it is told to leave out', () => {
    const spared = outlineMap(SIZE, null, [around(0.2, 0.1, 0.2)]);
    const { share } = seen(planOf([base, { ...top, map: spared }]), 'b');
    expect(1 - share / seen(planOf([base, top]), 'b').share).toBeCloseTo((0.2 * 0.2) / 0.24, 1.7);
  });

  it('cracks only where the medium below it lies', () => {
    const medium = coat('m', 'crackle', 120, when('recoat'));
    const plan = (where: Place): PanelPlan =>
      planOf([base, placed(medium, where), coat('t', 'chalk', 110, when('touch-dry'))]);
    const cracked = (where: Place, zone: Zone): number =>
      forecastOf(plan(where)).zones[zone].crack?.openArea ?? 0;
    expect(cracked('field', 'field')).toBeGreaterThan(0.01);
    expect(cracked('field', 'edge')).toBeLessThan(0.1 * cracked('field', 'field'));
    expect(cracked('edges', 'field')).toBeLessThan(0.1 * cracked('edges', 'edge'));
    expect(cracked('field', 'field')).toBeCloseTo(cracked('all', 'field'), 6);
  });

  it('is told of where it cracks, though that be a hundredth of the panel', () => {
    const medium = coat('m', 'crackle', 120, when('recoat'));
    const top = coat('t', 'chalk', 110, when('touch-dry'));
    const hook = outlineMap(SIZE, [around(0.27, 0.18, 0.06)], []);
    const all = forecastOf(planOf([base, medium, top])).whole.crack!;
    const there = forecastOf(planOf([base, { ...medium, map: hook }, top])).whole.crack!;
    expect(there.spacing / all.spacing).toBeCloseTo(1, 0.7);
    expect(there.openArea).toBeLessThan(0.05 * all.openArea);
  });
});

describe('hands at work in places', () => {
  it('take as long as the places they go to', () => {
    const sand = distress('s', 'sand', after(DAY));
    const [all, rims, left, none] = [
      sand,
      placed(sand, 'edges'),
      { ...sand, map: half },
      { ...sand, map: evenMap(SIZE.width, SIZE.height, 0) },
    ].map((step) => working(step, SIZE));
    expect(rims! / all!).toBeCloseTo(AREAS.edge + AREAS.corner, 6);
    expect(left! / all!).toBeCloseTo(0.5, 1.3);
    expect(none).toBe(0);
    // Stirring and washing the brush stay.
    const coated = handsOn(placed(coat('c', 'chalk', 90, FIRST), 'corners'), SIZE);
    expect(coated).toBeGreaterThan(120);
    expect(coated).toBeLessThan(0.8 * handsOn(coat('c', 'chalk', 90, FIRST), SIZE));
  });
});

describe('hot air and water in places (common practice: they force cracks and chips where they go)', () => {
  const forced = (steps: readonly Step[]): PanelPlan =>
    planOf([
      coat('a', 'mineral', 90, FIRST, { colour: '#403528' }),
      coat('m', 'milk', 90, when('through-dry', 3600), { passes: 1, lumps: true, colour: '#c8cdbd' }),
      ...steps,
      distress('d', 'fingers', after(3600)),
    ]);
  const water = rewet('w', when('through-dry', DAY / 2), 60);
  const air = heat('h', 'gun', 40, after(120));
  const chipped = (plan: PanelPlan, zone: Zone): number => forecastOf(plan).zones[zone].chippedShare;

  it('do nothing where they do not go, and as much as everywhere where they do', () => {
    const none = forced([]);
    const everywhere = forced([water, air]);
    const rims = forced([placed(water, 'edges'), placed(air, 'edges')]);
    expect(chipped(everywhere, 'edge')).toBeGreaterThan(1.3 * chipped(none, 'edge'));
    expect(chipped(rims, 'edge')).toBeCloseTo(chipped(everywhere, 'edge'), 6);
    expect(chipped(rims, 'field')).toBeCloseTo(chipped(none, 'field'), 2);
  });

  it('go by their outline as well', () => {
    const share = (plan: PanelPlan): number => forecastOf(plan).whole.chippedShare;
    const [none, all] = [share(forced([])), share(forced([water, air]))];
    const halved = share(
      forced([
        { ...water, map: half },
        { ...air, map: half },
      ]),
    );
    expect(halved).toBeCloseTo(0.5 * (none + all), 1.7);
  });
});

describe('tools and cloths in places', () => {
  it('bring wax off only where they go', () => {
    const plan = (where: Place): PanelPlan =>
      planOf([
        coat('a', 'latex', 90, FIRST, { colour: '#203040' }),
        resist('w', 'candle', 0.5, when('through-dry')),
        coat('b', 'latex', 90, after(60), { colour: '#e8e0d0' }),
        distress('s', 'scrape', when('through-dry'), { rounds: 1, pressure: 0.3, where }),
      ]);
    const gone = (where: Place, zone: Zone): number => forecastOf(plan(where)).zones[zone].chippedShare;
    expect(gone('edges', 'edge')).toBeGreaterThan(0.2);
    expect(gone('edges', 'field')).toBeLessThan(0.2 * gone('all', 'field'));
    expect(gone('field', 'edge')).toBeLessThan(0.2 * gone('all', 'edge'));
  });

  it('wipe jelly off only where they go', () => {
    const plan = (cloth: Step): PanelPlan =>
      planOf([
        coat('a', 'latex', 90, FIRST),
        coat('v', 'polyW', 80, when('through-dry')),
        resist('j', 'jelly', 0.35, when('through-dry')),
        coat('b', 'latex', 90, after(60)),
        cloth,
      ]);
    const cloth = wipe('c', when('through-dry', 20_000));
    const gone = (step: Step): number => forecastOf(plan(step)).whole.chippedShare;
    expect(gone({ ...cloth, map: half }) / gone(cloth)).toBeCloseTo(0.5, 1.3);
  });
});

describe('tinted water', () => {
  const cracked = (tint?: { colour: string; strength: number }): PanelPlan =>
    planOf([
      coat('a', 'chalk', 90, FIRST, { colour: '#e4dcc8' }),
      coat('m', 'crackle', 150, when('recoat')),
      coat('b', 'chalk', 130, when('touch-dry'), { colour: '#efe8d8' }),
      distress('s', 'sponge', after(DAY), { rounds: 1, ...(tint === undefined ? {} : { tint }) }),
    ]);

  it('darkens what it dries on, the more the stronger, and clear water does not', () => {
    const light = (plan: PanelPlan): number => parseInt(forecastOf(plan).whole.colour.slice(1, 3), 16);
    const tea = (strength: number): number => light(cracked({ colour: '#6b4423', strength }));
    expect(tea(0.1)).toBeLessThan(light(cracked()));
    expect(tea(0.3)).toBeLessThan(tea(0.1));
    expect(seen(cracked({ colour: '#6b4423', strength: 0.2 }), 's').share).toBeCloseTo(0.2, 1.3);
  });

  it('needs a tool that brings water', () => {
    const dry = planOf([
      coat('a', 'chalk', 90, FIRST),
      distress('s', 'sand', after(DAY), { tint: { colour: '#6b4423', strength: 0.2 } }),
    ]);
    expect(forecastOf(dry).layers.map(({ id }) => id)).not.toContain('s');
  });
});

describe('round and oval panels', () => {
  const round = { width: 0.5, height: 0.5, oval: true };

  it('have the area, the rim and no corners of an ellipse', () => {
    expect(panelArea(round)).toBeCloseTo(Math.PI * 0.25 ** 2, 12);
    const shares = zoneShares(round);
    expect(shares.corner).toBe(0);
    expect(shares.field + shares.edge).toBeCloseTo(1, 12);
    // A ring 12 mm wide at the rim of a circle.
    expect(shares.edge).toBeCloseTo(1 - (0.238 / 0.25) ** 2, 9);
    expect(fromRim(round, 0.25, 0.25)).toBeCloseTo(0.25, 9);
    expect(fromRim(round, 0.25 + 0.24 / Math.SQRT2, 0.25 + 0.24 / Math.SQRT2)).toBeCloseTo(0.01, 9);
    expect(fromRim(round, 0.01, 0.01)).toBeLessThan(0);
    for (const [zone, of] of Object.entries(zonePlaces(round)))
      for (const [u, v] of of) {
        const inside = fromRim(round, u * 0.5, v * 0.5);
        expect(inside).withContext(zone).toBeGreaterThan(0);
        expect(inside < 0.0121)
          .withContext(zone)
          .toBe(zone === 'edge');
      }
  });

  it('take less paint than the square they are cut from, and are worked in less time', () => {
    const square = planOf([coat('a', 'latex', 90, FIRST), coat('b', 'chalk', 80, when('recoat'))]);
    const oval = { ...square, panel: { ...square.panel, oval: true } };
    expect(quantities(oval)[0]!.volume / quantities(square)[0]!.volume).toBeCloseTo(Math.PI / 4, 6);
    expect(forecastOf(oval).whole.colour).toBe(forecastOf(square).whole.colour);
  });

  it('wear along the whole rim', () => {
    const plan = planOf(
      [
        coat('a', 'chalk', 90, FIRST),
        coat('b', 'chalk', 60, when('through-dry', 3600)),
        distress('s', 'sand', after(43_200), { rounds: 8 }),
      ],
      room(),
      'scuffed',
    );
    const { zones } = forecastOf({ ...plan, panel: { ...plan.panel, ...round } });
    expect(zones.edge.wornShare).toBeGreaterThan(2 * zones.field.wornShare);
  });
});

describe('outlines', () => {
  it('are as large as the place, down to five millimetres on a large part', () => {
    const size = { width: 1.2, height: 0.6 };
    for (const side of [0.005, 0.02, 0.2]) {
      const region = around(0.3, 0.2, side);
      expect(mapMean(outlineMap(size, [region], [])) / (side ** 2 / 0.72))
        .withContext(`${side * 1000} mm`)
        .toBeCloseTo(1, side < 0.01 ? 0.6 : 1);
    }
    const disc = mapMean(outlineMap(size, [around(0.3, 0.1, 0.3, true)], [])) * 0.72;
    expect(disc / ((Math.PI / 4) * 0.09)).toBeCloseTo(1, 1.7);
  });

  it('keep what a map says inside, and nothing of it outside', () => {
    const painted: PanelMap = { ...evenMap(0.6, 0.4), values: evenMap(0.6, 0.4, 2).values };
    const kept = withinOutline(painted, half);
    expect(mapAt(kept, 0.2, 0.5)).toBeCloseTo(2, 6);
    expect(mapAt(kept, 0.8, 0.5)).toBe(0);
  });
});
