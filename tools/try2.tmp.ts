import { readFileSync } from 'node:fs';
import { parsePlan } from '@zaffet/contract/schemas';
import { problemOf, usualWork } from '@zaffet/workshop';
import { schedule } from '@zaffet/core/schedule';
for (const f of ['1-sea-chest.json','2-wash-stand.json','6-chart-locker-front.json']) {
  const plan0 = parsePlan(JSON.parse(readFileSync('demo/plans/'+f,'utf8')));
  const plan = { ...plan0, work: usualWork('+01:00'), timing: {...plan0.timing, prepares: true} };
  for (let i=0;i<5;i++){
    const t0 = process.cpuUsage();
    const p = problemOf(plan); const tp = process.cpuUsage(t0);
    const s = schedule(p);
    const cpu = process.cpuUsage(t0);
    console.log(f, Math.round((tp.user+tp.system)/1000), Math.round((cpu.user+cpu.system)/1000), s.builds);
  }
}
