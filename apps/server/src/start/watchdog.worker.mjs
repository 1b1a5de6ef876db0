// Kills a process whose main thread works without a beat; see watchdog.ts. Plain JavaScript, since it must start at once.
import { readFileSync, writeSync } from 'node:fs';
import { workerData } from 'node:worker_threads';

const { beats, every, most, sentence } = workerData;

/** CPU time of the main thread, of the whole process where the system does not count threads [ms]. */
function cpu() {
  try {
    // Linux, Documentation/scheduler/sched-stats.rst: time on the CPU comes first [ns].
    return (
      Number(readFileSync(`/proc/${process.pid}/task/${process.pid}/schedstat`, 'utf8').split(' ')[0]) / 1e6
    );
  } catch {
    const { user, system } = process.cpuUsage();
    return (user + system) / 1e3;
  }
}

let last = -1;
let since = cpu();
setInterval(() => {
  const now = Atomics.load(beats, 0);
  if (now !== last) {
    last = now;
    since = cpu();
  } else if (cpu() - since >= most) {
    writeSync(2, `${sentence}\n`);
    process.kill(process.pid, 'SIGKILL');
  }
}, every);
