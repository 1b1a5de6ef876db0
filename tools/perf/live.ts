import { forecast } from '@zaffet/core/forecast';
import { asksBack, believe, heard, momentBelieved, nextLook, usualPrior } from '@zaffet/core/live';
import { basisOf, newPlan, partPlan } from '@zaffet/workshop';
import { line, type PerfLine, race } from './report';

const RUNS = 200;
const ids = ['panel', 'base', 'medium', 'top'];
const plan = newPlan('dried-medium', 'Live', 7, '2026-05-12T08:00:00.000Z', () => ids.shift() ?? 'more');
const basis = basisOf(partPlan(plan));
const PRIOR = usualPrior({ mean: 0, sd: 0.35 }, false);

function against(name: string, work: () => void): PerfLine {
  for (let i = 0; i < 20; i++) work();
  const { subject, reference } = race(RUNS, work, () => void forecast(basis));
  return line(name, 'ms', subject, reference, RUNS, 'reference: one forecast');
}

/** What is believed of a coat: worked out when it is laid, moved by an answer, and when to look next. */
export const liveLines: Record<string, () => PerfLine> = {
  'live.believe': () => against('live.believe', () => void believe(basis, 'medium', PRIOR)),
  'live.answer': () => {
    const belief = believe(basis, 'medium', PRIOR);
    const since = momentBelieved(belief, 'matte')!.at;
    const look = { since, after: 'matte', before: 'touch', now: false } as const;
    return against('live.answer', () => {
      if (!asksBack(belief, look)) momentBelieved(heard(belief, look), 'touch');
    });
  },
  'live.next': () => {
    const belief = believe(basis, 'medium', PRIOR);
    return against('live.next', () => void nextLook(belief, 'touch', 0));
  },
};
