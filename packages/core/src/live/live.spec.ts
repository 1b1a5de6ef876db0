import { type Basis, NO_SHOP, onTables } from '../basis';
import { courseOf } from '../course';
import { PRIOR_SPREAD, type StepFactors } from '../media';
import { normalQuantile } from '../numeric/normal';
import { uniform } from '../numeric/hash';
import { after, coat, FIRST, planOf, room, when } from '../testing/plans';
import {
  asksBack,
  believe,
  type Belief,
  COAT_FACTORS,
  type CoatFactor,
  CRACK_FACTORS,
  type CrackFactor,
  factorBelieved,
  heard,
  inShopAir,
  likelihood,
  LIVE_FIGURES,
  type LiveFigure,
  type LiveState,
  type Look,
  momentBelieved,
  nextLook,
  shopAirAfter,
  stepFactors,
  usualPrior,
} from '.';

const SHOP = { mean: 0, sd: 0.35 };
const PRIOR = usualPrior(SHOP, false);
const medium = onTables(
  planOf([coat('base', 'chalk', 110, FIRST), coat('medium', 'crackle', 110, when('recoat'))]),
);
const glue = onTables(
  planOf([coat('base', 'latex', 100, FIRST), coat('medium', 'pva', 150, when('recoat'))]),
);
const MEDIUM = believe(medium, 'medium', PRIOR);
const GLUE = believe(glue, 'medium', PRIOR);

/** When a state really comes where the factors are hidden ones [s since laid]. */
function truth(basis: Basis, state: Exclude<LiveState, 'first-cracks'>, hidden: readonly number[]): number {
  const [air, dry, thickness] = hidden as [number, number, number];
  const learned = { keys: [], mean: [], covariance: [], steps: { medium: { air, dry, thickness } } };
  const film = courseOf({ ...basis, shop: { ...NO_SHOP, learned } }).films[1]!;
  return film.openStates[state]! - film.laidAt;
}
const drawn = (seed: number, i: number): number => normalQuantile(uniform(i, seed, 5));
const rms = (values: readonly number[]): number =>
  Math.sqrt(values.reduce((sum, one) => sum + one * one, 0) / values.length);
const look = (since: number, afterState: LiveState | null, before: LiveState | null, now = false): Look => ({
  since,
  after: afterState,
  before,
  now,
});
const at = (belief: Belief, state: LiveState): number => momentBelieved(belief, state)!.at;

