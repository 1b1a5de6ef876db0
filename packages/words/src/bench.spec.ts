import { type RunBodies, type RunEvent, type RunEventKind } from '@zaffet/contract';
import { STROKES } from '@zaffet/core/crack';
import { LIVE_STATES } from '@zaffet/core/live';
import { medium } from '@zaffet/core/media';
import { WAIT_REASONS } from '@zaffet/core/schedule';
import { DISTRESS_TOOLS } from '@zaffet/core/tools';
import { benchOf, foldRun, newDistress, newPlan, timetable, WRONGS } from '@zaffet/workshop';
import { filePlan } from '@zaffet/contract';
import ICAL from 'ical.js';
import { after } from '../../workshop/src/create';
import {
  benchQuestion,
  cracksExpected,
  plannedWaitTitle,
  toldText,
  tooEarly,
  waitTitle,
  workRules,
} from './bench';
import { benchCalendar } from './benchCalendar';
import { rescueEffect, WRONG_WORDS } from './rescue';

const MINUTE = 60_000;
let id = 0;
const plan = newPlan('wet-glue', 'Lid', 7, '2026-05-12T08:00:00.000Z', () => `s${++id}`);
const START = Date.parse(plan.startsAt);
const PART = plan.piece.parts[0]!.id;
const base = plan.finishes[0]!.steps[0]!;
const of = { partId: PART, stepId: base.id, coat: 0 };
let n = 0;
function told<Kind extends RunEventKind>(kind: Kind, body: RunBodies[Kind], minute = 0): RunEvent {
  n += 1;
  return {
    id: `e${n}`,
    device: 'd',
    n,
    at: new Date(START + minute * MINUTE).toISOString(),
    offsetMs: 0,
    kind,
    ...body,
  } as unknown as RunEvent;
}

