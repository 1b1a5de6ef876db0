import { type FieldInput, Growth } from '@zaffet/core/crack';
import { parentPort } from 'node:worker_threads';

/** Grows the panels it is given, one after another, and says when each is done. */
parentPort?.on('message', (input: FieldInput) => {
  const growth = new Growth(input);
  while (growth.step());
  parentPort?.postMessage(growth.result().count);
});
