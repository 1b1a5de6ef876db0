import { inject, Injectable, InjectionToken, signal } from '@angular/core';
import {
  API,
  type ClockAnswer,
  type EventsAnswer,
  type Fault,
  LIMITS,
  type RunAnswer,
  type RunEvent,
  type RunSummary,
} from '@zaffet/contract';
import { Subject } from 'rxjs';
import { Door } from '../data/door';
import { now } from '../data/fresh';
import { RunStore, type Telling } from './run-store';
import { ShopClock } from './shop-clock';

/** Waits [ms]: after a failure, doubling, up to the longest; and how long a request may hang. */
export interface RunPauses {
  readonly first: number;
  readonly longest: number;
  readonly patience: number;
  /** Before a stream that was refused is asked for again. */
  readonly reopen: number;
}
export const RUN_PAUSES = new InjectionToken<RunPauses>('run pauses', {
  providedIn: 'root',
  factory: () => ({ first: 500, longest: 30_000, patience: 10_000, reopen: 2000 }),
});

/** How it stands with what was told here. */
export interface BoxState {
  /** Events the server has not got. */
  readonly unsent: number;
  /** The server was not reached the last time. */
  readonly away: boolean;
  /** False where only this page keeps what is unsent. */
  readonly kept: boolean;
  /** What to add to this device's clock for the server's [ms]. */
  readonly offsetMs: number;
  /** What the server would not take, in its words. */
  readonly refused: string | null;
}

/** What came in of a run. */
export interface RunNews {
  readonly runId: string;
  readonly events: readonly RunEvent[];
}

/** What the server says the same of each time it is sent. */
class Unreadable extends Error {}

/** Names one sender of all tabs, where the browser has locks. */
const LOCK = 'zaffet-runs-outbox';
const CHANNEL = 'zaffet-runs';

/**
 * The way of runs to the server and back: kept on the device first, sent again and again while the server is away, each
 * event once by its id; what others told is fetched as soon as there is more.
 */
@Injectable({ providedIn: 'root' })
export class RunBox {
  private readonly pauses = inject(RUN_PAUSES);
  private readonly door = inject(Door);
  private readonly store = new RunStore((kept) => this.set({ kept }));
  private readonly ready = this.start();
  private readonly news = new Subject<RunNews>();
  readonly news$ = this.news.asObservable();
  private readonly stands = signal<BoxState>({
    unsent: 0,
    away: false,
    kept: true,
    offsetMs: 0,
    refused: null,
  });
  readonly state = this.stands.asReadonly();
  private readonly channel = 'BroadcastChannel' in globalThis ? new BroadcastChannel(CHANNEL) : null;
  private wait = this.pauses.first;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private clock = new ShopClock();
  private sendingFails = false;
  private streamDown = false;
  private readonly refusals = new Set<string>();

