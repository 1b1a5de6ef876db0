import { Worker } from 'node:worker_threads';

/** Beats are so far apart [ms]; so many that stay out mean the process hangs. */
const USUAL = { every: 1000, most: 30 };

/**
 * Ends a process that hangs for half a minute, so that whoever started it can start it again: a thread of its own
 * counts the beats of the main one. A machine that slept is no hang, since the thread sleeps with it.
 * @param sentence - said before the end
 */
export function watch(sentence: string, { every, most } = USUAL): void {
  const beats = new Int32Array(new SharedArrayBuffer(4));
  setInterval(() => Atomics.add(beats, 0, 1), every).unref();
  new Worker(new URL('./watchdog.worker.mjs', import.meta.url), {
    workerData: { beats, every, most, sentence },
    execArgv: [],
  }).unref();
}
