import { AlarmClock, type WantedRing } from './alarm-clock';

const ring = (id: string, at: number): WantedRing => ({ id, at, text: id, to: '/bench/r' });
const ids = (rings: readonly WantedRing[]): string[] => rings.map(({ id }) => id);

describe('the clock that pages share', () => {
  let clock: AlarmClock;
  beforeEach(() => {
    clock = new AlarmClock();
    clock.hear({ kind: 'wanted', runId: 'r', rings: [ring('look', 10_000), ring('go', 60_000)] }, 0);
  });

  it('rings what no page has rung, a little after its moment, and once', () => {
    expect(ids(clock.due(12_000))).toEqual([]);
    expect(ids(clock.due(13_000))).toEqual(['look']);
    expect(ids(clock.due(14_000))).toEqual([]);
    // A device that slept is late, and rings all the same.
    expect(ids(clock.due(500_000))).toEqual(['go']);
  });

  it('leaves to a page what it has rung, and rings again what moved to later', () => {
    clock.hear({ kind: 'rung', runId: 'r', ids: ['look'] }, 10_500);
    expect(ids(clock.due(20_000))).toEqual([]);
    clock.hear({ kind: 'wanted', runId: 'r', rings: [ring('look', 30_000)] }, 21_000);
    expect(ids(clock.due(40_000))).toEqual(['look']);
  });

  it('keeps runs apart, and forgets what is wanted no more', () => {
    clock.hear({ kind: 'wanted', runId: 'other', rings: [ring('look', 10_000)] }, 0);
    clock.hear({ kind: 'rung', runId: 'r', ids: ['look'] }, 10_500);
    expect(ids(clock.due(20_000))).toEqual(['look']);
    clock.hear({ kind: 'wanted', runId: 'r', rings: [] }, 20_000);
    expect(ids(clock.due(90_000))).toEqual([]);
  });

  it('sleeps until the next is due, and never long', () => {
    expect(clock.sleeps(5000)).toBe(8000);
    expect(clock.sleeps(14_000)).toBe(0);
    clock.due(14_000);
    expect(clock.sleeps(14_000)).toBe(20_000);
    expect(clock.sleeps(50_000)).toBe(13_000);
    clock.due(70_000);
    expect(clock.sleeps(70_000)).toBe(20_000);
  });
});