  private async start(): Promise<void> {
    await this.store.open();
    const offset = await this.store.fact('offset');
    this.clock = new ShopClock(offset);
    this.set({ offsetMs: offset ?? 0 });
    this.channel?.addEventListener('message', ({ data }: MessageEvent<RunNews>) => this.news.next(data));
    addEventListener('online', () => this.poke());
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'visible') this.poke();
    });
    this.poke();
  }

  private set(some: Partial<BoxState>): void {
    this.stands.update((before) => ({ ...before, ...some }));
  }

  /** By the server's clock, as far as it is known [ms since 1970]. */
  now(): number {
    return now().getTime() + this.stands().offsetMs;
  }

  /** Tells what happened, now or at another moment [ms since 1970]; resolves once it is kept. */
  async tell(runId: string, tellings: readonly Telling[], at = now().getTime()): Promise<RunEvent[]> {
    await this.ready;
    const { events, kept } = await this.store.add(runId, tellings, at, this.clock.offsetMs);
    this.set({ unsent: this.stands().unsent + events.length, kept });
    this.channel?.postMessage({ runId, events } satisfies RunNews);
    this.poke();
    return events;
  }

  /** What this device knows of a run. */
  async known(runId: string): Promise<RunEvent[]> {
    await this.ready;
    return this.store.eventsOf(runId);
  }

  /** Fetches what others told of a run. @throws where the server cannot be reached */
  async fetch(runId: string): Promise<void> {
    await this.ready;
    // The server does not know it yet; the line tells when it does.
    if (await this.isUnknown(runId)) return;
    const [seenKey, lastKey] = [`seen ${runId}`, `last ${runId}`];
    /** What the server has, where it tells the run from its beginning again. */
    let again: Set<string> | null = null;
    for (;;) {
      const seen = (await this.store.fact(seenKey)) ?? 0;
      const last = await this.store.textFact(lastKey);
      const query = new URLSearchParams({ after: String(seen), ...(last === null ? {} : { last }) });
      const answer = await this.timed<RunAnswer>(`${API.runEvents(runId)}?${query.toString()}`).catch(
        async (error: unknown) => {
          // The server had it, and an older state of it was restored.
          if (error instanceof Unreadable && seen > 0) await this.sendAgain(runId, new Set());
          throw error;
        },
      );
      const newest = answer.events.at(-1);
      if (newest === undefined) break;
      if (seen > 0 && answer.events[0]!.seq === 1) again = new Set();
      const events = answer.events.map(({ event }) => event);
      for (const { id } of events) again?.add(id);
      await this.store.taken(runId, events);
      await this.store.remember(seenKey, newest.seq);
      await this.store.remember(lastKey, newest.event.id);
      this.news.next({ runId, events });
    }
    if (again !== null) await this.sendAgain(runId, again);
  }

  /** Sends what this device knows of a run and the server lacks. @param there - ids the server has */
  private async sendAgain(runId: string, there: ReadonlySet<string>): Promise<void> {
    if (there.size === 0) await this.store.remember(`seen ${runId}`, 0);
    await this.store.waitAgain(runId, there);
    this.poke();
  }

  /** The server has not got the run's beginning yet. */
  private async isUnknown(runId: string): Promise<boolean> {
    const waiting = await this.store.waiting();
    return waiting.some((entry) => entry.runId === runId && entry.event.kind === 'run-begun');
  }

  /** Until when a run's alarms were heard on this device [ms since 1970]; null where nobody ever listened. */
  async heardUntil(runId: string): Promise<number | null> {
    await this.ready;
    return this.store.fact(`heard ${runId}`);
  }
  async hear(runId: string, until: number): Promise<void> {
    await this.ready;
    await this.store.remember(`heard ${runId}`, until);
  }

  /** Runs the server knows, newest first. @throws where it cannot be reached */
  async runs(): Promise<readonly RunSummary[]> {
    return this.ask<readonly RunSummary[]>(API.runs);
  }

  /** Goes on fetching what others tell of a run, until it is stopped. */
  follow(runId: string): () => void {
    const down = (is: boolean): void => {
      this.streamDown = is;
      this.tellAway();
    };
    const more = (): void => void this.fetch(runId).catch(() => undefined);
    let source: EventSource | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let isOver = false;
    const open = async (): Promise<void> => {
      await this.ready;
      const isUnknown = await this.isUnknown(runId);
      if (isOver) return;
      if (isUnknown) {
        timer = setTimeout(() => void open(), this.pauses.reopen);
        return;
      }
      const opened = new EventSource(API.runStream(runId));
      source = opened;
      opened.onmessage = more;
      opened.onopen = (): void => {
        down(false);
        this.poke();
        more();
      };
      opened.onerror = (): void => {
        down(true);
        if (opened.readyState !== EventSource.CLOSED) return;
        // A line that is refused says not why; an answer does. The browser does not try it again by itself.
        more();
        timer = setTimeout(() => void open(), this.pauses.reopen);
      };
    };
    void open();
    return () => {
      isOver = true;
      clearTimeout(timer);
      source?.close();
      down(false);
    };
  }

  /** The server is away while sending fails, or while the line to it is broken. */
  private tellAway(): void {
    this.set({ away: this.sendingFails || this.streamDown });
  }

  /** Sends at once, however often it failed before. */
  poke(): void {
    this.wait = this.pauses.first;
    this.soon(0);
  }

  private soon(after: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.turn(), after);
  }

  private async turn(): Promise<void> {
    try {
      // One tab sends at a time; where locks are missing every tab does, and the ids keep it harmless.
      const more =
        'locks' in navigator ? await navigator.locks.request(LOCK, () => this.send()) : await this.send();
      this.wait = this.pauses.first;
      this.sendingFails = false;
      this.tellAway();
      if (more) this.soon(0);
    } catch {
      this.sendingFails = true;
      this.tellAway();
      this.soon(this.wait * (0.5 + Math.random()));
      this.wait = Math.min(this.pauses.longest, this.wait * 2);
    }
  }

  private async send(): Promise<boolean> {
    await this.ready;
    // What is told must say when: first of all it is asked what the time is.
    if (!this.clock.asked) await this.timed<ClockAnswer>(API.clock);
    await this.place();
    const waiting = (await this.store.waiting()).filter(({ event }) => !this.refusals.has(event.id));
    this.set({ unsent: waiting.length, ...(waiting.length === 0 ? { kept: true } : {}) });
    const first = waiting[0];
    if (first === undefined) {
      await this.store.settled();
      return false;
    }
    const { runId } = first;
    const events = waiting
      .filter((one) => one.runId === runId)
      .slice(0, LIMITS.events.max)
      .map(({ event }) => event);
    const answer = await this.offer(runId, events);
    const recounted = events.find(({ id }) =>
      answer.refused.some((one) => one.id === id && one.reason === 'number-taken'),
    );
    if (recounted !== undefined) {
      await this.store.recount(recounted.device);
      return true;
    }
    for (const { id, message } of answer.refused) {
      this.refusals.add(id);
      this.set({ refused: message });
    }
    const has = events.filter(({ id }) => answer.taken[id] !== undefined);
    await this.store.taken(runId, has);
    this.set({ unsent: waiting.length - has.length });
    return waiting.length > has.length && has.length > 0;
  }

  /** What was told before the workshop's clock was known gets its place in it, here and in every tab. */
  private async place(): Promise<void> {
    const placed = await this.store.place(this.stands().offsetMs);
    for (const runId of new Set(placed.map((one) => one.runId))) {
      const news: RunNews = {
        runId,
        events: placed.filter((one) => one.runId === runId).map(({ event }) => event),
      };
      this.news.next(news);
      this.channel?.postMessage(news);
    }
  }

  /** Offers events; where the server cannot read one of them, each by itself, so that the others pass. */
  private async offer(runId: string, events: readonly RunEvent[]): Promise<EventsAnswer> {
    try {
      return await this.timed<EventsAnswer>(API.runEvents(runId), { events });
    } catch (error) {
      if (!(error instanceof Unreadable)) throw error;
      const { id } = events[0]!;
      if (events.length === 1)
        return { taken: {}, refused: [{ id, reason: 'id-taken', message: error.message }], now: '' };
      const all: EventsAnswer[] = [];
      for (const event of events) all.push(await this.offer(runId, [event]));
      return {
        taken: Object.assign({}, ...all.map(({ taken }) => taken)) as EventsAnswer['taken'],
        refused: all.flatMap(({ refused }) => refused),
        now: '',
      };
    }
  }

  /** Asks, and learns from the answer what the workshop's clock says. */
  private async timed<Answer extends ClockAnswer>(address: string, body?: unknown): Promise<Answer> {
    const asked = now().getTime();
    const from = performance.now();
    const answer = await this.ask<Answer>(address, body);
    if (this.clock.take(asked, performance.now() - from, Date.parse(answer.now))) {
      const offsetMs = this.clock.offsetMs!;
      this.set({ offsetMs });
      await this.store.remember('offset', offsetMs);
    }
    return answer;
  }

  private async ask<Answer>(address: string, body?: unknown): Promise<Answer> {
    const answer = await fetch(address, {
      ...(body === undefined
        ? {}
        : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
      // A request that hangs, at a sleeping access point, is given up.
      signal: AbortSignal.timeout(this.pauses.patience),
    });
    this.door.heard(answer.status);
    // A run whose beginning was refused is not there for what follows either: others must not wait for it.
    if (answer.status === 400 || answer.status === 404)
      throw new Unreadable(((await answer.json()) as Fault).message);
    if (!answer.ok) throw new Error(String(answer.status));
    return (await answer.json()) as Answer;
  }
}
