import { type RunBodies, type RunEvent, type RunEventKind } from '@zaffet/contract';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { newId } from '../data/fresh';
import { Journal, leftJournals } from './journal';

/** Something to be told of a run: what happened, without where and when. */
export type Telling = {
  readonly [Kind in RunEventKind]: { readonly kind: Kind } & RunBodies[Kind];
}[RunEventKind];

/** An event as this device keeps it. */
export interface KeptHere {
  readonly runId: string;
  readonly event: RunEvent;
  /** 1 until the server has it; then gone, and out of the index with it. */
  readonly waiting?: 1;
  /** 1 where the workshop's clock was not known when it was told: its offset is a guess until it is. */
  readonly unplaced?: 1;
}

interface Store extends DBSchema {
  events: { key: string; value: KeptHere; indexes: { waiting: number; runId: string } };
  facts: { key: string; value: string | number };
}

const NAME = 'zaffet-runs';
/** Written through to the disk before the hand is told that it is kept. */
const STRICT = { durability: 'strict' } as const;

/**
 * What was done at the bench, kept on this device: every event is written through to the disk before it counts as kept,
 * into the browser's database and into a journal, which outlives a database lost on a full disk. Where neither takes them
 * events live in this page alone, which has to say so.
 */
export class RunStore {
  private db: IDBPDatabase<Store> | null = null;
  private journal: Journal | null = null;
  /** The browser has journals; one that was lost is begun anew. */
  private journals = false;
  /** Something that waits is kept by this page alone. */
  private unsafe = false;
  private device = '';
  private n = 0;
  private readonly here = new Map<string, KeptHere>();

  /** @param lost - told whether all is kept, once the browser has thrown its store away */
  constructor(private readonly lost: (kept: boolean) => void = () => undefined) {}

  /** Opens the browser's stores, and takes up what tabs that are gone have left; without any the page is all there is. */
  async open(): Promise<void> {
    await this.openDatabase();
    this.journal = await Journal.open(newId()).catch(() => null);
    this.journals = this.journal !== null;
    await this.takeUp().catch(() => undefined);
  }

  private async openDatabase(): Promise<void> {
    try {
      this.db = await openDB<Store>(NAME, 1, {
        upgrade(to) {
          const events = to.createObjectStore('events', { keyPath: 'event.id' });
          events.createIndex('waiting', 'waiting');
          events.createIndex('runId', 'runId');
          to.createObjectStore('facts');
        },
        // An older page in another tab must not hold up a newer one.
        blocking: (_old, _new, event) => (event.target as IDBDatabase).close(),
        terminated: () => void this.restore(),
      });
    } catch {
      this.db = null;
    }
  }

  /**
   * Events that a tab which is gone had not sent as far as it knew: whatever waits goes on into this tab's journal, for the
   * database may be lost later. One it has lost already waits again; the server knows by its id whether it has it.
   */
  private async takeUp(): Promise<void> {
    for (const { entries, drop } of await leftJournals()) {
      const waiting: KeptHere[] = [];
      // What got its place in time stands there again below what it was.
      const newest = new Map((entries as readonly KeptHere[]).map((kept) => [kept.event.id, kept]));
      for (const kept of newest.values()) {
        const known = await this.db?.get('events', kept.event.id).catch(() => undefined);
        if (known === undefined || known.waiting === 1) waiting.push(known ?? kept);
        if (known === undefined) await this.db?.put('events', kept).catch(() => undefined);
      }
      for (const kept of waiting) this.here.set(kept.event.id, kept);
      if (waiting.length === 0 || (await this.journal?.append(waiting)) === true) await drop();
    }
  }

  /** The browser threw its store away under the open page: what only this page knows goes into a new one. */
  private async restore(): Promise<void> {
    this.unsafe = this.here.size > 0;
    await this.openDatabase();
    const stored = await this.storeAll().catch(() => false);
    this.unsafe = !((await this.journaled([])) ?? stored);
    this.lost(!this.unsafe);
  }

