import { fault, type LearnedFile, type Plan, type Shelf, ZaffetError } from '@zaffet/contract';
import { type UnitSystem } from '@zaffet/words';
import Piscina from 'piscina';

/** A job sheet to be made. */
export interface JobOrder {
  readonly kind: 'job';
  readonly plan: Plan;
  /** The shop's time zone, an IANA name such as `Europe/Lisbon`. */
  readonly zone: string;
  readonly shelf: Shelf;
  /** What the shop has learned. */
  readonly learned: LearnedFile | null;
}

/** The sheet of a sample board with the frame it is photographed in: all of it, or one page as SVG. */
export interface BoardOrder {
  readonly kind: 'board';
  readonly plan: Plan;
  readonly units: UnitSystem;
  /** Name of the page, as `boardPages` has them; null for all as a PDF. */
  readonly page: string | null;
}
/** A step's map on a part to trace from: all tiles, or one as SVG. */
export interface TraceOrder {
  readonly kind: 'trace';
  readonly plan: Plan;
  readonly partId: string;
  readonly stepId: string;
  readonly page: string | null;
}
export type SheetOrder = JobOrder | BoardOrder | TraceOrder;

/** Longest that a sheet may take, waiting included [ms]. */
const WITHIN = 60_000;
const MOST_WAITING = 8;
const MEMORY_MB = 768;

/** Makes sheets in a thread of its own, one at a time, so that nobody else waits for them. */
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

  /** @throws ZaffetError `sheet.too-long`, `server.busy`, or `board.none` or `map.none` where there is no such page */
  async make(order: SheetOrder): Promise<Buffer> {
    const limit = AbortSignal.timeout(this.within);
    try {
      const made = (await this.pool.run(order, { signal: limit })) as Uint8Array | null;
      if (made === null) throw new ZaffetError(fault(order.kind === 'trace' ? 'map.none' : 'board.none'));
      return Buffer.from(made);
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
