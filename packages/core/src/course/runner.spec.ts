import { onTables } from '../basis';
import { checkPlan } from '../plan';
import { after, coat, distress, FIRST, heat, overMedium, planOf, rewet, when } from '../testing/plans';
import { advance, begin, earliest, runSteps } from './runner';

describe('runner', () => {
  const plan = planOf([
    coat('a', 'latex', 90, FIRST),
    coat('b', 'chalk', 80, when('recoat')),
    heat('h', 'dryer', 60, after(120)),
    rewet('r', when('through-dry')),
    distress('s', 'sand', after(86400)),
  ]);
  const basis = onTables(plan);
  const media = checkPlan(plan);

  it('goes on from any point, and leaves what it went on from as it was', () => {
    const whole = runSteps(basis, media, {});
    let state = begin(basis, media);
    for (const step of plan.steps) {
      const before = JSON.stringify([
        state.films.map(({ coveredAt, heat, cycles }) => [coveredAt, heat, cycles]),
        state.times,
      ]);
      const kept = state;
      const { at, comes } = earliest(state, step);
      advance(state, step, at + 5000, comes);
      expect(
        JSON.stringify([
          kept.films.map(({ coveredAt, heat, cycles }) => [coveredAt, heat, cycles]),
          kept.times,
        ]),
      ).toBe(before);
      state = advance(state, step, at, comes);
    }
    expect(state.times).toEqual(whole.times);
    expect(state.films.map(({ openStates }) => openStates)).toEqual(
      whole.films.map(({ openStates }) => openStates),
    );
  });

  it('begins nothing before the step before it has ended', () => {
    const { times } = runSteps(basis, media, {});
    for (let i = 1; i < times.length; i++)
      expect(times[i]!.from).toBeGreaterThanOrEqual(times[i - 1]!.until - 1e-9);
  });

  it('covers a film when the next is laid', () => {
    const { films, times } = runSteps(onTables(overMedium(80, 90)), checkPlan(overMedium(80, 90)), {});
    expect(films.map(({ coveredAt }) => coveredAt)).toEqual([times[1]!.from, times[2]!.from, null]);
  });
});
