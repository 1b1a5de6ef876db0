import { type RunBodies, type RunEvent, type RunEventKind } from '@zaffet/contract';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

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
}

interface Store extends DBSchema {
  events: { key: string; value: KeptHere; indexes: { waiting: number; runId: string } };
  facts: { key: string; value: string | number };
}

const NAME = 'zaffet-runs';
/** Written through to the disk before the hand is told that it is kept. */
const STRICT = { durability: 'strict' } as const;

/** A random id, also where the page is not in a secure context. */
export function randomId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

/**
 * What was done at the bench, kept on this device: every event is written through to the disk before it counts as kept.
 * Where the browser's store refuses, events live in this page alone, which has to say so.
 */
export class RunStore {
  private db: IDBPDatabase<Store> | null = null;
  private device = '';
  private n = 0;
  private readonly here = new Map<string, KeptHere>();

  /** Opens the browser's store; without one the page is all there is. */
  async open(): Promise<void> {
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

  /** The browser threw its store away under the open page: what only this page knows goes into a new one. */
  private async restore(): Promise<void> {
    await this.open();
    const { db } = this;
    if (db === null) return;
    await db.put('facts', this.device, 'device');
    await db.put('facts', this.n, 'n');
    for (const kept of this.here.values()) await db.put('events', kept);
  }

  /**
   * Makes events of what was told, and keeps them.
   * @returns the events, and whether the disk has them
   */
  async add(
    runId: string,
    tellings: readonly Telling[],
    at: number,
    offsetMs: number,
  ): Promise<{ events: RunEvent[]; kept: boolean }> {
    const made = (device: string, first: number): RunEvent[] =>
      tellings.map((telling, i) => {
        const stamp = { id: randomId(), device, n: first + i, at: new Date(at).toISOString(), offsetMs };
        return { ...stamp, ...telling } as RunEvent;
      });
    const events = (await this.write(runId, made).catch(() => null)) ?? null;
    if (events !== null) return { events, kept: true };
    this.device ||= randomId();
    const alone = made(this.device, this.n + 1);
    this.n += alone.length;
    for (const event of alone) this.here.set(event.id, { runId, event, waiting: 1 });
    return { events: alone, kept: false };
  }

  /** Events and their count in one transaction, so that two tabs of a device share one row of counts. */
  private async write(
    runId: string,
    made: (device: string, first: number) => RunEvent[],
  ): Promise<RunEvent[] | null> {
    if (this.db === null) return null;
    const work = this.db.transaction(['events', 'facts'], 'readwrite', STRICT);
    // Watched from the start: an abort must not go unhandled while another request is awaited.
    work.done.catch(() => undefined);
    const facts = work.objectStore('facts');
    const device = ((await facts.get('device')) as string | undefined) ?? (this.device || randomId());
    const n = Math.max(((await facts.get('n')) as number | undefined) ?? 0, this.n);
    const events = made(device, n + 1);
    await Promise.all([
      facts.put(device, 'device'),
      facts.put(n + events.length, 'n'),
      ...events.map((event) => work.objectStore('events').put({ runId, event, waiting: 1 })),
    ]);
    await work.done;
    this.device = device;
    this.n = n + events.length;
    for (const event of events) this.here.set(event.id, { runId, event, waiting: 1 });
    return events;
  }

  /** Events of a run that this device knows. */
  async eventsOf(runId: string): Promise<RunEvent[]> {
    const stored = (await this.db?.getAllFromIndex('events', 'runId', runId).catch(() => [])) ?? [];
    const own = [...this.here.values()].filter((one) => one.runId === runId);
    const all = new Map([...stored, ...own].map(({ event }) => [event.id, event]));
    return [...all.values()];
  }

  /** What the server has not got, in the order it was made. */
  async waiting(): Promise<KeptHere[]> {
    const stored = (await this.db?.getAllFromIndex('events', 'waiting').catch(() => [])) ?? [];
    const all = new Map([...stored, ...this.here.values()].map((one) => [one.event.id, one]));
    return [...all.values()].sort((a, b) => a.event.n - b.event.n);
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

  /**
   * Begins a new count under a new name: this device was set back to what it was before. What waits is counted anew.
   * @param told - the name the server knows other events of
   */
  async recount(told: string): Promise<void> {
    const waiting = (await this.waiting()).filter(({ event }) => event.device === told);
    const device = randomId();
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

  async remember(key: string, value: number): Promise<void> {
    await this.db?.put('facts', value, key).catch(() => undefined);
  }
}
