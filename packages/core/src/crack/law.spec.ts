import { room, overGlue, overMedium } from '../testing/plans';
import { forecastOf } from '../testing/forecasts';
import { type CrackLaw } from './types';
import { openingHistory } from './law';
import { crackPattern, largestByStrength, largestByToughness } from './pattern';

const LAW: CrackLaw = {
  thicknessUm: 30,
  complianceUm: 90000,
  pullLengthUm: 1650,
  strain: 0.14,
  strengthRatio: 0.3,
  fractureLengthUm: 2.2,
  mixing: 1,
  fillLeft: 1,
  relaxation: 0.95,
  mobilityAtGel: 0.4,
  driveRatio: 0,
};

describe('largest fragments', () => {
  it('solve the conditions they come from', () => {
    for (const q of [0.1, 0.4, 0.8]) {
      // The stress in the middle of a fragment s is 1 − 1/cosh(s/2): the film breaks there when it is q.
      expect(1 - 1 / Math.cosh(largestByStrength(q) / 2)).toBeCloseTo(q, 9);
    }
    for (const beta of [0.01, 0.1, 0.5, 0.9]) {
      const s = largestByToughness(beta);
      expect(2 * Math.tanh(s / 4) - Math.tanh(s / 2)).toBeCloseTo(beta, 9);
    }
  });
});

describe('pattern in closed form', () => {
  it('cracks no film that is stronger than its stress, nor one too tough to pay for a crack', () => {
    expect(crackPattern({ ...LAW, strengthRatio: 1.8 }).crackedShare).toBeLessThan(0.001);
    expect(crackPattern({ ...LAW, fractureLengthUm: 60 }).crackedShare).toBeLessThan(0.001);
    expect(crackPattern(LAW).crackedShare).toBeGreaterThan(0.99);
    expect(crackPattern({ ...LAW, strain: 0 })).toEqual({
      crackedShare: 0,
      spacingUm: 0,
      openingUm: 0,
      openArea: 0,
      strength: 0,
    });
  });

  it('has the critical thickness of a channelling crack where half of a bonded film cracks', () => {
    // Hutchinson & Suo 1992: G = Z s0² h/E; with the nucleation factor 3, h_c = 3 λ/(Z ε²). Z 1.976 from memory.
    const critical = (3 * LAW.fractureLengthUm) / (1.976 * LAW.strain ** 2);
    const bonded = {
      ...LAW,
      thicknessUm: critical,
      complianceUm: 0,
      pullLengthUm: 1.976 * critical,
      strengthRatio: 0.01,
    };
    expect(crackPattern(bonded).crackedShare).toBeCloseTo(0.5, 3);
  });

  it('rises and falls where it should', () => {
    const at = (changes: Partial<CrackLaw>): ReturnType<typeof crackPattern> =>
      crackPattern({ ...LAW, ...changes });
    expect(at({ pullLengthUm: 2500 }).spacingUm).toBeGreaterThan(at({}).spacingUm);
    expect(at({ strengthRatio: 0.5 }).spacingUm).toBeGreaterThan(at({}).spacingUm);
    expect(at({ fractureLengthUm: 5 }).spacingUm).toBeGreaterThan(at({}).spacingUm);
    expect(at({ strain: 0.2, strengthRatio: 0.21 }).openArea).toBeGreaterThan(at({}).openArea);
    expect(at({ fillLeft: 0.3 }).openingUm).toBeCloseTo(0.3 * at({}).openingUm, 6);
    expect(at({ mixing: 0.5 }).strength).toBeCloseTo(0.5 * at({}).strength, 6);
  });

  it('opens in proportion to the strain, at the same spacing', () => {
    const more = crackPattern({
      ...LAW,
      strain: 0.16,
      fractureLengthUm: LAW.fractureLengthUm * (0.16 / 0.14) ** 2,
    });
    expect(more.openingUm / crackPattern(LAW).openingUm).toBeCloseTo(0.16 / 0.14, 6);
  });
});

describe('the law on plans', () => {
  const lawOf = (plan: ReturnType<typeof overMedium>): CrackLaw => forecastOf(plan).course.cracks[2]!.law;

  it('gathers more slip the more there is below, and none over a bonded paint', () => {
    expect(lawOf(overGlue(200, 90, 120)).complianceUm).toBeGreaterThan(
      lawOf(overGlue(100, 90, 120)).complianceUm,
    );
    const bonded = forecastOf({ ...overMedium(70, 60), steps: overMedium(70, 60).steps.slice(0, 1) }).course
      .cracks[0]!.law;
    expect(bonded.complianceUm).toBe(0);
    expect(bonded.pullLengthUm / (1.976 * bonded.thicknessUm)).toBeCloseTo(1, 1);
  });

  it('stiffens in the cold and relaxes in the damp', () => {
    expect(
      lawOf(overMedium(70, 60, room(12))).complianceUm / lawOf(overMedium(70, 60)).complianceUm,
    ).toBeLessThan(1.2);
    expect(lawOf(overMedium(70, 60, room(21, 0.8))).relaxation).toBeLessThan(
      lawOf(overMedium(70, 60)).relaxation,
    );
  });

  it('opens from nothing at the first crack to the end at touch-dry, never back', () => {
    const crack = forecastOf(overGlue(110, 90, 120)).course.cracks[2]!;
    const { time, share } = openingHistory(crack.input);
    expect(share[0]).toBe(0);
    expect(share.at(-1)!).toBeGreaterThan(0.97);
    expect([...share].sort((a, b) => a - b)).toEqual(share);
    expect([...time].sort((a, b) => a - b)).toEqual(time);
  });
});
