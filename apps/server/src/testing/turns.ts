import { readFileSync } from 'node:fs';

/** CPU time that the calling thread has used [ms]; of the whole process where the system does not count threads. */
function threadCpuMs(): number {
  try {
    // Linux, Documentation/scheduler/sched-stats.rst: time spent on the CPU comes first [ns].
    return Number(readFileSync('/proc/thread-self/schedstat', 'utf8').split(' ')[0]) / 1e6;
  } catch {
    const { user, system } = process.cpuUsage();
    return (user + system) / 1e3;
  }
}

/** Measures the turns of this thread's event loop, in CPU time, so that a busy machine makes none of them longer. */
export interface TurnMeter {
  /** The longest turn since the last call [ms]. */
  longest(): Promise<number>;
  stop(): void;
}

/** Begins to measure: a timer runs once a turn, so between two of its runs lies one turn and short ones at most. */
export function measureTurns(): TurnMeter {
  let longest = 0;
  let last = threadCpuMs();
  const look = (): void => {
    const now = threadCpuMs();
    longest = Math.max(longest, now - last);
    last = now;
  };
  const timer = setInterval(look, 1);
  return {
    longest: async () => {
      // The turn under way ends first.
      await new Promise((resolve) => setTimeout(resolve, 2));
      look();
      const found = longest;
      longest = 0;
      return found;
    },
    stop: () => clearInterval(timer),
  };
}