describe('what is believed of a coat', () => {
  it('before any look is what the tables say, within a wide band', () => {
    const tables = truth(medium, 'touch', [0, 0, 0]);
    const { at: mean, low, high } = momentBelieved(MEDIUM, 'touch')!;
    expect(mean / tables).toBeGreaterThan(0.9);
    expect(mean / tables).toBeLessThan(1.1);
    expect(high / low).toBeGreaterThan(1.8);
    expect(at(MEDIUM, 'matte')).toBeLessThan(at(MEDIUM, 'touch'));
  });

  it('answers like the core itself, to some per cent, wherever the factors are', () => {
    for (const [basis, belief] of [
      [medium, MEDIUM],
      [glue, GLUE],
    ] as const)
      for (const state of ['matte', 'tacky', 'touch'] as const) {
        const off = [11, 140, 377, 610, 900].map((i) => {
          const hidden = (['air', 'dry', 'thickness'] as const).map((key) => belief.factors[key][i]!);
          return belief.moments[state]![i]! - Math.log(truth(basis, state, hidden));
        });
        expect(rms(off)).withContext(state).toBeLessThan(0.03);
      }
  });

  it('moves later when it still shines, and sooner when the shine is gone early', () => {
    const matte = at(MEDIUM, 'matte');
    const still = heard(MEDIUM, look(1.3 * matte, null, 'matte'));
    const gone = heard(MEDIUM, look(0.75 * matte, 'matte', 'touch'));
    expect(at(still, 'touch')).toBeGreaterThan(1.1 * at(MEDIUM, 'touch'));
    expect(at(gone, 'touch')).toBeLessThan(0.95 * at(MEDIUM, 'touch'));
    expect(factorBelieved(still, 'air').mean).toBeLessThan(-0.1);
    expect(stepFactors(gone).air).toBeGreaterThan(0.05);
  });

  it('grows surer with each look, and surest by what is told as it happens', () => {
    const width = (belief: Belief): number => {
      const { low, high } = momentBelieved(belief, 'touch')!;
      return high / low;
    };
    const once = heard(MEDIUM, look(at(MEDIUM, 'matte'), 'matte', 'touch'));
    const twice = heard(once, look(at(once, 'tacky'), 'tacky', 'touch'));
    const told = heard(MEDIUM, look(at(MEDIUM, 'matte'), 'matte', null, true));
    expect(width(once)).toBeLessThan(width(MEDIUM));
    expect(width(twice)).toBeLessThan(width(once));
    expect(width(told)).toBeLessThan(width(once));
  });

  it('does not hang on the order of looks, and is the same each time', () => {
    const [a, b] = [look(900, null, 'matte'), look(1500, 'matte', 'touch')];
    const one = heard(heard(MEDIUM, a), b);
    const other = heard(heard(MEDIUM, b), a);
    expect(at(one, 'touch')).toBeCloseTo(at(other, 'touch'), 6);
    expect(believe(medium, 'medium', PRIOR)).toEqual(MEDIUM);
  });

  it('is moved by one wrong look no further than two right ones bring back', () => {
    const hidden = [0, 0, 0];
    const touch = truth(medium, 'touch', hidden);
    // It is touch-dry now, and somebody says that it does not even grab.
    const wrong = heard(MEDIUM, look(touch, null, 'tacky'));
    const right = [look(1.2 * touch, 'touch', null), look(1.25 * touch, 'touch', null)].reduce(heard, wrong);
    const off = (belief: Belief): number => Math.abs(Math.log(at(belief, 'touch') / touch));
    expect(off(wrong)).toBeGreaterThan(0.1);
    expect(off(right)).toBeLessThan(0.6 * off(wrong));
    // What nobody could believe is taken for a slip, and hardly moves anything.
    expect(off(heard(MEDIUM, look(2.5 * touch, null, 'matte')))).toBeLessThan(0.5 * off(wrong));
  });

  it('asks back what it hardly believes, and takes what it expects', () => {
    const touch = at(MEDIUM, 'touch');
    expect(asksBack(MEDIUM, look(4 * touch, null, 'matte'))).toBeTrue();
    expect(asksBack(MEDIUM, look(0.1 * at(MEDIUM, 'matte'), 'touch', null, true))).toBeTrue();
    expect(asksBack(MEDIUM, look(touch, 'tacky', null))).toBeFalse();
    expect(
      likelihood(MEDIUM, look(touch, 'touch', null)) + likelihood(MEDIUM, look(touch, null, 'touch')),
    ).toBeCloseTo(1, 6);
  });

  it('asks back below one in ten, however the look was told', () => {
    const touch = at(MEDIUM, 'touch');
    for (const one of [
      (since: number) => look(since, null, 'touch'),
      (since: number) => look(since, 'touch', null, true),
    ]) {
      const later = Array.from({ length: 80 }, (_, i) => one(touch * 1.03 ** i));
      const first = later.findIndex((seen) => asksBack(MEDIUM, seen));
      expect(first).toBeGreaterThan(0);
      expect(likelihood(MEDIUM, later[first]!)).toBeLessThan(0.1);
      expect(likelihood(MEDIUM, later[first - 1]!)).toBeGreaterThanOrEqual(0.1);
      expect(likelihood(MEDIUM, later[first - 1]!)).toBeLessThan(0.13);
    }
    const middle = Math.exp(MEDIUM.moments.touch!.reduce((sum, one) => sum + one, 0) / MEDIUM.weights.length);
    expect(likelihood(MEDIUM, look(middle, 'touch', null, true))).toBeCloseTo(1, 3);
  });

  it('learns from what is told as it happens what two normals make of each other', () => {
    // 1/σ² = 1/σ0² + 1/s², with s² = 0.17² + 0.10² of eye and moment; slips leave a little more.
    const sd = (belief: Belief): number => {
      const { low, high } = momentBelieved(belief, 'matte')!;
      return Math.sqrt((Math.log(high / low) / (2 * 1.2816)) ** 2 - 0.1 ** 2);
    };
    const told = heard(MEDIUM, look(at(MEDIUM, 'matte'), 'matte', null, true));
    const expected = 1 / Math.sqrt(1 / sd(MEDIUM) ** 2 + 1 / (0.17 ** 2 + 0.1 ** 2));
    expect(sd(told) / expected).toBeGreaterThan(0.95);
    expect(sd(told) / expected).toBeLessThan(1.25);
  });

  it('says nothing of states that never come, and is not moved by them', () => {
    expect(momentBelieved(MEDIUM, 'first-cracks')).toBeNull();
    expect(heard(MEDIUM, look(600, 'first-cracks', null))).toBe(MEDIUM);
    expect(nextLook(MEDIUM, 'first-cracks', 0)).toBeNull();
  });

  it('knows when the coat above cracks, and hears of that', () => {
    const basis = onTables(
      planOf([
        coat('base', 'latex', 100, FIRST),
        coat('glue', 'pva', 150, when('recoat')),
        coat('medium', 'latex', 110, after(120)),
      ]),
    );
    const belief = believe(basis, 'medium', PRIOR);
    const first = at(belief, 'first-cracks');
    // Common practice: cracks in wet glue begin within some minutes.
    expect(first).toBeGreaterThan(30);
    expect(first).toBeLessThan(3600);
    expect(at(heard(belief, look(1.5 * first, null, 'first-cracks')), 'first-cracks')).toBeGreaterThan(first);
  });

  it('wants to be looked at about when the state comes, never in the past', () => {
    const touch = at(MEDIUM, 'touch');
    const next = nextLook(MEDIUM, 'touch', 0)!;
    expect(next / touch).toBeGreaterThan(0.6);
    expect(next / touch).toBeLessThan(1.4);
    expect(nextLook(MEDIUM, 'touch', 1.2 * touch)!).toBeGreaterThanOrEqual(1.2 * touch);
  });
});

