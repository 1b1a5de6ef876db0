import { problemOf } from '@zaffet/workshop';
import { schedule } from '@zaffet/core/schedule';
import { manyParts } from '../packages/workshop/src/testing/manyParts';
import { broken } from '../packages/core/src/testing/checkSchedule';
let bad=0, missed=0, imp=0;
const [a,b]=process.argv.slice(2).map(Number);
for (let seed=a!; seed<b!; seed++) {
  const problem = problemOf(manyParts(seed));
  const t0 = Date.now();
  const s = schedule(problem);
  if (s.outcome!=='found') { imp++; console.log(seed,'impossible', JSON.stringify(s.obstacle)); continue; }
  if (s.missed.length) { missed++; }
  const f = broken(problem, s);
  if (f.length) { bad++; console.log(seed, problem.jobs.length, problem.people, 'missed', s.missed.length, f.slice(0,5)); }
}
console.log({bad, missed, imp});
