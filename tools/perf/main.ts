import { appLines } from './app';
import { benchLines } from './bench';
import { calibrateLines } from './calibrate';
import { childLines } from './children';
import { faceLines } from './face';
import { fieldLines } from './field';
import { liveLines } from './live';
import { photoLines } from './photo';
import { pieceLines } from './piece';
import { planLines } from './plan';
import { scheduleLinesByName } from './schedule';
import { solverLines } from './solve';
import { truthLines } from './truths';

// npm run perf [-- NAME]: one JSON line per figure whose name begins with NAME.
const lines = {
  ...planLines,
  ...fieldLines,
  ...pieceLines,
  ...faceLines,
  ...solverLines,
  ...scheduleLinesByName,
  ...liveLines,
  ...benchLines,
  ...truthLines,
  ...calibrateLines,
  ...photoLines,
  ...childLines,
  ...appLines,
};
const wanted = process.argv[2] ?? '';
for (const [name, measure] of Object.entries(lines)) {
  if (name.startsWith(wanted)) process.stdout.write(`${JSON.stringify(await measure())}\n`);
}
