import { Worker } from 'node:worker_threads';

/** Beats a second apart; so many that stay out mean the process hangs. */
const BEAT = 1000;
const MOST_MISSED = 30;

/**
 * Ends a process that hangs for half a minute, so that whoever started it can start it again: a thread of its own
 * counts the beats of the main one. A machine that slept is no hang, since the thread sleeps with it.
 * @param sentence - said before the end
 */
export function watch(sentence: string): void {
  const beats = new Int32Array(new SharedArrayBuffer(4));
  setInterval(() => Atomics.add(beats, 0, 1), BEAT).unref();
  new Worker(new URL('./watchdog.worker.mjs', import.meta.url), {
    workerData: { beats, every: BEAT, most: MOST_MISSED, sentence },
    execArgv: [],
  }).unref();
}
