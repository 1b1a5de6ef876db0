import { type Plan } from '@zaffet/contract';
import { sittings, timetable, usualWork } from '@zaffet/workshop';
import ICAL from 'ical.js';
import Papa from 'papaparse';
import { manyParts } from '../../workshop/src/testing/manyParts';
import {
  calendarFile,
  delayText,
  obstacleText,
  partsOf,
  sittingDetail,
  sittingTitle,
  timetableCsv,
  urgencyText,
  wallClock,
  weekText,
} from '.';

const MADE = Date.parse('2026-05-01T09:00:00Z');
const plans = [4, 9, 16, 23].map((seed) => manyParts(seed));

describe('a day in words', () => {
  it('says what, on what and by when, of every sitting', () => {
    for (const plan of plans) {
      const clock = wallClock(plan, '24');
      for (const sitting of sittings(plan, timetable(plan).table)) {
        const told = [
          sittingTitle(sitting, plan),
          partsOf(sitting, plan),
          sittingDetail(sitting, plan),
          urgencyText(sitting, Date.parse(plan.startsAt), clock),
        ];
        expect(told[0]).not.toBe('');
        expect(told[1]).not.toBe('');
        expect(told.join(' ')).not.toMatch(/undefined|NaN|Infinity|null/);
      }
    }
  });

  it('says why a step comes later than the minutes its plan sets', () => {
    const entry = { opens: 600, from: 600 + 22 * 3600, delay: 'hours', coat: 0, kind: 'coat' } as const;
    const after = { start: { rule: 'after', waitMin: 10 } } as const;
    expect(delayText(entry, after)).toBe('22 h later than planned: nobody works earlier');
    expect(delayText({ ...entry, from: 900 }, after)).toBe('');
    expect(delayText(entry, { start: { rule: 'state', state: 'recoat', waitMin: 0 } })).toBe('');
    expect(delayText({ ...entry, delay: null }, after)).toBe('');
    expect(delayText({ ...entry, coat: 1 }, after)).toBe('');
  });

  it('tells a week in a line', () => {
    expect(weekText(usualWork('+00:00'), '24')).toBe('Mon to Fri 08:00 to 12:00, 13:00 to 17:00');
    expect(weekText(null, '24')).toBe('at any hour');
  });

  it('says why there is no timetable, and what to do', () => {
    const never = { mon: [], tue: [], wed: [], thu: [], fri: [], sat: [], sun: [] };
    const plan = { ...manyParts(4), work: { ...usualWork('+00:00'), week: never } };
    const { table } = timetable(plan);
    expect(obstacleText(table.obstacle!, plan)).toMatch(/^There is no time for .+ Give the week more hours/);
  });
});

describe('a timetable as a calendar', () => {
  // Letters that calendars treat as their own.
  const plan: Plan = {
    ...plans[1]!,
    name: 'Côte; "sea", chest\\box',
    piece: {
      ...plans[1]!.piece,
      parts: plans[1]!.piece.parts.map((part, i) =>
        i === 0 ? { ...part, name: 'Lid; the "big", one\\é' } : part,
      ),
    },
  };
  const { table } = timetable(plan);
  const text = calendarFile(plan, table, 'p1', MADE, '24');
  const events = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent');
  const all = sittings(plan, table);

  it('is read back by another reader: every sitting with its start, end, summary and signs', () => {
    expect(events.length).toBe(all.length);
    const start = Date.parse(plan.startsAt);
    all.forEach((sitting, i) => {
      const event = new ICAL.Event(events[i]!);
      expect(event.startDate.toJSDate().getTime()).toBe(start + sitting.from * 1000);
      expect(event.endDate.toJSDate().getTime()).toBe(start + sitting.until * 1000);
      expect(event.summary).toBe(`${sittingTitle(sitting, plan)}: ${partsOf(sitting, plan)}`);
      const signs = events[i]!.getAllSubcomponents('valarm');
      expect(signs.length).toBeGreaterThanOrEqual(1);
    });
  });

  it('keeps to RFC 5545: lines of at most 75 octets that end in CR LF, each event a name of its own', () => {
    for (const line of text.split('\r\n')) {
      expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
      expect(line).not.toContain('\n');
    }
    const ids = events.map((event) => String(event.getFirstPropertyValue('uid')));
    expect(new Set(ids).size).toBe(ids.length);
  });

  it('lets no name from a file write lines of its own', () => {
    const evil = 'Lid\r\nEND:VEVENT\r\nBEGIN:VEVENT\u2028x\u0007';
    const { parts } = plan.piece;
    const named: Plan = {
      ...plan,
      name: evil,
      piece: { ...plan.piece, parts: parts.map((part) => ({ ...part, name: evil })) },
    };
    const written = calendarFile(named, table, 'p1', MADE, '24');
    const read = new ICAL.Component(ICAL.parse(written) as unknown[]);
    expect(read.getAllSubcomponents('vevent').length).toBe(all.length);
    expect(read.getFirstPropertyValue('x-wr-calname')).toBe('Lid END:VEVENT BEGIN:VEVENT x');
    expect(written).not.toMatch(/\r(?!\n)|[\u2028\u0007]/);
  });

  it('names a sitting as before when it moves, and counts up, so that a calendar moves it', () => {
    const later = calendarFile(plan, table, 'p1', MADE + 3_600_000, '24');
    const uids = (of: string): string[] => [...of.matchAll(/^UID:(.+)$/gm)].map(([, uid]) => uid!);
    const counts = (of: string): number[] => [...of.matchAll(/^SEQUENCE:(\d+)/gm)].map(([, n]) => Number(n));
    expect(uids(later)).toEqual(uids(text));
    expect(counts(later)[0]!).toBeGreaterThan(counts(text)[0]!);
  });
});

describe('a timetable as CSV', () => {
  it('is read back: a line an entry, instants and minutes', () => {
    const [plan] = plans;
    const { table } = timetable(plan!);
    const { data, errors } = Papa.parse<Record<string, string>>(timetableCsv(plan!, table), { header: true });
    expect(errors).toEqual([]);
    const work = table.entries.filter(({ kind }) => kind !== 'turn' && kind !== 'clean');
    expect(data.length).toBe(work.length);
    for (const row of data) {
      expect(Number.isFinite(Date.parse(row['from']!))).toBeTrue();
      const minutes = (Date.parse(row['until']!) - Date.parse(row['from']!)) / 60_000;
      expect(Number(row['hands_min'])).toBeCloseTo(minutes, 1);
    }
  });
});
