import { readFileSync, readdirSync } from 'node:fs';
import { parsePlan } from '@zaffet/contract/schemas';
import { problemOf, usualWork } from '@zaffet/workshop';
import { schedule, sumsOf } from '@zaffet/core/schedule';
for (const f of readdirSync('demo/plans')) {
  const plan0 = parsePlan(JSON.parse(readFileSync('demo/plans/'+f,'utf8')));
  for (const [people, prep] of [[1,false],[1,true],[2,true]] as const) {
    const plan = { ...plan0, work: {...usualWork('+01:00'), people}, timing: {...plan0.timing, prepares: prep} };
    const t0 = process.cpuUsage();
    const s = schedule(problemOf(plan));
    const cpu = process.cpuUsage(t0);
    const sums = sumsOf(s);
    const day = (x: number|null) => x===null?'never':new Date(Date.parse(plan.startsAt)+x*1000).toISOString().slice(5,16);
    console.log(f, people, prep, s.outcome, day(s.ready), 'bound', day(s.bound), 'missed', s.missed.length, 'builds', s.builds, 'entries', s.entries.length, 'turns', sums.turns, 'hands', Math.round(sums.hands/60), 'cpu ms', Math.round((cpu.user+cpu.system)/1000), s.band?.map(day).join(' '), Object.keys(s.order.learned).length, s.order.joined.length);
  }
}
