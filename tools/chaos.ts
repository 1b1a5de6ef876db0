// Lets Zaffet die under load, and counts what of it was acknowledged and lost: npm run chaos [-- KILLS [CUTS]]
// One JSON line for kill -9, one for power cuts; exit 1 where anything is lost.
import { killed, powerCut } from '../apps/server/src/testing/chaos';

const [kills = 10, cuts = 10] = process.argv.slice(2).map(Number);
const byKill = await killed(kills, 1500);
process.stdout.write(`${JSON.stringify({ what: 'kill -9', ...byKill })}\n`);
const byCut = await powerCut(cuts, 1200);
process.stdout.write(`${JSON.stringify({ what: 'power cut', ...byCut })}\n`);
process.exit(byKill.lost.length + byCut.lost.length > 0 ? 1 : 0);
