import { appLines } from './app';
import { faceLines } from './face';
import { fieldLines } from './field';
import { liveLines } from './live';
import { pieceLines } from './piece';
import { planLines } from './plan';
import { scheduleLinesByName } from './schedule';
import { solverLines } from './solve';

// npm run perf [-- NAME]: one JSON line per figure whose name begins with NAME.
const lines = {
  ...planLines,
  ...fieldLines,
  ...pieceLines,
  ...faceLines,
  ...solverLines,
  ...scheduleLinesByName,
  ...liveLines,
  ...appLines,
};
const wanted = process.argv[2] ?? '';
for (const [name, measure] of Object.entries(lines)) {
  if (name.startsWith(wanted)) process.stdout.write(`${JSON.stringify(await measure())}\n`);
}
