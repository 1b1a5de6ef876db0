import { type BenchFilm, type BenchTask } from '@zaffet/workshop';
import { cracksMayCome } from './bench-model';

const MINUTE = 60_000;
const around = (minute: number): { at: number; low: number; high: number } => ({
  at: minute * MINUTE,
  low: 0.7 * minute * MINUTE,
  high: 1.4 * minute * MINUTE,
});

describe('the question for first cracks', () => {
  /** A coat laid at 0 that cracks after some minutes, so wide. */
  const film = (minute: number, widthM = 0.4e-3): BenchFilm => ({
    partId: 'lid',
    stepId: 'top',
    laidAt: 0,
    states: { 'first-cracks': around(minute), through: around(90) },
    figures: { opening: { at: widthM, low: widthM, high: widthM } },
    lookAt: null,
  });
  const minutesOf = (coat: BenchFilm, task: BenchTask | null = null): number[] =>
    Array.from({ length: 200 }, (_, minute) => minute).filter((minute) =>
      cracksMayCome(coat, task, minute * MINUTE),
    );

  it('is asked while they can come: not at once, and not after the coat is dry through', () => {
    const minutes = minutesOf(film(20));
    expect(minutes[0]).toBe(6);
    expect(minutes.at(-1)).toBe(125);
  });

  it('is not asked where none are expected, or none that anybody would see', () => {
    expect(minutesOf({ ...film(20), states: {} })).toEqual([]);
    expect(minutesOf(film(20, 10e-6))).toEqual([]);
  });

  it('is asked before the coat is done where it cracks at once, as over hide glue', () => {
    const applying = { kind: 'step', state: 'doing', from: 0, hands: 300 } as BenchTask;
    expect(minutesOf(film(0.3), applying).length).toBeGreaterThan(0);
    expect(minutesOf(film(20), applying)).toEqual([]);
    expect(minutesOf(film(20), { ...applying, kind: 'sections' }).length).toBeGreaterThan(0);
  });
});