describe('forty coats whose factors nobody knows', () => {
  const truths = Array.from({ length: 40 }, (_, seed) => [
    0.4 * drawn(seed, 1),
    0.4 * drawn(seed, 2),
    0.12 * drawn(seed, 3),
  ]);

  for (const [name, basis, belief, state, seen] of [
    ['a crackle medium opens', medium, MEDIUM, 'touch', 'matte'],
    ['white glue closes', glue, GLUE, 'skinned', 'skinned'],
  ] as const)
    it(`${name}: looks bring it nearer, and bands hold`, () => {
      const errors: number[][] = [[], [], []];
      let held = 0;
      truths.forEach((hidden, seed) => {
        const real = truth(basis, state, hidden);
        const turn = truth(basis, seen, hidden);
        let now = belief;
        errors[0]!.push(Math.log(at(now, state) / real));
        for (const [k, share] of [
          [1, 0.75],
          [2, 1],
        ] as const) {
          const since = share * at(now, seen);
          // An eye judges the moment with an error of 15 per cent.
          const passed = since * Math.exp(0.15 * drawn(seed, 10 + k)) > turn;
          now = heard(now, look(since, passed ? seen : null, passed ? null : seen));
          errors[k]!.push(Math.log(at(now, state) / real));
        }
        const { low, high } = momentBelieved(now, state)!;
        if (real >= low && real <= high) held++;
      });
      expect(rms(errors[1]!)).toBeLessThan(0.95 * rms(errors[0]!));
      expect(rms(errors[2]!)).toBeLessThan(0.8 * rms(errors[0]!));
      // 8 in 10, give or take what forty coats can tell.
      expect(held / truths.length).toBeGreaterThan(0.65);
      expect(held / truths.length).toBeLessThan(0.99);
    });

  it('teach what the shop’s air is like today: the next coat is known better before any look', () => {
    const before: number[] = [];
    const later: number[] = [];
    truths.slice(0, 20).forEach((hidden, seed) => {
      const air = 0.35 * drawn(seed, 20);
      const turn = truth(medium, 'matte', [air, ...hidden.slice(1)]);
      let belief = MEDIUM;
      for (const share of [1, 1.15]) {
        const since = share * at(belief, 'matte');
        const passed = since * Math.exp(0.15 * drawn(seed, 30 + 10 * share)) > turn;
        belief = heard(belief, look(since, passed ? 'matte' : null, passed ? null : 'matte'));
      }
      const shop = shopAirAfter(SHOP, belief);
      expect(shop.sd).toBeLessThan(SHOP.sd);
      before.push(air);
      later.push(air - shop.mean);
    });
    expect(rms(later)).toBeLessThan(0.75 * rms(before));
  });
});

