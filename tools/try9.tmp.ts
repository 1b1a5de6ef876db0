import { problemOf, usualWork } from '@zaffet/workshop';
import { schedule } from '@zaffet/core/schedule';
import { manyParts } from '../packages/workshop/src/testing/manyParts';
const g = globalThis as any; g.__n = 0; g.__steps = 0; g.__adv=0; g.__try=0;
for (const [parts, seed] of [[8,100],[8,101],[24,100],[24,102]] as const) {
  const plan = manyParts(seed, parts);
  const later = Array.from({ length: 336 }, (_, hour) => ({ at: new Date(Date.parse(plan.startsAt) + (hour + 1) * 3_600_000).toISOString(), temperatureC: 19 + 3 * Math.sin((hour / 24) * 2 * Math.PI), humidity: 0.5 - 0.08 * Math.sin((hour / 24) * 2 * Math.PI) }));
  const p = problemOf({ ...plan, work: usualWork('+02:00'), timing: { ...plan.timing, order: [], deliveries: [] }, air: { ...plan.air, later } });
  for (let k=0;k<3;k++){ g.__n=0; g.__steps=0; g.__try=0;
  const t0=process.cpuUsage(); const s = schedule(p); const c=process.cpuUsage(t0);
  console.log(parts, seed, 'entries', s.entries.length, 'builds', s.builds, 'films', g.__n, 'steps', g.__steps, 'tries', g.__try, 'cpu', Math.round((c.user+c.system)/1000), 'joined', s.order.joined.length, Object.keys(s.order.learned).length);}
}
