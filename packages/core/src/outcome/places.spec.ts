import { onTables } from '../basis';
import {
  type Coat,
  type Distress,
  evenMap,
  type PanelMap,
  type PanelPlan,
  rimMap,
  ZONES,
  zoneShares,
} from '../plan';
import {
  after,
  coat,
  distress,
  FIRST,
  overGlue,
  overMedium,
  planOf,
  resist,
  when,
  wipe,
} from '../testing/plans';
import { forecastOf } from '../testing/forecasts';
import { FIGURE_KEYS, figureValues, readout, regionReadout } from '../readout';

const mapped = (plan: PanelPlan, id: string, map: PanelMap): PanelPlan => ({
  ...plan,
  steps: plan.steps.map((step) => (step.id === id ? { ...(step as Coat), map } : step)),
});
const rim = (ratio: number, reach = 0.04): PanelMap => rimMap(0.6, 0.4, ratio, reach);
/** A map that is one value on the left half and another on the right. */
const halves = (left: number, right: number): PanelMap => {
  const even = evenMap(0.6, 0.4);
  return { ...even, values: even.values.map((_, i) => (i % even.columns < even.columns / 2 ? left : right)) };
};

describe('figures zone by zone', () => {
  const sanded = planOf([
    coat('a', 'chalk', 90, FIRST, { colour: '#2f3d46' }),
    coat('b', 'chalk', 80, when('through-dry', 3600), { colour: '#ddd6c4' }),
    distress('s', 'sand', after(43200), { grit: 150, rounds: 8 }),
  ]);

  it('add up to those of the panel, by area', () => {
    const result = forecastOf(mapped(overMedium(150, 170), 'top', rim(1.7)));
    const areas = zoneShares({ width: 0.6, height: 0.4 });
    for (const of of ['chippedShare', 'wornShare', 'bareShare'] as const) {
      const sum = ZONES.reduce((all, zone) => all + areas[zone] * result.zones[zone][of], 0);
      expect(sum).toBeCloseTo(result.whole[of], 9);
    }
    const open = ZONES.reduce((all, zone) => all + areas[zone] * result.zones[zone].crack!.openArea, 0);
    expect(open).toBeCloseTo(result.whole.crack!.openArea, 9);
    for (const zone of ZONES) {
      expect(result.layers.reduce((all, layer) => all + layer.zones[zone], 0)).toBeCloseTo(1, 9);
    }
  });

  it('are those of the panel where nothing tells the zones apart', () => {
    const told = readout(onTables(overMedium(150, 170)));
    for (const zone of ZONES) expect(told[zone]).toBe(told.panel);
  });

  it('have bands and knobs of their own', () => {
    const told = readout(onTables(sanded));
    const worn = (area: 'field' | 'edge'): { low: number; value: number; high: number; knobs: string[] } => {
      const figure = told[area].figures.find(({ key }) => key === 'worn')!;
      return {
        low: figure.low!,
        value: figure.value!,
        high: figure.high!,
        knobs: figure.movers.map(({ knob }) => knob.kind),
      };
    };
    for (const area of ['field', 'edge'] as const) {
      expect(worn(area).low).toBeLessThan(worn(area).value);
      expect(worn(area).high).toBeGreaterThan(worn(area).value);
      expect(worn(area).knobs.length).toBeGreaterThan(0);
    }
    // Common practice: edges go first.
    expect(worn('edge').value).toBeGreaterThan(1.5 * worn('field').value);
    // More is worn at the edges, so more of what lies below mixes into the colour there.
    expect(told.edge.colour.colour).not.toBe(told.field.colour.colour);
    expect(told.edge.colour.within).toBeGreaterThan(1);
  });
});

describe('a region of the panel', () => {
  const right = { left: 0.3, top: 0, width: 0.3, height: 0.4 };
  const left = { ...right, left: 0 };
  const sanded = planOf([
    coat('a', 'chalk', 90, FIRST, { colour: '#2f3d46' }),
    coat('b', 'chalk', 80, when('through-dry', 3600), { colour: '#ddd6c4' }),
    { ...distress('s', 'sand', after(43200), { grit: 150, rounds: 8 }), map: halves(0.3, 1.6) },
  ]);

  it('tells what lies there alone: halves add up to the whole', () => {
    const all = forecastOf(sanded).whole;
    const of = (region: typeof left): number => forecastOf(sanded, region).whole.wornShare;
    expect(of(right)).toBeGreaterThan(2 * of(left));
    expect(0.5 * (of(left) + of(right))).toBeCloseTo(all.wornShare, 1);
  });

  it('has bands and knobs of its own, and takes its middle where it is very small', () => {
    const told = regionReadout(onTables(sanded), { left: 0.5, top: 0.2, width: 0.004, height: 0.004 });
    const worn = told.figures.find(({ key }) => key === 'worn')!;
    expect(worn.low!).toBeLessThan(worn.value!);
    expect(worn.high!).toBeGreaterThan(worn.value!);
    expect(worn.movers.length).toBeGreaterThan(0);
  });
});