describe('words at the bench', () => {
  it('ask of every state, with three answers that differ, short enough for a wet hand', () => {
    for (const state of LIVE_STATES) {
      const { ask, how, notYet, justNow, already } = benchQuestion(state);
      expect(new Set([notYet, justNow, already]).size).toBe(3);
      for (const answer of [notYet, justNow, already]) expect(answer.length).toBeLessThan(17);
      expect(ask).toMatch(/\?$/);
      expect(how.length).toBeGreaterThan(20);
      expect(waitTitle(state).length).toBeGreaterThan(5);
    }
  });

  it('name every wait of the plan, and what starting before its end means', () => {
    const texts = WAIT_REASONS.map((reason) => {
      const wait = { reason, length: 1800, left: 720 };
      expect(tooEarly(wait, null)).toMatch(/^12 min too early\. .{20,}\.$/);
      return plannedWaitTitle(wait);
    });
    expect(new Set(texts).size).toBe(WAIT_REASONS.length);
    expect(plannedWaitTitle({ reason: 'minutes', length: 1800, left: 720 })).toBe('Wait 30 min');
    expect(tooEarly({ reason: 'state', length: 9, left: 720 }, 'touch')).toContain('dry to the touch');
  });

  it('say when to stop with every tool, and to leave a coat alone', () => {
    for (const tool of DISTRESS_TOOLS)
      expect(workRules(newDistress('x', tool, after(0)), null)[0]!.length).toBeGreaterThan(20);
    expect(workRules(base, medium('latex'))[0]).toMatch(/at most 2 strokes over each spot, then leave it/);
    // Advice on the brush follows how the coat goes on (common practice).
    const rule = (changes: object, key = 'latex'): string =>
      workRules({ ...base, ...changes } as typeof base, medium(key))[0]!;
    expect(rule({ strokes: 'dabbed', passes: 1 })).toMatch(/^Dab it on.*once in each spot/);
    expect(rule({ strokes: 'swirled' })).toMatch(/swirled strokes/);
    expect(rule({ cover: { style: 'dry-brushed', share: 0.4 } })).toMatch(/brush nearly dry/);
    expect(rule({ cover: { style: 'blotchy', share: 0.5 } })).toMatch(/blotches/);
    for (const key of ['spray', 'clearWax'])
      for (const strokes of STROKES) expect(rule({ strokes }, key)).not.toMatch(/strokes/);
  });

  it('tell each thing that happened in a line', () => {
    const lines = [
      told('done', { ...of, minutesAgo: 12 }),
      told('seen', { ...of, minutesAgo: 0, after: 'tacky', before: null, now: false, places: 'some' }),
      told('seen', { ...of, minutesAgo: 0, after: null, before: 'matte', now: false, places: 'most' }),
      told('caution', { ...of, code: 'dust' }),
      told('caution', { ...of, code: 'of-a-later-zaffet' }),
      told('verdict', { when: 'after-a-day', verdict: 'good', text: 'thicker glue' }),
    ].map((event) => toldText(event, plan, 'metric'));
    expect(lines[0]).toMatch(/^Done: .* on the .*, 12 min before$/);
    expect(lines[1]).toMatch(/Does it grab\? In some places$/);
    expect(lines[2]).toMatch(/Has the shine gone\? Still shiny$/);
    expect(lines[3]).toBe('Read: sanding dust');
    expect(lines[4]).toBe('Read: of-a-later-zaffet');
    expect(lines[5]).toBe('After a day: Just right, thicker glue');
    const words = told('verdict', { when: 'at-once', verdict: null, text: 'another white' });
    expect(toldText(words, plan, 'metric')).toBe('At once: another white');
  });

  it('tell what a coat cracks into with its bands, in either measure, and nothing of one that does not', () => {
    const spacing = { at: 0.0041, low: 0.0029, high: 0.0058 };
    const opening = { at: 0.0004, low: 0.0002, high: 0.0007 };
    expect(cracksExpected({ spacing, opening }, 'metric')).toBe(
      'It cracks about 4.1 mm apart (2.9 to 5.8 mm), 0.4 mm open (0.2 to 0.7 mm); 8 in 10 lie between.',
    );
    expect(cracksExpected({ spacing, opening }, 'imperial')).toMatch(/0\.16 in apart/);
    expect(cracksExpected({ spacing }, 'metric')).toBeNull();
    expect(cracksExpected({}, 'metric')).toBeNull();
  });

  it('name what went wrong, and say what a way out changes, or that it changes nothing', () => {
    for (const wrong of WRONGS) expect(WRONG_WORDS[wrong]).not.toBe('');
    const before = { spacing: null, strength: 0, chips: 0.2, bare: 0 };
    expect(rescueEffect({ before, after: before }, 'metric')).toMatch(/stay as they are/);
    expect(
      rescueEffect({ before, after: { spacing: 0.005, strength: 0.6, chips: 0.05, bare: 0 } }, 'metric'),
    ).toMatch(/^Then cracks 5 mm apart instead of no cracks; 5 % chipped instead of 20 %\.$/);
  });
});

describe('the calendar of a run', () => {
  it('rings when a window may open and when it has, and is read by another reader', () => {
    const prepared = { ...plan, timing: { ...plan.timing, prepares: false } };
    const events = [
      told('run-begun', { planId: null, plan: filePlan(prepared) }),
      told('done', { ...of, minutesAgo: 0 }, 6),
    ];
    const bench = benchOf(foldRun(events)!, timetable(prepared).table, START + 7 * MINUTE, new Map());
    const text = benchCalendar(bench, prepared, 'run', START + 7 * MINUTE);
    const found = new ICAL.Component(ICAL.parse(text) as unknown[])
      .getAllSubcomponents('vevent')
      .map((one) => new ICAL.Event(one));
    expect(found.map(({ summary }) => summary)).toEqual([
      jasmine.stringMatching(/^Look at the .* it may be ready for/),
      jasmine.stringMatching(/^The .* is ready for/),
    ]);
    const task = bench.parts[0]!.tasks.find(({ state }) => state === 'next')!;
    expect(found[1]!.startDate.toJSDate().getTime()).toBe(Math.floor(task.opens!.at / 1000) * 1000);
    expect(found[0]!.component.getFirstSubcomponent('valarm')).not.toBeNull();
    // What is over does not ring any more.
    expect(benchCalendar(bench, prepared, 'run', START + 2000 * MINUTE)).not.toContain('VEVENT');
  });
});
