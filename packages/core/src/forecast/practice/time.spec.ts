import { type Step, type WorkTime } from '../../plan';
import { forecastOf } from '../../testing/forecasts';
import {
  after,
  coat,
  distress,
  everyDay,
  FIRST,
  overGlue,
  planOf,
  room,
  seal,
  when,
} from '../../testing/plans';
import { handsOn, working } from '../../course';

/*
 * Time and air. What practitioners know to be so, as trends and ranges on plans: common practice
 * with no source, unless one is named.
 */

const HOUR = 3600;
const NIGHT = 12 * HOUR;

describe('hours of work', () => {
  const from = (clock: number): WorkTime => everyDay(8 * HOUR, 18 * HOUR, clock);
  const clock = (moment: number): number => ((9 * HOUR + moment) % 86400) / HOUR;

  it('after a night comes the morning, whatever follows "after five minutes"', () => {
    const rests: Step = { id: 'night', kind: 'wait', duration: 12 * HOUR, start: after(0) };
    const plan = planOf([coat('a', 'chalk', 90, FIRST), rests, seal('w', 'clearWax', 12, after(300))]);
    const { times } = forecastOf({ ...plan, work: from(9 * HOUR) });
    expect(clock(times[2]!.from)).toBeGreaterThanOrEqual(8);
    expect(clock(times[2]!.from)).toBeLessThan(18);
  });

  it('hold every coat of a seal', () => {
    const plan = planOf([
      coat('a', 'chalk', 90, FIRST),
      seal('s', 'polyW', 80, when('recoat'), { coats: 5 }),
    ]);
    const late = { ...plan, work: from(13 * HOUR) };
    const film = forecastOf(late).course.films[1]!;
    const at = ((13 * HOUR + film.laidAt) % 86400) / HOUR;
    expect(at).toBeGreaterThanOrEqual(8);
    expect(at).toBeLessThan(18);
    expect(film.laidAt).toBeGreaterThan(forecastOf(plan).course.films[1]!.laidAt);
  });

  it('are more than the brush on the wood', () => {
    const side = { width: 0.05, height: 0.6 };
    const steps = [coat('a', 'chalk', 90, FIRST), distress('s', 'sand', after(NIGHT))];
    for (const step of steps) expect(handsOn(step, side)).toBeGreaterThan(60);
    expect(handsOn(steps[0]!, side)).toBeGreaterThan(working(steps[0]!, side) + 120);
  });
});

describe('cold', () => {
  it('leaves no moment a good one', () => {
    const good = (celsius: number): string[] =>
      forecastOf(overGlue(110, 110, 60, room(celsius, 0.5)))
        .findings.filter(({ level }) => level === 'good')
        .map(({ code }) => code);
    expect(good(21)).toContain('glue-grabs');
    expect(good(5)).toEqual([]);
  });
});

describe('moving air', () => {
  it('dries one and a half to two and a half times sooner than a still shop', () => {
    const touch = (speed: number): number => {
      const { coats } = forecastOf(planOf([coat('a', 'chalk', 90, FIRST)], room(21, 0.5, speed)));
      return coats[0]!.open.touch! - coats[0]!.laidAt;
    };
    expect(touch(0.1) / touch(1)).toBeGreaterThan(1.5);
    expect(touch(0.1) / touch(1)).toBeLessThan(2.5);
  });

  it('dries small parts sooner than large ones', () => {
    const touch = (width: number): number => {
      const plan = planOf([coat('a', 'chalk', 90, FIRST)]);
      const { coats } = forecastOf({ ...plan, panel: { ...plan.panel, width, height: width } });
      return coats[0]!.open.touch!;
    };
    expect(touch(0.1)).toBeLessThan(0.85 * touch(1));
  });
});

describe('a quick oil clear coat', () => {
  it('takes its next coat in four to six hours, the slow one in a day', () => {
    const recoat = (medium: string): number => {
      const { coats } = forecastOf(planOf([coat('a', medium, 75, FIRST)]));
      return (coats[0]!.open.recoat! - coats[0]!.laidAt) / HOUR;
    };
    expect(recoat('polyF')).toBeGreaterThan(4);
    expect(recoat('polyF')).toBeLessThan(6);
    expect(recoat('polyO')).toBeGreaterThan(18);
  });
});
