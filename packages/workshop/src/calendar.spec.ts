import { type WorkFile } from '@zaffet/contract';
import { usualWork, workEndsMin, workTime } from './calendar';

const HOUR = 3600;
const time = (
  startsAt: string,
  changes: Partial<WorkFile> = {},
  zone = 'Europe/Lisbon',
): { opens: number; closes: number }[] => [
  ...workTime({ startsAt, work: { ...usualWork(zone), ...changes } }).work!,
];
const every = (opensMin: number, closesMin: number): WorkFile['week'] => {
  const day = [{ opensMin, closesMin }];
  return { mon: day, tue: day, wed: day, thu: day, fri: day, sat: day, sun: day };
};
/** What the wall clock shows at a moment of a plan. */
const wall = (startsAt: string, moment: number, zone = 'Europe/Lisbon'): string =>
  new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    weekday: 'short',
    hour: '2-digit',
    minute: '2-digit',
  }).format(Date.parse(startsAt) + moment * 1000);

describe('working time', () => {
  it('keeps eight at eight in a week over the change of summer time', () => {
    // Clocks go forward on 29 March 2026 and back on 25 October.
    for (const startsAt of ['2026-03-25T08:00:00.000Z', '2026-10-21T07:00:00.000Z']) {
      const stretches = time(startsAt, { week: every(480, 1020) });
      for (const { opens, closes } of stretches.slice(0, 14)) {
        expect(wall(startsAt, Math.max(0, opens))).toMatch(/08:00$/);
        expect(wall(startsAt, closes)).toMatch(/17:00$/);
      }
      const lengths = stretches.slice(1, 14).map(({ opens }, i) => (opens - stretches[i]!.opens) / HOUR);
      expect(Math.min(...lengths) === 23 || Math.max(...lengths) === 25).toBeTrue();
    }
  });

  it('is the same wherever the zone changes no clocks, and by an offset', () => {
    const startsAt = '2026-03-25T08:00:00.000Z';
    expect(time(startsAt, {}, '+00:00')).toEqual(time(startsAt, {}, 'Africa/Abidjan'));
  });

  it('leaves out week-ends and days off, and counts extra stretches', () => {
    const friday = '2026-05-15T07:00:00.000Z';
    const stretches = time(friday, {
      daysOff: ['2026-05-18'],
      extra: [{ from: '2026-05-16T09:00:00.000Z', until: '2026-05-16T11:00:00.000Z' }],
    });
    expect(stretches.slice(0, 4).map(({ opens }) => wall(friday, Math.max(0, opens)))).toEqual([
      'Fri 08:00',
      'Fri 13:00',
      'Sat 10:00',
      'Tue 08:00',
    ]);
  });

  it('joins a stretch over midnight', () => {
    const night = [
      { opensMin: 0, closesMin: 120 },
      { opensMin: 1200, closesMin: 1440 },
    ];
    const week = { mon: night, tue: night, wed: night, thu: night, fri: night, sat: night, sun: night };
    const stretches = time('2026-05-11T07:00:00.000Z', { week });
    expect((stretches[0]!.closes - stretches[0]!.opens) / HOUR).toBe(6);
  });

  it('may be none at all, and begins where the day is when a plan begins at noon', () => {
    const never = { mon: [], tue: [], wed: [], thu: [], fri: [], sat: [], sun: [] };
    expect(time('2026-05-11T07:00:00.000Z', { week: never })).toEqual([]);
    const [first] = time('2026-05-11T10:30:00.000Z');
    expect(first).toEqual({ opens: -3.5 * HOUR, closes: 0.5 * HOUR });
  });

  it('ends on a day with its last hours, at five where nobody works', () => {
    const work = usualWork('Europe/Lisbon');
    const saturday = { ...work, week: { ...work.week, sat: [{ opensMin: 540, closesMin: 780 }] } };
    const [friday, sat] = [new Date(2026, 4, 15), new Date(2026, 4, 16)];
    expect(workEndsMin(saturday, sat)).toBe(780);
    expect(workEndsMin(saturday, friday)).toBe(1020);
    expect(workEndsMin(work, sat)).toBe(1020);
    expect(workEndsMin(null, friday)).toBe(1020);
  });

  it('has daylight every day, worked or not', () => {
    const { daylight } = workTime({
      startsAt: '2026-05-15T07:00:00.000Z',
      work: { ...usualWork('Europe/Lisbon'), daylight: { opensMin: 540, closesMin: 960 } },
    });
    expect(daylight!.slice(0, 2).map(({ opens }) => wall('2026-05-15T07:00:00.000Z', opens))).toEqual([
      'Fri 09:00',
      'Sat 09:00',
    ]);
  });
});
