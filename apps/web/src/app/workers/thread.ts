import { type Remote, wrap } from 'comlink';

/** A page's end of a worker: begun when first asked, stopped with the page. */
export class Thread<T> {
  private worker: Worker | null = null;
  private wrapped: Remote<T> | null = null;

  constructor(private readonly start: () => Worker) {}

  get remote(): Remote<T> {
    this.worker ??= this.start();
    this.wrapped ??= wrap<T>(this.worker);
    return this.wrapped;
  }

  /** True once it was asked for anything. */
  get begun(): boolean {
    return this.worker !== null;
  }

  /** Asks once. A worker that dies is an answer too: the next question begins another. */
  async ask<R>(question: (remote: Remote<T>) => Promise<R>): Promise<R> {
    const { remote } = this;
    const worker = this.worker!;
    let died: (event: Event) => void = () => undefined;
    const dead = new Promise<never>((_, reject) => {
      died = (event): void => {
        event.preventDefault();
        reject(new Error('the worker ended'));
      };
      worker.addEventListener('error', died);
    });
    try {
      return await Promise.race([question(remote), dead]);
    } catch (error) {
      worker.terminate();
      if (this.worker === worker) {
        this.worker = null;
        this.wrapped = null;
      }
      throw error;
    } finally {
      worker.removeEventListener('error', died);
    }
  }

  stop(): void {
    this.worker?.terminate();
  }
}

/** Inside a worker: whose turn it is, where a newer request overtakes an older one. */
export class Turns {
  private newest = 0;

  /** Takes the turn. @returns whether it is still this one's */
  take(): () => boolean {
    const mine = ++this.newest;
    return () => mine === this.newest;
  }
}

/** On a page: asks one thing at a time, and of those that come meanwhile only the last. */
export class Latest<Q, A> {
  private busy = false;
  private next: { question: Q; take: (answer: A) => void; fail: () => void } | null = null;

  constructor(private readonly ask: (question: Q) => Promise<A>) {}

  put(question: Q, take: (answer: A) => void, fail: () => void): void {
    this.next = { question, take, fail };
    if (!this.busy) void this.run();
  }

  private async run(): Promise<void> {
    this.busy = true;
    while (this.next !== null) {
      const { question, take, fail } = this.next;
      this.next = null;
      try {
        take(await this.ask(question));
      } catch {
        fail();
      }
    }
    this.busy = false;
  }
}
