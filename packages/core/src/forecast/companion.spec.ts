import { type Companion, type CompanionTask, type PanelPlan, type Step } from '../plan';
import { after, coat, FIRST, planOf, room, seal, when } from '../testing/plans';
import { forecastOf } from '../testing/forecasts';

const HOUR = 3600;
const beside = (task: CompanionTask, rest: number, start = when('through-dry')): Companion => ({
  id: task,
  kind: 'companion',
  task,
  hands: 30 * 60,
  rest,
  start,
});
const codes = (steps: readonly Step[], substrate: PanelPlan['panel']['substrate'] = 'scuffed'): string[] =>
  forecastOf(planOf(steps, room(), substrate)).findings.map(({ code }) => code);

// Common practice, no source.
describe('work beside the layers', () => {
  it('takes its time: hands, then rest, before the next step', () => {
    const { times } = forecastOf(
      planOf([
        coat('a', 'chalk', 90, FIRST),
        beside('transfer', 12 * HOUR),
        coat('b', 'chalk', 90, after(0)),
      ]),
    );
    expect(times[2]!.from - times[1]!.from).toBeCloseTo(12.5 * HOUR, 3);
  });

  it('changes nothing of what is seen', () => {
    const shares = (steps: readonly Step[]): number[] =>
      forecastOf(planOf(steps)).layers.map(({ share }) => share);
    const coats = [coat('a', 'chalk', 90, FIRST), coat('b', 'chalk', 80, when('through-dry'))];
    expect(shares([coats[0]!, beside('repair', 0), coats[1]!])).toEqual(shares(coats));
  });

  it('has its place in the order: cloth before the last coat, a print overnight, stain on bare wood', () => {
    const a = coat('a', 'chalk', 90, FIRST);
    const b = coat('b', 'chalk', 80, when('through-dry'));
    expect(codes([a, b, beside('fabric', 24 * HOUR)])).toContain('fabric-late');
    expect(codes([a, beside('fabric', 24 * HOUR), b])).not.toContain('fabric-late');
    expect(codes([a, beside('transfer', 2 * HOUR)])).toContain('transfer-soon');
    expect(codes([a, beside('transfer', 12 * HOUR)])).not.toContain('transfer-soon');
    expect(codes([beside('wash', HOUR, FIRST), a], 'raw-softwood')).not.toContain('wash-on-sealed');
    expect(codes([a, beside('wash', HOUR)], 'raw-softwood')).toContain('wash-on-sealed');
    expect(codes([a, beside('glaze', HOUR)])).toContain('glaze-unprotected');
    expect(codes([a, beside('glaze', HOUR), seal('s', 'polyW', 60, when('through-dry'))])).not.toContain(
      'glaze-unprotected',
    );
  });
});

describe('what lies below the first coat', () => {
  const on = (
    history: Partial<PanelPlan['panel']['history']>,
    prepared: PanelPlan['panel']['prepared'] = [],
  ): string[] => {
    const plan = planOf([coat('a', 'chalk', 90, FIRST)], room(), 'scuffed');
    return forecastOf({
      ...plan,
      panel: { ...plan.panel, history: { ...plan.panel.history, ...history }, prepared },
    }).findings.map(({ code }) => code);
  };

  it('is warned for until it is prepared', () => {
    expect(on({ coat: 'wax' })).toContain('wax-below');
    expect(on({ coat: 'wax' }, ['dewax'])).not.toContain('wax-below');
    expect(on({ coat: 'oil', age: 'fresh' })).toContain('fresh-oil-below');
    // Long cured oil needs nothing; common practice.
    expect(on({ coat: 'oil', age: 'years' })).not.toContain('fresh-oil-below');
    expect(on({ coat: 'unknown', age: 'years' })).toContain('unknown-below');
    expect(on({ coat: 'unknown', age: 'years' }, ['test-hold'])).not.toContain('unknown-below');
  });
});
