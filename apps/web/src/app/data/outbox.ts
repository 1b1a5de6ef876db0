import { InjectionToken, signal } from '@angular/core';
import { filter, firstValueFrom, Subject } from 'rxjs';
import { type Unsaved } from './unsaved';

/** What comes of something that is sent. */
export type Sending<Body, Answer> =
  | { readonly kind: 'started'; readonly key: string; readonly body: Body }
  | { readonly kind: 'sent'; readonly key: string; readonly body: Body; readonly answer: Answer }
  /** Could not be sent now; it is tried again. */
  | { readonly kind: 'failed'; readonly key: string; readonly error: unknown; readonly kept: boolean }
  /** Will not be taken as it is; it stays here until it is put anew or dropped. */
  | {
      readonly kind: 'refused';
      readonly key: string;
      readonly body: Body;
      readonly error: unknown;
      readonly kept: boolean;
    };

export interface OutboxOptions<Body, Answer> {
  /** Names what it keeps in the browser. */
  readonly box: string;
  /** How the names began that an older Zaffet kept it under. */
  readonly former?: string;
  /**
   * Sends one; the same one may have been sent before and its answer lost.
   * @param tried - what was sent under this key since the last answer
   */
  send(key: string, body: Body, tried: readonly Body[]): Promise<Answer>;
  /** Sends one without waiting for an answer, as the window closes. */
  sendLast(key: string, body: Body): void;
  /** Whether the server will say the same each time. */
  isFinal(error: unknown): boolean;
  /** What waits, with something newer of the same key. */
  merge(waiting: Body, newer: Body): Body;
  /** What waits, once what was sent before it was taken. */
  follow(waiting: Body, sent: Body, answer: Answer): Body;
  pack(body: Body): unknown;
  /** Null for what cannot be read. */
  unpack(stored: unknown): Body | null;
}

/** Something that is not sent until a person decides. */
export interface Held<Body> {
  readonly key: string;
  readonly body: Body;
}

/** Pauses [ms]. */
export interface Pauses {
  /** Of the hand, after which something is sent. */
  readonly send: number;
  /** Between two writings into the browser's store. */
  readonly keep: number;
  /** Before what failed is tried again. */
  readonly retry: number;
}
export const OUTBOX_PAUSES = new InjectionToken<Pauses>('outbox pauses', {
  providedIn: 'root',
  factory: () => ({ send: 500, keep: 250, retry: 4000 }),
});

interface Entry<Body> {
  body: Body;
  /** Not to be sent before [ms since the page began]; Infinity while it is held. */
  due: number;
  dirty: boolean;
  /** Whether the browser has it on its disk. */
  kept: Promise<boolean>;
  tried: Body[];
}

/**
 * The one way to the server for what must not be lost: kept in the browser until it is acknowledged, sent one after the
 * other in the order it was put, again and again while the server is away, the newest of each key only.
 */
export class Outbox<Body, Answer> {
  private readonly entries = new Map<string, Entry<Body>>();
  private sending: string | null = null;
  private sendTimer: ReturnType<typeof setTimeout> | undefined;
  private keepTimer: ReturnType<typeof setTimeout> | undefined;
  private readonly over = new AbortController();
  private readonly counted = signal<{ readonly waiting: number; readonly held: readonly Held<Body>[] }>({
    waiting: 0,
    held: [],
  });
  /** How many wait to be sent, and what is held until a person decides. */
  readonly state = this.counted.asReadonly();
  private readonly events = new Subject<Sending<Body, Answer>>();
  readonly events$ = this.events.asObservable();
  /** Once what closed windows left is taken over. */
  readonly ready: Promise<void>;

  constructor(
    private readonly unsaved: Unsaved,
    private readonly options: OutboxOptions<Body, Answer>,
    private readonly pauses: Pauses,
  ) {
    this.ready = this.adopt();
    const { signal } = this.over;
    addEventListener('pagehide', () => this.leave(), { signal });
    addEventListener('online', () => this.flush(), { signal });
  }

  /** Sends and keeps nothing more. */
  stop(): void {
    this.over.abort();
    clearTimeout(this.sendTimer);
    clearTimeout(this.keepTimer);
    this.events.complete();
  }

  private async adopt(): Promise<void> {
    for (const { key, value } of await this.unsaved.adopt(this.options.box, this.options.former)) {
      const body = this.options.unpack(value);
      if (body !== null && !this.entries.has(key))
        this.entries.set(key, { body, due: 0, dirty: false, kept: Promise.resolve(true), tried: [] });
    }
    this.count();
    this.wake();
  }