  private async storeAll(): Promise<boolean> {
    const { db } = this;
    if (db === null) return false;
    await db.put('facts', this.device, 'device');
    await db.put('facts', this.n, 'n');
    for (const kept of this.here.values()) await db.put('events', kept);
    return true;
  }

  /**
   * Writes events to the journal. One that refuses them may be gone with the whole of the browser's store, or full: another
   * is begun with all that waits.
   * @returns whether all is in it; null where the browser has no such files
   */
  private async journaled(entries: readonly KeptHere[]): Promise<boolean | null> {
    if (!this.journals) return null;
    if (!this.unsafe && (await this.journal?.append(entries)) === true) return true;
    this.journal?.close();
    this.journal = await Journal.open(newId()).catch(() => null);
    return (await this.journal?.append([...this.here.values()])) === true;
  }

  /**
   * Makes events of what was told, and keeps them.
   * @param offsetMs - from this device's clock to the workshop's; null while that is not known
   * @returns the events, and whether the disk has all that waits
   */
  async add(
    runId: string,
    tellings: readonly Telling[],
    at: number,
    offsetMs: number | null,
  ): Promise<{ events: RunEvent[]; kept: boolean }> {
    const made = (device: string, first: number): RunEvent[] =>
      tellings.map((telling, i) => {
        const when = { at: new Date(at).toISOString(), offsetMs: offsetMs ?? 0 };
        return { id: newId(), device, n: first + i, ...when, ...telling } as RunEvent;
      });
    const entry = (event: RunEvent): KeptHere => ({
      runId,
      event,
      waiting: 1,
      ...(offsetMs === null ? { unplaced: 1 } : {}),
    });
    const stored = await this.write(made, entry).catch(() => null);
    const events = stored ?? this.counted(made);
    const entries = events.map(entry);
    // Known here first: a journal is cleared only while nothing waits.
    for (const kept of entries) this.here.set(kept.event.id, kept);
    const written = await this.journaled(entries);
    if (written !== null) this.unsafe = !written;
    else if (stored === null) this.unsafe = true;
    return { events, kept: !this.unsafe };
  }

  /**
   * Gives what was told before the workshop's clock was known its place in it, before the server hears of it.
   * @returns what was placed
   */
  async place(offsetMs: number): Promise<KeptHere[]> {
    const placed = (await this.waiting())
      .filter(({ unplaced }) => unplaced === 1)
      .map(({ runId, event }): KeptHere => ({ runId, event: { ...event, offsetMs }, waiting: 1 }));
    if (placed.length === 0) return placed;
    for (const kept of placed) this.here.set(kept.event.id, kept);
    await this.put(placed).catch(() => undefined);
    await this.journaled(placed);
    return placed;
  }

  private async put(entries: readonly KeptHere[]): Promise<void> {
    const work = this.db?.transaction('events', 'readwrite', STRICT);
    if (work === undefined) return;
    work.done.catch(() => undefined);
    await Promise.all([...entries.map((kept) => work.store.put(kept)), work.done]);
  }

  /** Made where the database does not answer: counted by this page. */
  private counted(made: (device: string, first: number) => RunEvent[]): RunEvent[] {
    this.device ||= newId();
    const events = made(this.device, this.n + 1);
    this.n += events.length;
    return events;
  }

  /** The server has everything: the journal need not keep it. */
  async settled(): Promise<void> {
    if (this.here.size > 0) return;
    this.unsafe = false;
    await this.journal?.clear();
  }

  /** As the tab's end does. */
  close(): void {
    this.journal?.close();
    this.db?.close();
  }

