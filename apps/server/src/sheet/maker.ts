import {
  fault,
  type LearnedFile,
  type PlanFile,
  type SheetQueue,
  type Shelf,
  ZaffetError,
} from '@zaffet/contract';
import { type UnitSystem } from '@zaffet/words';
import Piscina from 'piscina';

/** A job sheet to be made. */
export interface JobOrder {
  readonly kind: 'job';
  readonly plan: PlanFile;
  /** The shop's time zone, an IANA name such as `Europe/Lisbon`. */
  readonly zone: string;
  readonly shelf: Shelf;
  /** What the shop has learned. */
  readonly learned: LearnedFile | null;
}

/** The sheet of a sample board with the frame it is photographed in: all of it, or one page as SVG. */
export interface BoardOrder {
  readonly kind: 'board';
  readonly plan: PlanFile;
  readonly units: UnitSystem;
  /** Name of the page, as `boardPages` has them; null for all as a PDF. */
  readonly page: string | null;
}
/** A step's map on a part to trace from: all tiles, or one as SVG. */
export interface TraceOrder {
  readonly kind: 'trace';
  readonly plan: PlanFile;
  readonly partId: string;
  readonly stepId: string;
  readonly page: string | null;
}
export type SheetOrder = JobOrder | BoardOrder | TraceOrder;

/** Longest that a sheet may take, waiting included [ms]. */
const WITHIN = 60_000;
const MOST_WAITING = 8;
/** Of one device: another one's does not come after all of somebody's. */
const MOST_OF_ONE = 2;
const MEMORY_MB = 768;
/** How many made lately tell how long the next takes. */
const LATELY = 5;

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
  /** Who waits for how many. */
  private readonly waiting = new Map<string, number>();
  /** What those made lately took [ms]. */
  private lately: readonly number[] = [];
  private doneAt = 0;

  constructor(private readonly within = WITHIN) {}

  /** How it stands for one who asks; whoever is alone at the machine is not told apart. */
  queue(who: string | null): SheetQueue {
    const before = [...this.waiting.values()].reduce((all, count) => all + count, 0);
    const mean = this.lately.reduce((all, took) => all + took, 0) / this.lately.length;
    const seconds = this.lately.length === 0 ? null : Math.ceil(((before + 1) * mean) / 1000);
    const refused =
      who !== null && (this.waiting.get(who) ?? 0) >= MOST_OF_ONE
        ? fault('sheet.two-at-once')
        : before > MOST_WAITING
          ? fault('server.busy', [
              {
                path: 'sheets',
                message: `${before} sheets come first${seconds === null ? '' : `, about ${seconds} s`}.`,
              },
            ])
          : null;
    return { before, seconds, refused };
  }

  /**
   * @param who - the device that asks; null where there are none to be told apart
   * @throws ZaffetError `sheet.too-long`, `sheet.two-at-once`, `server.busy`, or `board.none` or `map.none` where there
   * is no such page
   */
  async make(order: SheetOrder, who: string | null): Promise<Buffer> {
    const { refused } = this.queue(who);
    if (refused !== null) throw new ZaffetError(refused);
    const name = who ?? '';
    this.waiting.set(name, (this.waiting.get(name) ?? 0) + 1);
    const limit = AbortSignal.timeout(this.within);
    const began = performance.now();
    try {
      const made = (await this.pool.run(order, { signal: limit })) as Uint8Array | null;
      if (made === null) throw new ZaffetError(fault(order.kind === 'trace' ? 'map.none' : 'board.none'));
      // It was begun once the one before it was done.
      this.lately = [...this.lately, performance.now() - Math.max(began, this.doneAt)].slice(-LATELY);
      return Buffer.from(made);
    } catch (error) {
      if (limit.aborted) throw new ZaffetError(fault('sheet.too-long'));
      throw error;
    } finally {
      this.doneAt = performance.now();
      this.waiting.set(name, this.waiting.get(name)! - 1);
      if (this.waiting.get(name) === 0) this.waiting.delete(name);
    }
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}