describe('the air of the shop', () => {
  it('weighs draws as if they had been drawn in it', () => {
    for (const shop of [
      { mean: -0.25, sd: 0.2 },
      { mean: 0.15, sd: 0.3 },
    ]) {
      const anew = believe(medium, 'medium', usualPrior(shop, false));
      const moved = inShopAir(MEDIUM, SHOP, shop);
      for (const state of ['matte', 'touch'] as const) {
        const [a, b] = [momentBelieved(anew, state)!, momentBelieved(moved, state)!];
        expect(Math.abs(Math.log(b.at / a.at)))
          .withContext(state)
          .toBeLessThan(0.03);
        expect(Math.abs(Math.log(b.high / b.low / (a.high / a.low))))
          .withContext(state)
          .toBeLessThan(0.06);
      }
      expect(factorBelieved(moved, 'dry').mean).toBeCloseTo(0, 1);
    }
    expect(inShopAir(MEDIUM, SHOP, SHOP)).toBe(MEDIUM);
  });
});

describe('the air of the coat before', () => {
  it('is what a coat is believed by, when it was read as well', () => {
    const damp = onTables(
      planOf(
        [coat('base', 'chalk', 110, FIRST), coat('medium', 'crackle', 110, when('recoat'))],
        room(16, 0.7),
      ),
    );
    expect(at(believe(damp, 'medium', PRIOR), 'touch')).toBeGreaterThan(1.4 * at(MEDIUM, 'touch'));
    const slow = usualPrior({ mean: -0.3, sd: 0.15 }, true);
    expect(at(believe(medium, 'medium', slow), 'matte')).toBeGreaterThan(1.2 * at(MEDIUM, 'matte'));
  });
});