  /** Events and their count in one transaction, so that two tabs of a device share one row of counts. */
  private async write(
    made: (device: string, first: number) => RunEvent[],
    entry: (event: RunEvent) => KeptHere,
  ): Promise<RunEvent[] | null> {
    if (this.db === null) return null;
    const work = this.db.transaction(['events', 'facts'], 'readwrite', STRICT);
    // Watched from the start: an abort must not go unhandled while another request is awaited.
    work.done.catch(() => undefined);
    const facts = work.objectStore('facts');
    const device = ((await facts.get('device')) as string | undefined) ?? (this.device || newId());
    const n = Math.max(((await facts.get('n')) as number | undefined) ?? 0, this.n);
    const events = made(device, n + 1);
    await Promise.all([
      facts.put(device, 'device'),
      facts.put(n + events.length, 'n'),
      ...events.map((event) => work.objectStore('events').put(entry(event))),
    ]);
    await work.done;
    this.device = device;
    this.n = n + events.length;
    return events;
  }

  /** Events of a run that this device knows. */
  async eventsOf(runId: string): Promise<RunEvent[]> {
    const stored = (await this.db?.getAllFromIndex('events', 'runId', runId).catch(() => [])) ?? [];
    const own = [...this.here.values()].filter((one) => one.runId === runId);
    const all = new Map([...stored, ...own].map(({ event }) => [event.id, event]));
    return [...all.values()];
  }

  /** What the server has not got, beginnings of runs first, in the order it was made. */
  async waiting(): Promise<KeptHere[]> {
    const stored = (await this.db?.getAllFromIndex('events', 'waiting').catch(() => [])) ?? [];
    const all = new Map([...stored, ...this.here.values()].map((one) => [one.event.id, one]));
    // A run that the server lacks begins with its plan, whoever told that.
    const rank = ({ event }: KeptHere): number => (event.kind === 'run-begun' ? 0 : event.n);
    return [...all.values()].sort((a, b) => rank(a) - rank(b));
  }

  /** Keeps events that the server has: own ones it took, and those of others. */
  async taken(runId: string, events: readonly RunEvent[]): Promise<void> {
    for (const { id } of events) this.here.delete(id);
    try {
      const work = this.db?.transaction('events', 'readwrite');
      if (work === undefined) return;
      work.done.catch(() => undefined);
      await Promise.all([...events.map((event) => work.store.put({ runId, event })), work.done]);
    } catch {
      // Marked or not, the server has them: what is sent again is known by its id.
    }
  }

  /** An older state of the server was restored: events of a run that it lacks wait again. @param there - ids it has */
  async waitAgain(runId: string, there: ReadonlySet<string>): Promise<void> {
    const stored = (await this.db?.getAllFromIndex('events', 'runId', runId).catch(() => [])) ?? [];
    const missing = stored.filter(({ event }) => !there.has(event.id));
    await this.put(missing.map(({ event }) => ({ runId, event, waiting: 1 }))).catch(() => undefined);
  }

  /**
   * Begins a new count under a new name: this device was set back to what it was before. What waits is counted anew.
   * @param told - the name the server knows other events of
   */
  async recount(told: string): Promise<void> {
    const waiting = (await this.waiting()).filter(({ event }) => event.device === told);
    const device = newId();
    const again = waiting.map((kept, i): KeptHere => ({
      ...kept,
      event: { ...kept.event, device, n: i + 1 },
    }));
    for (const kept of again) this.here.set(kept.event.id, kept);
    if (this.device === told) [this.device, this.n] = [device, again.length];
    const work = this.db?.transaction(['events', 'facts'], 'readwrite', STRICT);
    if (work === undefined) return;
    work.done.catch(() => undefined);
    const facts = work.objectStore('facts');
    await Promise.all(again.map((kept) => work.objectStore('events').put(kept)));
    // Where another tab has begun anew already, its name stands.
    if ((await facts.get('device')) === told) {
      await facts.put(device, 'device');
      await facts.put(again.length, 'n');
    }
    await work.done;
  }

  async fact(key: string): Promise<number | null> {
    const value = await this.db?.get('facts', key).catch(() => undefined);
    return typeof value === 'number' ? value : null;
  }

  async textFact(key: string): Promise<string | null> {
    const value = await this.db?.get('facts', key).catch(() => undefined);
    return typeof value === 'string' ? value : null;
  }

  async remember(key: string, value: number | string): Promise<void> {
    await this.db?.put('facts', value, key).catch(() => undefined);
  }
}