describe('steps that do more here and less there', () => {
  it('are as without a map where the map says so everywhere', () => {
    const plain = figureValues(forecastOf(overMedium(150, 170)));
    const even = figureValues(forecastOf(mapped(overMedium(150, 170), 'top', evenMap(0.6, 0.4))));
    for (const key of FIGURE_KEYS) {
      if (plain[key] !== null)
        expect(even[key]! / (plain[key] || 1)).toBeCloseTo(plain[key] === 0 ? 0 : 1, 6);
    }
  });

  it('crackle as a film laid so thick all over would', () => {
    const ratio = 1.5;
    const result = forecastOf(mapped(overMedium(150, 120), 'top', halves(ratio, ratio)));
    const thick = forecastOf(overMedium(150, 120 * ratio));
    const spacing = (of: typeof result): number => figureValues(of).spacing!;
    expect(spacing(result) / spacing(thick)).toBeGreaterThan(0.9);
    expect(spacing(result) / spacing(thick)).toBeLessThan(1.1);
  });

  it('give larger islands where the top coat lies thicker, and the thick spots crack later (common practice)', () => {
    const { field, edge } = forecastOf(mapped(overGlue(180, 120, 60), 'top', rim(1.8))).zones;
    expect(edge.crack!.spacing).toBeGreaterThan(1.2 * field.crack!.spacing);
    expect(edge.firstAfter!).toBeGreaterThan(field.firstAfter!);
  });

  it('give wider cracks where the medium lies thicker (common practice)', () => {
    const { field, edge } = forecastOf(mapped(overMedium(130, 150), 'medium', rim(1.8))).zones;
    expect(edge.crack!.opening).toBeGreaterThan(field.crack!.opening);
  });

  it('crack at a thick rim a film whose mean does not crack at all', () => {
    const thin = overMedium(6, 16);
    // Under 0.8 % of the area nobody sees it.
    expect(figureValues(forecastOf(thin)).openArea!).toBeLessThan(0.008);
    const { zones, scene } = forecastOf(mapped(thin, 'top', rim(4, 0.05)));
    expect(zones.edge.crack!.openArea).toBeGreaterThan(0.01);
    expect(zones.field.crack!.openArea).toBeLessThan(0.5 * zones.edge.crack!.openArea);
    expect(scene.networks.length).toBeGreaterThan(0);
  });

  it('wear nothing where the hand does not go', () => {
    const plan = planOf([
      coat('a', 'chalk', 90, FIRST),
      coat('b', 'chalk', 60, when('through-dry', 3600)),
      { ...distress('s', 'sand', after(43200), { grit: 150, rounds: 20 }), map: halves(0, 1) } as Distress,
    ]);
    const all = {
      ...plan,
      steps: plan.steps.map((step) =>
        step.id === 's' ? { ...(step as Distress), map: halves(1, 1) } : step,
      ),
    };
    const half = forecastOf(plan).whole.wornShare;
    expect(half / forecastOf(all).whole.wornShare).toBeGreaterThan(0.4);
    expect(half / forecastOf(all).whole.wornShare).toBeLessThan(0.6);
  });

  it('wear a small spot through that is worked hard, and nothing else', () => {
    const even = evenMap(0.6, 0.4, 0);
    const spot = {
      ...even,
      values: even.values.map((_, i) => {
        const u = ((i % even.columns) + 0.5) / even.columns;
        const v = (Math.floor(i / even.columns) + 0.5) / even.rows;
        return Math.abs(u - 0.5) < 0.1 && Math.abs(v - 0.5) < 0.1 ? 1 : 0;
      }),
    };
    const sandedWith = (map: PanelMap): number =>
      forecastOf(
        planOf([
          coat('a', 'chalk', 90, FIRST),
          coat('b', 'chalk', 40, when('through-dry', 3600)),
          { ...distress('s', 'sand', after(43200), { grit: 80, rounds: 40 }), map } as Distress,
        ]),
      ).whole.wornShare;
    expect(sandedWith(spot) / sandedWith(halves(1, 1))).toBeGreaterThan(0.025);
    expect(sandedWith(spot) / sandedWith(halves(1, 1))).toBeLessThan(0.06);
  });

  it('let go where the jelly is, and nowhere else', () => {
    const jelly = (map: PanelMap): number =>
      forecastOf(
        planOf([
          coat('a', 'latex', 90, FIRST),
          coat('v', 'polyW', 80, when('through-dry')),
          { ...resist('j', 'jelly', 0.8, when('through-dry')), map },
          coat('c', 'latex', 90, after(60)),
          wipe('w', when('through-dry', 20000)),
        ]),
      ).whole.chippedShare;
    expect(jelly(halves(0, 0))).toBeLessThan(1e-6);
    expect(jelly(halves(0, 1)) / jelly(halves(1, 1))).toBeCloseTo(0.5, 1);
  });

  it('are refused with field and range where a value is out of range', () => {
    const bad = rim(1.5);
    const plan = mapped(overMedium(150, 170), 'top', { ...bad, values: bad.values.map(() => 9) });
    expect(() => forecastOf(plan)).toThrowError(
      /steps\[2\]\.map\.values is 9; it must be a number from 0 to 4/,
    );
    const short = mapped(overMedium(150, 170), 'top', { ...bad, values: [1, 1] });
    expect(() => forecastOf(short)).toThrowError(/one value for each of/);
  });
});
