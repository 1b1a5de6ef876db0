import { Solver } from 'odex';
import { dryingAir } from '../air';
import { medium, type MediumKey, MEDIUM_KEYS, substrate } from '../media';
import { room } from '../testing/plans';
import { arrhenius, balanceWater, dryFilm } from './dry';
import { stateTimes, type StateTimes, valueAt } from './states';
import { type FilmInput, type Ground } from './types';

const sealed: Ground = { kind: 'substrate', substrate: substrate('sealed'), takenUpUm: 0 };

function film(key: MediumKey, wetUm: number, changes: Partial<FilmInput> = {}): FilmInput {
  return {
    medium: medium(key),
    wetUm,
    dilution: 0,
    ground: sealed,
    air: dryingAir([{ from: 0, ...room() }]),
    laidAt: 0,
    coveredAt: Infinity,
    ...changes,
  };
}
const inAir = (t: number, rh: number, v = 0.1): Partial<FilmInput> => ({
  air: dryingAir([{ from: 0, ...room(t, rh, v) }]),
});
const minutes = (states: StateTimes, key: keyof StateTimes): number => (states[key] ?? Infinity) / 60;
const touchMin = (input: FilmInput): number => minutes(stateTimes(dryFilm(input), 294.15), 'touch');

describe('drying', () => {
  it('agrees with the odex package, an adaptive Bulirsch-Stoer solver, to a thousandth of the first water', () => {
    for (const [key, wet] of [
      ['chalk', 90],
      ['crackle', 70],
      ['pva', 110],
      ['latex', 100],
    ] as const) {
      const input = film(key, wet);
      const m = input.medium;
      const s = m.volumeSolids * wet;
      const free = input.air[0]!.evaporation * 1e6;
      const weq = s * balanceWater(m.boundWater, 0.5);
      const curve = dryFilm(input);
      const touch = stateTimes(curve, 294.15).touch!;
      const solver = new Solver(1);
      solver.absoluteTolerance = 1e-9;
      solver.relativeTolerance = 1e-9;
      const rate = (_t: number, [w]: number[]): number[] => {
        const total = w! + s;
        const d =
          m.diffusivityUm2S * Math.exp((m.diffusivityExponent * w!) / total) * arrhenius(30000, 294.15);
        const diffusive = (((Math.PI ** 2 / 4) * d) / total ** 2) * (w! - weq);
        return [-(free * diffusive) / (free + diffusive)];
      };
      const exact = solver.solve(rate, 0, [wet - s], touch).y[0]!;
      expect(Math.abs(valueAt(curve, curve.water, touch) - exact) / curve.water0Um).toBeLessThan(1e-3);
    }
  });

  it('keeps the water: what the coat and the layer below lose is what the air gains', () => {
    const ground: Ground = { kind: 'layer', medium: medium('crackle'), solidsUm: 22, waterUm: 5 };
    const curve = dryFilm(film('chalk', 80, { ground }));
    const last = curve.count - 1;
    const lost = curve.water0Um + 5 - curve.water[last]! - curve.waterBelow[last]!;
    expect(curve.evaporated[last]! / lost).toBeCloseTo(1, 6);
  });

  it('reaches its states in order, for every medium', () => {
    for (const key of MEDIUM_KEYS.filter((k) => medium(k).carrier !== 'none')) {
      const states = stateTimes(dryFilm(film(key, medium(key).wetFilmUm)), 294.15);
      const order = [states.matte, states.tacky, states.touch, states.recoat, states.through, states.cured];
      expect(order.every((t) => t !== null))
        .withContext(key)
        .toBeTrue();
      expect(order)
        .withContext(key)
        .toEqual([...order].sort((a, b) => a! - b!));
    }
  });

  it('dries thick films through with the square of the thickness, once diffusion decides', () => {
    const through = [100, 200, 400].map((h) =>
      minutes(stateTimes(dryFilm(film('latex', h)), 294.15), 'through'),
    );
    expect(through[1]! / through[0]!).toBeGreaterThan(3);
    expect(through[2]! / through[1]!).toBeGreaterThan(3.4);
    expect(through[2]! / through[1]!).toBeLessThan(4.1);
  });

  it('is quicker when warmer, drier, windier, thinner or on a thirsty ground', () => {
    const base = touchMin(film('chalk', 90));
    expect(touchMin(film('chalk', 90, inAir(27, 0.5)))).toBeLessThan(base);
    expect(touchMin(film('chalk', 90, inAir(21, 0.35)))).toBeLessThan(base);
    expect(touchMin(film('chalk', 90, inAir(21, 0.5, 1)))).toBeLessThan(base);
    expect(touchMin(film('chalk', 70))).toBeLessThan(base);
    expect(
      touchMin(film('chalk', 90, { ground: { ...sealed, substrate: substrate('raw-softwood') } })),
    ).toBeLessThan(base);
  });

  it('says when a state never comes in damp air', () => {
    const damp = stateTimes(dryFilm(film('hide', 90, inAir(21, 0.9))), 294.15);
    expect(damp.through).toBeNull();
    expect(dryFilm(film('hide', 90, inAir(21, 0.9))).ended).toBe('in-balance');
  });

  it('stops where the next coat covers it', () => {
    const curve = dryFilm(film('pva', 110, { coveredAt: 180 }));
    expect(curve.ended).toBe('covered');
    expect(curve.time[curve.count - 1]).toBeCloseTo(180, 6);
  });

  it('feels a change of the air from the moment it comes', () => {
    const changing = dryingAir([
      { from: 0, ...room() },
      { from: 600, ...room(12, 0.85) },
    ]);
    const steady = touchMin(film('chalk', 90));
    const turned = touchMin(film('chalk', 90, { air: changing }));
    expect(turned).toBeGreaterThan(steady);
    const early = dryFilm(film('chalk', 90, { air: changing }));
    const same = dryFilm(film('chalk', 90));
    expect(valueAt(early, early.water, 590)).toBeCloseTo(valueAt(same, same.water, 590), 1);
  });
});
