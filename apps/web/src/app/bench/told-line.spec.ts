import { filePlan, type RunEvent } from '@zaffet/contract';
import { foldRun, newPlan } from '@zaffet/workshop';
import { toldLines } from './told-line';

let id = 0;
const plan = newPlan('wet-glue', 'Lid', 1, '2026-05-12T08:00:00.000Z', () => `t${++id}`);
const at = (minute: number): string => new Date(Date.parse(plan.startsAt) + minute * 60_000).toISOString();
const told = (n: number, minute: number, body: object): RunEvent =>
  ({ id: `e${n}`, device: 'd', n, at: at(minute), offsetMs: 0, ...body }) as RunEvent;

describe('what was told', () => {
  const events = [
    told(1, 0, { kind: 'run-begun', planId: null, plan: filePlan(plan) }),
    told(2, 5, { kind: 'note', partId: null, text: 'a drip' }),
    told(3, 9, { kind: 'note', partId: null, text: 'another' }),
    told(4, 11, { kind: 'taken-back', eventId: 'e2' }),
  ];

  it('stands newest first, with what was taken back, and what still can be', () => {
    const lines = toldLines(events, foldRun(events)!, 'metric');
    expect(lines.map(({ text, gone, free }) => [text, gone, free])).toEqual([
      ['Took something back', false, false],
      ['another', false, true],
      ['a drip', true, false],
      ['Begun: Lid', false, false],
    ]);
    expect(lines.map((line) => new Date(line.at).toISOString())).toEqual([at(11), at(9), at(5), at(0)]);
  });
});
