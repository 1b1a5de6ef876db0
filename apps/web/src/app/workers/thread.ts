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

  /** Questions that wait for an answer: what ends them with the worker they were put to. */
  private readonly waiting = new Set<(error: Error) => void>();

  /**
   * Asks once. A worker that dies is an answer too, to all that wait for one: the next question begins another. What a
   * worker throws is an answer to its own question only.
   */
  async ask<R>(question: (remote: Remote<T>) => Promise<R>): Promise<R> {
    const { remote } = this;
    const worker = this.worker!;
    worker.onerror ??= (event): void => {
      event.preventDefault();
      worker.terminate();
      if (this.worker === worker) {
        this.worker = null;
        this.wrapped = null;
      }
      for (const end of this.waiting) end(new Error('the worker ended'));
    };
    let end: (error: Error) => void = () => undefined;
    const ended = new Promise<never>((_, reject) => {
      end = reject;
    });
    this.waiting.add(end);
    try {
      return await Promise.race([question(remote), ended]);
    } finally {
      this.waiting.delete(end);
    }
  }

  /** Ends the worker with the page: nobody waits for its answers any more. */
  stop(): void {
    this.worker?.terminate();
  }

  /** Ends what is being worked on, and tells those who wait for it; the next question begins another worker. */
  cancel(): void {
    this.stop();
    this.worker = null;
    this.wrapped = null;
    for (const end of this.waiting) end(new Error('the worker was stopped'));
  }
}

/** Whose turn it is, where a newer request overtakes an older one. */
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
