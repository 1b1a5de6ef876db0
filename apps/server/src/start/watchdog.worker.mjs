// Counts how often the main thread's beat stayed out; see watchdog.ts. Plain JavaScript, since it must start at once.
import { writeSync } from 'node:fs';
import { workerData } from 'node:worker_threads';

const { beats, every, most, sentence } = workerData;
let last = -1;
let missed = 0;
setInterval(() => {
  const now = Atomics.load(beats, 0);
  missed = now === last ? missed + 1 : 0;
  last = now;
  if (missed < most) return;
  writeSync(2, `${sentence}\n`);
  process.kill(process.pid, 'SIGKILL');
}, every);
