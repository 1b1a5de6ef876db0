import {
  fault,
  type LearnedFile,
  type Notation,
  type PlanFile,
  type SheetQueue,
  type Shelf,
  ZaffetError,
} from '@zaffet/contract';
import { type ChildProcess, fork } from 'node:child_process';
import { setPriority } from 'node:os';
import { entry } from '../start/entry';

/** A job sheet to be made. */
export interface JobOrder {
  readonly kind: 'job';
  readonly plan: PlanFile;
  /** The shop's time zone, an IANA name such as `Europe/Lisbon`. */
  readonly zone: string;
  readonly notation: Notation;
  readonly shelf: Shelf;
  /** What the shop has learned. */
  readonly learned: LearnedFile | null;
}

/** The sheet of a sample board with the frame it is photographed in: all of it, or one page as SVG. */
export interface BoardOrder {
  readonly kind: 'board';
  readonly plan: PlanFile;
  readonly notation: Notation;
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

/** What the process that makes sheets says. */
export type SheetMessage =
  | { readonly kind: 'progress'; readonly share: number }
  /** Null where there is no such page. */
  | { readonly kind: 'made'; readonly bytes: Uint8Array | null }
  | { readonly kind: 'failed'; readonly why: string };

/** Longest that a sheet may take, waiting included [ms]. */
const WITHIN = 90_000;
const MOST_WAITING = 8;
/** Of one device: another one's does not come after all of somebody's. */
const MOST_OF_ONE = 2;
const MEMORY_MB = 768;
/** How many made lately tell how long the next takes. */
const LATELY = 5;
/** A process that makes nothing for so long is ended [ms]. */
const IDLE = 30_000;
/** Whoever waits for an answer comes before a sheet, where the system can tell them apart. */
const NICE = 10;

/** A process that makes sheets, one at a time. It may be killed at any time: nothing is lost with it. */
class SheetProcess {
  private child: ChildProcess | null = null;
  private idle: NodeJS.Timeout | undefined;

  /** @throws where it fails, or is killed meanwhile */
  async make(
    order: SheetOrder,
    progress: (share: number) => void,
    signal: AbortSignal,
  ): Promise<Uint8Array | null> {
    clearTimeout(this.idle);
    const child = (this.child ??= this.begin());
    const kill = (): void => void child.kill('SIGKILL');
    let ended = (): void => undefined;
    signal.addEventListener('abort', kill);
    try {
      return await new Promise((resolve, reject) => {
        ended = (): void => reject(new Error('the process that makes sheets has ended'));
        child.on('message', (message: SheetMessage) => {
          if (message.kind === 'progress') progress(message.share);
          else if (message.kind === 'made') resolve(message.bytes);
          else reject(new Error(message.why));
        });
        child.once('exit', ended);
        child.send(order);
      });
    } finally {
      signal.removeEventListener('abort', kill);
      child.removeAllListeners('message').off('exit', ended);
      this.idle = setTimeout(() => this.close(), IDLE);
      this.idle.unref();
    }
  }

  private begin(): ChildProcess {
    const { path, execArgv } = entry('sheet/sheet.process');
    const child = fork(path, {
      execArgv: [...execArgv, `--max-old-space-size=${MEMORY_MB}`],
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    child.once('exit', () => {
      if (this.child === child) this.child = null;
    });
    try {
      setPriority(child.pid!, NICE);
    } catch {
      // Then it works as fast as everything else.
    }
    return child;
  }

  close(): void {
    clearTimeout(this.idle);
    this.child?.kill('SIGKILL');
    this.child = null;
  }
}

/** Makes sheets in a process of its own, one at a time, so that nobody else waits for them. */
export class SheetMaker {
  private readonly process = new SheetProcess();
  /** The one that is being made, and those that wait for it. */
  private last: Promise<unknown> = Promise.resolve();
  /** How much of the one that is being made is done; null where none is. */
  private share: number | null = null;
  /** Who waits for how many. */
  private readonly waiting = new Map<string, number>();
  /** What those made lately took [ms]. */
  private lately: readonly number[] = [];

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
    return { before, seconds, share: this.share, refused };
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
    const made = this.last.then(() => this.makeNow(order, limit));
    this.last = made.catch(() => undefined);
    try {
      const bytes = await made;
      if (bytes === null) throw new ZaffetError(fault(order.kind === 'trace' ? 'map.none' : 'board.none'));
      return Buffer.from(bytes);
    } finally {
      this.waiting.set(name, this.waiting.get(name)! - 1);
      if (this.waiting.get(name) === 0) this.waiting.delete(name);
    }
  }

  private async makeNow(order: SheetOrder, limit: AbortSignal): Promise<Uint8Array | null> {
    const began = performance.now();
    this.share = 0;
    try {
      if (limit.aborted) throw new ZaffetError(fault('sheet.too-long'));
      const bytes = await this.process.make(order, (share) => (this.share = share), limit);
      this.lately = [...this.lately, performance.now() - began].slice(-LATELY);
      return bytes;
    } catch (error) {
      throw limit.aborted ? new ZaffetError(fault('sheet.too-long')) : error;
    } finally {
      this.share = null;
    }
  }

  async close(): Promise<void> {
    this.process.close();
    await this.last;
  }
}