  private count(): void {
    const held = [...this.entries].filter(([, { due }]) => due === Infinity);
    this.counted.set({
      waiting: this.entries.size - held.length,
      held: held.map(([key, { body }]) => ({ key, body })),
    });
  }

  /** What waits under a key, or is on its way. */
  waiting(key: string): Body | null {
    return this.entries.get(key)?.body ?? null;
  }

  /** Once nothing of a key is on its way, and what closed windows left is here. */
  async settled(key: string): Promise<void> {
    await this.ready;
    if (this.sending === key)
      await firstValueFrom(
        this.events$.pipe(filter((event) => event.key === key && event.kind !== 'started')),
      );
  }

  /** All that waits, in the order it was put. */
  all(): readonly Body[] {
    return [...this.entries.values()].map(({ body }) => body);
  }

  /** Sends something once the hand rests. */
  put(key: string, body: Body): void {
    this.keepAt(key, body, performance.now() + this.pauses.send);
    this.wake();
  }

  /** Keeps something without sending it: a person has to decide first. */
  hold(key: string, body: Body): void {
    this.keepAt(key, body, Infinity);
  }

  drop(key: string): void {
    this.entries.delete(key);
    this.count();
    this.unsaved.drop(this.options.box, key);
  }

  /** Sends all that waits without a pause. */
  flush(): void {
    for (const entry of this.entries.values()) if (entry.due !== Infinity) entry.due = 0;
    this.wake();
  }

  private keepAt(key: string, body: Body, due: number): void {
    const known = this.entries.get(key);
    const merged = known === undefined ? body : this.options.merge(known.body, body);
    this.entries.set(key, {
      kept: Promise.resolve(false),
      tried: [],
      ...known,
      body: merged,
      due,
      dirty: true,
    });
    this.count();
    this.keepTimer ??= setTimeout(() => this.keepNow(), this.pauses.keep);
  }

  private keepNow(): void {
    clearTimeout(this.keepTimer);
    this.keepTimer = undefined;
    for (const [key, entry] of this.entries) {
      if (!entry.dirty) continue;
      entry.dirty = false;
      entry.kept = this.unsaved.keep(this.options.box, key, this.options.pack(entry.body));
    }
  }

  /** The window closes: what waits is kept, and sent as far as that still goes. */
  private leave(): void {
    this.keepNow();
    for (const [key, { body, due }] of this.entries) if (due !== Infinity) this.options.sendLast(key, body);
  }

  private wake(): void {
    clearTimeout(this.sendTimer);
    if (this.over.signal.aborted || this.sending !== null || this.entries.size === 0) return;
    const due = Math.min(...[...this.entries.values()].map((entry) => entry.due));
    if (due === Infinity) return;
    this.sendTimer = setTimeout(() => void this.sendNext(), Math.max(0, due - performance.now()));
  }

  private async sendNext(): Promise<void> {
    const now = performance.now();
    const next = [...this.entries].find(([, entry]) => entry.due <= now);
    if (next === undefined || this.sending !== null) return this.wake();
    const [key, entry] = next;
    const { body } = entry;
    this.sending = key;
    this.events.next({ kind: 'started', key, body });
    const tried = [...entry.tried];
    entry.tried.push(body);
    try {
      const answer = await this.options.send(key, body, tried);
      this.taken(key, body, answer);
      this.events.next({ kind: 'sent', key, body, answer });
    } catch (error) {
      await this.failed(key, body, error);
    } finally {
      this.sending = null;
      this.wake();
    }
  }

  private taken(key: string, body: Body, answer: Answer): void {
    const entry = this.entries.get(key);
    if (entry === undefined) return;
    if (entry.body === body) {
      this.drop(key);
      return;
    }
    entry.body = this.options.follow(entry.body, body, answer);
    entry.tried = [];
    entry.dirty = true;
    this.keepTimer ??= setTimeout(() => this.keepNow(), this.pauses.keep);
  }

  private async failed(key: string, body: Body, error: unknown): Promise<void> {
    const entry = this.entries.get(key);
    if (entry === undefined) return;
    this.keepNow();
    const final = this.options.isFinal(error);
    // Something newer may be right where this was wrong.
    if (entry.body === body) entry.due = final ? Infinity : performance.now() + this.pauses.retry;
    this.count();
    const kept = await entry.kept;
    this.events.next(
      final ? { kind: 'refused', key, body, error, kept } : { kind: 'failed', key, error, kept },
    );
  }
}
