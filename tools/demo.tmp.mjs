import { readFileSync, writeFileSync, readdirSync } from 'node:fs';
import { register } from 'tsx/esm/api'; register();
const { migratePlan } = await import('@zaffet/contract');
const { usualWork } = await import('@zaffet/workshop');
for (const f of readdirSync('demo/plans')) {
  const plan = migratePlan(JSON.parse(readFileSync('demo/plans/'+f,'utf8')));
  const big = /^[123]-/.test(f);
  if (big) { plan.work = usualWork('Europe/Lisbon'); plan.timing = {...plan.timing, prepares: true}; }
  if (f.startsWith('3-')) {
    plan.piece.bodies = [{id:'left', name:'Left leaf'},{id:'right', name:'Right leaf'}];
    for (const part of plan.piece.parts) { part.body = part.name.startsWith('Left') ? 'left':'right'; part.facing = /inner/.test(part.name) ? 'back' : 'front'; }
  }
  writeFileSync('demo/plans/'+f, JSON.stringify(plan,null,2)+'\n');
}
