import { principalAxes } from './eigen';
import { descend, type FitRules, pointAt } from './fit';

const RULES: FitRules = { low: -10, high: 10, slope: 1e-4, iterations: 60 };

describe('least squares', () => {
  it('find the valley of Rosenbrock (1960, Comput. J. 3:175), from his own start', () => {
    const residuals = ([x, y]: readonly number[]): number[] => [10 * (y! - x! * x!), 1 - x!];
    const end = descend(pointAt([-1.2, 1], residuals([-1.2, 1])), residuals, RULES);
    expect(end.at[0]).toBeCloseTo(1, 2);
    expect(end.at[1]).toBeCloseTo(1, 2);
  });

  it('stay inside their range', () => {
    const residuals = ([x]: readonly number[]): number[] => [x! - 7];
    const end = descend(pointAt([0], residuals([0])), residuals, { ...RULES, high: 5 });
    expect(end.at).toEqual([5]);
  });

  it('are pulled off by one wrong reading, and hardly so with the robust loss', () => {
    const readings = [2, 2.1, 1.9, 2.05, 1.95, 12];
    const residuals = ([x]: readonly number[]): number[] => readings.map((reading) => (x! - reading) / 0.3);
    const fit = (robust: number): number =>
      descend(pointAt([3], residuals([3]), robust), residuals, { ...RULES, robust }).at[0]!;
    expect(fit(0)).toBeCloseTo(22 / 6, 2);
    expect(Math.abs(fit(readings.length) - 2)).toBeLessThan(0.1);
  });

  it('say how they ended, and have nothing to do without coordinates', () => {
    const flat = (): number[] => [1];
    expect(descend(pointAt([0], flat()), flat, RULES).ended).toBe('no-better');
    expect(descend(pointAt([], [1]), flat, RULES).ended).toBe('converged');
    const far = ([x]: readonly number[]): number[] => [Math.atan(x! - 9) * 5];
    expect(descend(pointAt([-9], far([-9])), far, { ...RULES, iterations: 1 }).ended).toBe('max');
  });
});

describe('principal axes', () => {
  it('are those worked out by hand', () => {
    const axes = [
      ...principalAxes([
        [2, 1],
        [1, 2],
      ]),
    ].sort((a, b) => a.variance - b.variance);
    expect(axes[0]!.variance).toBeCloseTo(1, 12);
    expect(axes[1]!.variance).toBeCloseTo(3, 12);
    const [x, y] = axes[1]!.direction;
    expect(x! / y!).toBeCloseTo(1, 12);
  });

  it('make the matrix again, and stand square to each other', () => {
    const matrix = [
      [4, 1, -2, 0.3],
      [1, 2, 0, 0.1],
      [-2, 0, 3, -0.4],
      [0.3, 0.1, -0.4, 1],
    ];
    const axes = principalAxes(matrix);
    for (let i = 0; i < 4; i++) {
      for (let j = 0; j < 4; j++) {
        const again = axes.reduce((sum, a) => sum + a.variance * a.direction[i]! * a.direction[j]!, 0);
        expect(again).toBeCloseTo(matrix[i]![j]!, 10);
        const dot = axes[i]!.direction.reduce((sum, x, k) => sum + x * axes[j]!.direction[k]!, 0);
        expect(dot).toBeCloseTo(i === j ? 1 : 0, 10);
      }
    }
  });
});
