import { fault, ZaffetError } from '@zaffet/contract';
import { type Request } from 'express';
import express from 'express';
import Piscina from 'piscina';
import { entry } from '../start/entry';
import { type Answer, carryOut, type Order, type Result, type Task } from './tasks';

/** Read in the thread that answers: a few milliseconds at most [bytes]. */
const SMALL = 131_072;
/** Longest that reading may take, waiting included [ms]. */
const WITHIN = 60_000;
const MOST_WAITING = 32;
const MEMORY_MB = 768;

let pool: Piscina<Order, Answer> | null = null;

const threads = (): Piscina<Order, Answer> =>
  (pool ??= new Piscina({
    filename: entry('reading/reader.worker').path,
    minThreads: 0,
    maxThreads: 1,
    maxQueue: MOST_WAITING,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
  }));

/** Ends the thread that reads, if there is one. */
export async function closeReader(): Promise<void> {
  await pool?.destroy();
  pool = null;
}

/**
 * Reads a JSON text from outside; a large one in a thread of its own, so that nobody else waits for it.
 * @param bytes - UTF-8
 * @throws ZaffetError with what is wrong in it; `server.busy` if too many wait or it takes too long
 */
export async function read<Kind extends Task>(task: Kind, bytes: Uint8Array): Promise<Result<Kind>> {
  if (bytes.length <= SMALL) return carryOut(task, bytes);
  let answer: Answer;
  try {
    answer = await threads().run({ task, bytes }, { signal: AbortSignal.timeout(WITHIN) });
  } catch {
    throw new ZaffetError(fault('server.busy'));
  }
  if ('fault' in answer) throw new ZaffetError(answer.fault);
  return answer.result as Result<Kind>;
}

/** Takes a JSON body as it comes, for `bodyOf`. @param limit - [bytes] */
export const rawJson = (limit: number): express.RequestHandler =>
  express.raw({ type: 'application/json', limit, inflate: false });

/** Only UTF-8 is read, as RFC 8259 (8.1) asks. @throws ZaffetError `request.not-json` */
export function bodyOf(request: Request): Buffer {
  const { body } = request as { body: unknown };
  const charset = /charset\s*=\s*"?([^";\s]+)/i.exec(request.headers['content-type'] ?? '')?.[1];
  const isUtf8 = charset === undefined || charset.toLowerCase() === 'utf-8';
  if (!isUtf8) throw new ZaffetError(fault('request.not-json'));
  return Buffer.isBuffer(body) && body.length > 0 ? body : Buffer.from('{}');
}
