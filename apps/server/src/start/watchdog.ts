import { Worker } from 'node:worker_threads';

/** A beat is due every [ms]; so much work without one means that the process hangs [ms of CPU time]. */
const USUAL = { every: 1000, most: 30_000 };

/**
 * Kills a process that hangs, so that whoever started it can start it again: a thread of its own watches the beats of
 * the main one, and what it works meanwhile. A machine that sleeps, or has no time for this process, is no hang: without
 * CPU time nothing hangs.
 * @param sentence - printed before the end
 */
export function watch(sentence: string, { every, most } = USUAL): void {
  const beats = new Int32Array(new SharedArrayBuffer(4));
  setInterval(() => Atomics.add(beats, 0, 1), every).unref();
  new Worker(new URL('./watchdog.worker.mjs', import.meta.url), {
    workerData: { beats, every, most, sentence },
    execArgv: [],
  }).unref();
}