describe('what is believed of a coat that cracks', () => {
  const cracking = onTables(
    planOf([
      coat('base', 'latex', 90, FIRST),
      coat('glue', 'crackle', 100, when('recoat')),
      coat('top', 'chalk', 95, after(2400)),
    ]),
  );
  const TOP = believe(cracking, 'top', PRIOR);
  const NAMES = [...COAT_FACTORS, ...CRACK_FACTORS];
  /** What comes of it where the factors are hidden ones: moments [s since laid], figures [m]. */
  function truly(hidden: readonly number[]): Record<'tacky' | 'touch' | 'first' | LiveFigure, number> | null {
    const top = Object.fromEntries(NAMES.map((name, i) => [name, hidden[i]!])) as unknown as StepFactors;
    const learned = { keys: [], mean: [], covariance: [], steps: { top } };
    const { films, cracks } = courseOf({ ...cracking, shop: { ...NO_SHOP, learned } });
    const { openStates, laidAt } = films[2]!;
    const { firstAt, pattern } = cracks[2]!;
    if (firstAt === null) return null;
    return {
      tacky: openStates.tacky! - laidAt,
      touch: openStates.touch! - laidAt,
      first: firstAt - laidAt,
      spacing: pattern.spacingUm * 1e-6,
      opening: pattern.openingUm * 1e-6,
    };
  }

  it('holds slip, strain and toughness as well, and what it cracks into', () => {
    expect(Object.keys(TOP.factors)).toEqual(NAMES);
    const tables = truly([0, 0, 0, 0, 0, 0])!;
    const spacing = momentBelieved(TOP, 'spacing')!;
    expect(spacing.at / tables.spacing).toBeGreaterThan(0.85);
    expect(spacing.at / tables.spacing).toBeLessThan(1.15);
    expect(spacing.low).toBeLessThan(tables.spacing);
    expect(spacing.high).toBeGreaterThan(tables.spacing);
    // A coat that does not crack is carried by what dries alone.
    expect(Object.keys(MEDIUM.factors)).toEqual([...COAT_FACTORS]);
    expect(momentBelieved(MEDIUM, 'spacing')).toBeNull();
  });

  it('carries what dries alone where a tougher film would not crack at all', () => {
    const thin = onTables(
      planOf([
        coat('base', 'latex', 90, FIRST),
        coat('glue', 'crackle', 100, when('recoat')),
        coat('top', 'chalk', 12, after(2400)),
      ]),
    );
    expect(courseOf(thin).cracks[2]!.firstAt).not.toBeNull();
    const belief = believe(thin, 'top', PRIOR);
    expect(Object.keys(belief.factors)).toEqual([...COAT_FACTORS]);
    expect(momentBelieved(belief, 'touch')).not.toBeNull();
  });

  it('means by slip, strain and toughness of a coat what a board has learned of its media', () => {
    const media = { slip: 'slip:crackle', strain: 'strain:chalk', tough: 'tough:chalk' } as const;
    for (const factor of CRACK_FACTORS) {
      const own = truly(NAMES.map((name) => (name === factor ? 0.3 : 0)))!;
      const learned = { keys: [media[factor]], mean: [0.3], covariance: [[0.01]] };
      const { films, cracks } = courseOf({ ...cracking, shop: { ...NO_SHOP, learned } });
      const { pattern, firstAt } = cracks[2]!;
      expect(own.spacing / (pattern.spacingUm * 1e-6))
        .withContext(factor)
        .toBeCloseTo(1, 9);
      expect(own.opening / (pattern.openingUm * 1e-6))
        .withContext(factor)
        .toBeCloseTo(1, 9);
      expect(own.first / (firstAt! - films[2]!.laidAt))
        .withContext(factor)
        .toBeCloseTo(1, 9);
      // Of toughness it is the first cracks that tell.
      const tables = truly(NAMES.map(() => 0))!;
      expect(Math.abs(Math.log(own.first / tables.first)))
        .withContext(factor)
        .toBeGreaterThan(factor === 'slip' ? -1 : 0.05);
      if (factor === 'slip') expect(own.spacing / tables.spacing).toBeGreaterThan(1.05);
    }
  });

  it('answers like the core itself, wherever the factors are', () => {
    for (const [of, most] of [
      ['spacing', 0.1],
      ['opening', 0.1],
      ['first', 0.3],
    ] as const) {
      const off = [11, 140, 377, 610, 900, 1003].flatMap((i) => {
        const told = truly(NAMES.map((name) => TOP.factors[name]![i]!));
        const own = TOP.moments[of === 'first' ? 'first-cracks' : of]![i]!;
        return told === null ? [] : [own - Math.log(told[of])];
      });
      expect(off.length).toBeGreaterThan(3);
      expect(rms(off)).withContext(of).toBeLessThan(most);
    }
  });

  it('takes early cracks for more strain or a weaker film, and gives a forecast what it learned', () => {
    const { at: first } = momentBelieved(TOP, 'first-cracks')!;
    const early = heard(TOP, look(0.5 * first, 'first-cracks', null, true));
    const late = heard(TOP, look(2 * first, 'first-cracks', null, true));
    const sum = (belief: Belief): number => {
      const { strain, tough } = stepFactors(belief);
      return strain! - tough! / 2;
    };
    expect(sum(early)).toBeGreaterThan(0.05);
    expect(sum(late)).toBeLessThan(-0.05);
    const told = truly(NAMES.map((name) => stepFactors(early)[name]!))!;
    expect(told.first).toBeLessThan(0.8 * truly([0, 0, 0, 0, 0, 0])!.first);
  });

  it('knows better what will come, once first cracks, tack and dryness were told: forty hidden truths', () => {
    const sds = NAMES.map((name) =>
      name in PRIOR ? PRIOR[name as CoatFactor].sd : PRIOR_SPREAD[name as CrackFactor],
    );
    const before: Record<LiveFigure, number[]> = { spacing: [], opening: [] };
    const later: Record<LiveFigure, number[]> = { spacing: [], opening: [] };
    let inside = 0;
    let all = 0;
    for (let i = 0; all < 80 && i < 80; i++) {
      const told = truly(sds.map((sd, k) => sd * drawn(400 + k, i)));
      if (told === null) continue;
      const eye = (of: number, k: number): number => of * Math.exp(0.17 * drawn(500 + k, i));
      const after3 = [
        look(eye(told.first, 0), 'first-cracks', null, true),
        look(eye(told.tacky, 1), 'tacky', null, true),
        look(eye(told.touch, 2), 'touch', null, true),
      ].reduce(heard, TOP);
      for (const figure of LIVE_FIGURES) {
        const [was, is] = [momentBelieved(TOP, figure)!, momentBelieved(after3, figure)!];
        before[figure].push(Math.log(was.at / told[figure]));
        later[figure].push(Math.log(is.at / told[figure]));
        inside += Number(told[figure] > is.low && told[figure] < is.high);
        all += 1;
      }
    }
    expect(all).toBe(80);
    expect(rms(later.spacing) / rms(before.spacing)).toBeLessThan(0.9);
    expect(rms(later.opening) / rms(before.opening)).toBeLessThan(0.85);
    expect(inside / all).toBeGreaterThan(0.7);
  });
});
