import { problemOf, usualWork } from '@zaffet/workshop';
import { schedule } from '@zaffet/core/schedule';
import { benchOf, benchCoarse, benchInAir, build } from '../packages/core/src/schedule/build';
import { told } from '../packages/core/src/schedule/tell';
import { forecast } from '@zaffet/core/forecast';
import { manyParts } from '../packages/workshop/src/testing/manyParts';
const cpu = (name: string, f: () => unknown) => { const s = process.cpuUsage(); const r = f(); const {user,system} = process.cpuUsage(s); console.log(name.padEnd(12), ((user+system)/1000).toFixed(0)); return r as any; };
for (const seed of [102, 102, 100, 101, 103]) {
  const plan = manyParts(seed, 24);
  const later = Array.from({ length: 336 }, (_, hour) => ({ at: new Date(Date.parse(plan.startsAt) + (hour + 1) * 3_600_000).toISOString(), temperatureC: 19 + 3 * Math.sin((hour / 24) * 2 * Math.PI), humidity: 0.5 - 0.08 * Math.sin((hour / 24) * 2 * Math.PI) }));
  const p = problemOf({ ...plan, work: usualWork('+02:00'), timing: { ...plan.timing, order: [], deliveries: [] }, air: { ...plan.air, later } });
  console.log('seed', seed, p.jobs.map(j=>j.basis.plan.steps.length).join(' '));
  const b = cpu('benchOf', () => benchOf(p));
  const first = cpu('first', () => build(b, null, []));
  cpu('again', () => build(b, first.jobs, first.joined));
  const c = cpu('coarse', () => benchCoarse(b));
  const cb = cpu('coarse1', () => build(c, first.jobs, first.joined));
  for (let i=0;i<5;i++) { const jobs=[...first.jobs]; const [x]=jobs.splice(3+i*7,1); jobs.splice(20+i,0,x); cpu('coarse'+i, () => build(c, jobs, first.joined)); }
  cpu('told', () => told(b, first));
  cpu('forecasts', () => p.jobs.map(j => forecast({plan: j.basis.plan, shop: j.basis.shop})));
  const o = cpu('inAir', () => benchInAir(b, 1.5)); cpu('band', () => build(o, first.jobs, first.joined));
  cpu('all0', () => { const s = schedule(p, {tries:0, seed:1}); console.log(s.builds, Object.keys(s.order.learned).length, s.order.joined.length, s.entries.length, s.missed.length); });
  cpu('all60', () => { const s = schedule(p); console.log(s.builds, Object.keys(s.order.learned).length); });
}
