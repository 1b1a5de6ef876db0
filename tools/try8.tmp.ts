import { readFileSync } from 'node:fs';
import { parsePlan } from '@zaffet/contract/schemas';
import { problemOf } from '@zaffet/workshop';
import { schedule } from '@zaffet/core/schedule';
for (const f of ['1-sea-chest.json','2-wash-stand.json','3-shutters.json']) for (const eve of [false,true]) {
  const plan0 = parsePlan(JSON.parse(readFileSync('demo/plans/'+f,'utf8')));
  const week = eve ? Object.fromEntries(Object.entries(plan0.work!.week).map(([k,v])=>[k, v.length? [...v,{opensMin:1080,closesMin:1320}]:v])) as never : plan0.work!.week;
  const plan = { ...plan0, work: {...plan0.work!, week} };
  for (const tries of [0,60,120,300]) {
    const t0=process.cpuUsage(); const out=[1,2,3,4].map(seed=>{ const s=schedule(problemOf(plan),{tries,seed}); return (s.ready!/3600).toFixed(2); });
    const c=process.cpuUsage(t0); console.log(f, eve, tries, out.join(' '), Math.round((c.user+c.system)/4000),'ms');
  }
}
