import { type Response } from 'express';
import { beginStream } from '../http/stream';

/** Pages that may follow runs at once. */
const MOST = 64;
/** A line now and then, so that a lost connection is noticed [ms]. */
const HEARTBEAT = 15_000;
/** A page calls again after [ms]. */
const RETRY = 2000;

/** Pages that follow runs: told how many events there are, they fetch what they lack, so that no lost line matters. */
export class RunListeners {
  private readonly pages = new Map<Response, string>();
  private timer: NodeJS.Timeout | null = null;

  get full(): boolean {
    return this.pages.size >= MOST;
  }

  listen(run: string, response: Response): void {
    if (!beginStream(response, `retry: ${RETRY}\n\n`)) return;
    this.pages.set(response, run);
    response.on('close', () => {
      this.pages.delete(response);
      this.beat();
    });
    this.beat();
  }

  tell(run: string, upTo: number): void {
    for (const [response, of] of this.pages) if (of === run) response.write(`data: ${upTo}\n\n`);
  }

  /** Whatever they follow may have gone on: they ask. */
  tellAll(): void {
    for (const response of this.pages.keys()) response.write('data: 0\n\n');
  }

  private beat(): void {
    if (this.pages.size > 0 && this.timer === null) {
      this.timer = setInterval(() => {
        for (const response of this.pages.keys()) response.write(': still here\n\n');
      }, HEARTBEAT);
      this.timer.unref();
    } else if (this.pages.size === 0 && this.timer !== null) {
      clearInterval(this.timer);
      this.timer = null;
    }
  }
}
