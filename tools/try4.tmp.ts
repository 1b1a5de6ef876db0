import { problemOf } from '@zaffet/workshop';
import { schedule } from '@zaffet/core/schedule';
import { manyParts } from '../packages/workshop/src/testing/manyParts';
import { broken } from '../packages/core/src/testing/checkSchedule';
for (const seed of process.argv.slice(2).map(Number)) {
  const problem = problemOf(manyParts(seed));
  const s = schedule(problem);
  const f = broken(problem, s);
  console.log(seed, problem.jobs.length, problem.people, 'missed', s.missed.length, f, s.order.learned, s.builds);
}
