import { type RoomFile, USUAL_SHOP } from '@zaffet/contract';
import { usualWork } from '../calendar';
import { demoPlan } from '../testing/demo';
import { timetable } from '../timetable';
import { toModel } from '../toModel';
import { partPlan } from '../partPlan';
import { simulatedWeather } from '../standins/weather';
import { type AirPoint, hourlyMeans } from './hourly';
import { type AirEffect, airEffects, type Answer, planIn } from './otherAirs';
import { airOver, pointsOf, readThenExpected } from './planAir';
import { shopAir, simulatedShopAir } from './shopAir';

const HOUR = 3_600_000;
const FROM = Date.parse('2026-05-12T06:00:00Z');
const points = (hours: number, of: (hour: number) => [number, number]): AirPoint[] =>
  Array.from({ length: hours }, (_, i) => {
    const [temperatureC, humidity] = of(i);
    return { at: FROM + i * HOUR, temperatureC, humidity };
  });

describe('readings of the air', () => {
  it('are taken by the hour, in order, whatever order they come in', () => {
    const minutes = Array.from({ length: 120 }, (_, i) => ({
      at: FROM + (119 - i) * 60_000,
      temperatureC: i < 60 ? 22 : 18,
      humidity: 0.4,
    }));
    expect(hourlyMeans(minutes)).toEqual([
      { at: FROM, temperatureC: 18, humidity: 0.4 },
      { at: FROM + HOUR, temperatureC: 22, humidity: 0.4 },
    ]);
  });

  it('leave hours empty in which nothing was read', () => {
    const gap = points(5, () => [20, 0.5]).filter((_, i) => i !== 2);
    expect(hourlyMeans(gap).map(({ at }) => (at - FROM) / HOUR)).toEqual([0, 1, 3, 4]);
  });
});

describe('the air over a plan', () => {
  const plan = { ...demoPlan('1-sea-chest'), startsAt: '2026-05-12T08:30:00.000Z' };

  it('begins with what holds at its start, and goes on as it is told', () => {
    const air = airOver(
      plan,
      points(10, (hour) => [15 + hour, 0.5]),
      'file',
    )!;
    expect(air.origin).toBe('file');
    expect(air.temperatureC).toBe(17);
    expect(air.later[0]).toEqual({ at: '2026-05-12T09:00:00.000Z', temperatureC: 18, humidity: 0.5 });
    expect(air.later.length).toBe(7);
    expect(air.altitudeM).toBe(plan.air.altitudeM);
    const model = toModel(partPlan({ ...plan, air }));
    expect(model.air.map(({ from }) => from).slice(0, 2)).toEqual([0, 1800]);
    // Nothing is lost on the way back.
    expect(pointsOf({ air, startsAt: plan.startsAt }).slice(1)).toEqual(
      points(10, (hour) => [15 + hour, 0.5]).slice(3),
    );
  });

  it('is the last or the first that is known where the plan lies beside it', () => {
    const before = airOver(
      plan,
      points(2, (hour) => [15 + hour, 0.5]),
      'file',
    )!;
    expect([before.temperatureC, before.later.length]).toEqual([16, 0]);
    const early = { ...plan, startsAt: '2026-05-11T08:30:00.000Z' };
    expect(
      airOver(
        early,
        points(2, (hour) => [15 + hour, 0.5]),
        'file',
      )!.later.length,
    ).toBe(1);
    expect(airOver(plan, [], 'file')).toBeNull();
  });

  it('is what was read, and from then on what is expected', () => {
    const all = readThenExpected(
      points(2, () => [20, 0.5]),
      points(4, () => [10, 0.8]),
    );
    expect(all.map(({ temperatureC }) => temperatureC)).toEqual([20, 20, 10, 10]);
  });
});

describe('the air in the shop', () => {
  const outside = simulatedWeather(Date.parse('2026-01-12T00:00:00Z'), 24 * 7, 3);
  const room: RoomFile = USUAL_SHOP.room;

  it('is heated while there is work, and falls to what is kept at night', () => {
    const inside = shopAir(outside, room, usualWork('+00:00'));
    const at = (day: number, hour: number): number => inside[day * 24 + hour]!.temperatureC;
    expect(at(1, 10)).toBeCloseTo(20, 1);
    expect(at(1, 5)).toBeLessThan(at(1, 10) - 3);
    // Saturday is free.
    expect(at(5, 10)).toBeLessThan(19);
    expect(Math.min(...inside.map(({ temperatureC }) => temperatureC))).toBeGreaterThanOrEqual(14);
  });

  it('is drier than outside where it is heated, and all day where no hours are told', () => {
    const inside = shopAir(outside, { ...room, moistureGH: 0 }, null);
    expect(inside.every(({ temperatureC }) => temperatureC >= 19.99)).toBeTrue();
    expect(inside.at(-1)!.humidity).toBeLessThan(outside.at(-1)!.humidity - 0.2);
  });

  it('of the simulated weather is the same whenever it is asked, and has its day at the shop’s own hours', () => {
    const shop = { room, work: usualWork('+09:00') };
    const whole = simulatedShopAir(Date.parse('2026-01-12T00:00:00Z'), 48, shop);
    const later = simulatedShopAir(Date.parse('2026-01-13T00:30:00Z'), 24, shop);
    later.forEach(({ at, temperatureC }, i) => {
      expect(at).toBe(whole[24 + i]!.at);
      expect(temperatureC).toBeCloseTo(whole[24 + i]!.temperatureC, 0);
    });
    // Eleven in the morning there is two at night here.
    expect(whole[26]!.temperatureC).toBeCloseTo(20, 1);
    expect(whole[36]!.temperatureC).toBeLessThan(18);
  });

  it('follows the weather where nobody heats', () => {
    const inside = shopAir(outside, { ...room, heatedC: null, restC: null }, null);
    expect(Math.max(...inside.map(({ temperatureC }) => temperatureC))).toBeLessThan(18);
  });
});

describe('what the air does', () => {
  const plan = demoPlan('1-sea-chest');
  const { table } = timetable(plan);
  const { effects, later } = airEffects(plan, table);
  const of = (answer: Answer): AirEffect[] => effects.filter((one) => one.answer === answer);

  it('lets coats dry sooner on dry days and later on damp ones, and shuts windows so too', () => {
    for (const answer of ['touch', 'next'] as const) {
      const told = of(answer).filter(({ other }) => other.damp !== null && other.dry !== null);
      expect(told.length).withContext(answer).toBeGreaterThan(0);
      for (const { lasts, other, stepId } of told) {
        expect(other.damp!).withContext(stepId).toBeGreaterThan(lasts);
        expect(other.dry!).withContext(stepId).toBeLessThan(lasts);
      }
    }
  });

  it('tells of what the hands wait for as well: a wax is buffed later on a damp day', () => {
    const rack = demoPlan('5-oar-rack-back-board');
    const waxed = airEffects(rack, timetable(rack).table).effects.find(({ answer }) => answer === 'buff')!;
    expect(waxed.other.damp!).toBeGreaterThan(waxed.lasts);
    expect(waxed.other.dry!).toBeLessThan(waxed.lasts);
  });

  it('is ready later on damp days than on dry ones', () => {
    expect(later.damp!).toBeGreaterThan(later.dry!);
  });

  it('does nothing where it is the same', () => {
    const steady = planIn(plan, 'steady');
    const same = airEffects(steady, timetable(steady).table);
    expect(same.later.steady).toBe(0);
    for (const { lasts, other } of same.effects) expect(other.steady).toBe(lasts);
  });
});
