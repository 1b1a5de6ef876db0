import { after, coat, distress, FIRST, overGlue, planOf, resist, when } from '../packages/core/src/testing/plans';
import { jobOf, problemOf } from '../packages/core/src/testing/timetables';
import { schedule } from '../packages/core/src/schedule';
import { benchOf } from '../packages/core/src/schedule/build';
const salted = planOf([ coat('base', 'latex', 90, FIRST), coat('bed', 'chalk', 160, when('recoat')), resist('salt', 'salt', 0.3, after(60)), distress('off', 'scrape', after(14*3600)) ]);
const t = schedule(problemOf([jobOf('p', salted)]));
console.log(salted.panel, t.missed.length, t.entries.map(e=>[e.kind,e.stepId,e.from,e.until,e.opens,e.closes]));
const b = benchOf(problemOf([jobOf('p', salted)]));
console.log(b.chains[0]!.keeps, b.chains[0]!.alone.map(p=>p.run.films.at(-1)?.openStates));
for (const from of [0, 8.5*3600, 8.8*3600]) { const t = schedule(problemOf([jobOf('p', overGlue(140,90,120))], {from})); console.log(from, t.outcome, t.obstacle, t.entries.map(e=>[e.kind,e.stepId,e.from,e.until,e.opens,e.closes])); }
