import { problemOf, usualWork } from '@zaffet/workshop';
import { benchOf } from '../packages/core/src/schedule/build';
import { manyParts } from '../packages/workshop/src/testing/manyParts';
for (let r=0;r<6;r++) for (const seed of [102,100,101,103]) {
  const plan = manyParts(seed, 24);
  const later = Array.from({ length: 336 }, (_, hour) => ({ at: new Date(Date.parse(plan.startsAt) + (hour + 1) * 3_600_000).toISOString(), temperatureC: 19 + 3 * Math.sin((hour / 24) * 2 * Math.PI), humidity: 0.5 - 0.08 * Math.sin((hour / 24) * 2 * Math.PI) }));
  const t0=performance.now(); const p = problemOf({ ...plan, work: usualWork('+02:00'), timing: { ...plan.timing, order: [], deliveries: [] }, air: { ...plan.air, later } });
  const t1=performance.now(); benchOf(p); console.log(seed, (t1-t0).toFixed(0), (performance.now()-t1).toFixed(0));
}
