import { fault, type LearnedFile, type Plan, type Shelf, ZaffetError } from '@zaffet/contract';
import Piscina from 'piscina';

export interface SheetOrder {
  readonly plan: Plan;
  /** The shop's time zone, an IANA name such as `Europe/Lisbon`. */
  readonly zone: string;
  readonly shelf: Shelf;
  /** What the shop has learned. */
  readonly learned: LearnedFile | null;
}

/** Longest that a sheet may take, waiting included [ms]. */
const WITHIN = 60_000;
const MOST_WAITING = 8;
const MEMORY_MB = 768;

/** Makes job sheets in a thread of its own, one at a time, so that nobody else waits for them. */
export class SheetMaker {
  private readonly pool = new Piscina({
    filename: new URL('./sheet.worker.ts', import.meta.url).href,
    minThreads: 0,
    maxThreads: 1,
    maxQueue: MOST_WAITING,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
  });

  constructor(private readonly within = WITHIN) {}

  /** @throws ZaffetError `sheet.too-long` or `server.busy` */
  async make(order: SheetOrder): Promise<Buffer> {
    const limit = AbortSignal.timeout(this.within);
    try {
      return Buffer.from((await this.pool.run(order, { signal: limit })) as Uint8Array);
    } catch (error) {
      if (limit.aborted) throw new ZaffetError(fault('sheet.too-long'));
      if (this.pool.queueSize >= MOST_WAITING) throw new ZaffetError(fault('server.busy'));
      throw error;
    }
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}
