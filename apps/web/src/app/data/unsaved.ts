import { Injectable } from '@angular/core';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { newId } from './fresh';

const PREFIX = 'zaffet-unsaved';

/** Something that waited to be sent when its window went. */
export interface Orphan {
  readonly key: string;
  readonly value: unknown;
}

/** What is kept under a name since a moment; null once it was dropped, so that an older copy is known for one. */
interface Kept {
  readonly at: number;
  readonly text: string | null;
}
interface Store extends DBSchema {
  kept: { key: string; value: Kept };
}

/** As the page's own storage has it: the moment before the text; what an older Zaffet kept there has none. */
const told = ({ at, text }: Kept): string => `${at} ${text}`;
function read(stored: string): Kept {
  const [, at, text] = /^(\d+) (.*)$/s.exec(stored) ?? [];
  return at === undefined ? { at: 0, text: stored } : { at: Number(at), text: text! };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

/**
 * What the server has not got yet, kept in this browser for each window by itself, so that two windows on one plan do
 * not write over each other, and a closed one loses nothing. It goes into the browser's database, written through to the
 * disk, for a browser that is killed has not written its storage yet; and into the storage, which takes it at once while
 * a window closes. A window that is open holds a lock of the browser's; what belongs to none is taken over by the next
 * window that looks.
 */
@Injectable({ providedIn: 'root' })
export class Unsaved {
  private readonly tab = newId();
  private readonly locks: LockManager | undefined = navigator.locks;
  /** Once this window holds its lock. */
  private readonly held = new Promise<void>((resolve) => {
    if (this.locks === undefined) resolve();
    else
      void this.locks.request(`${PREFIX} ${this.tab}`, () => {
        resolve();
        return new Promise(() => undefined);
      });
  });
  private readonly database: Promise<IDBPDatabase<Store> | null> = openDB<Store>(PREFIX, 1, {
    upgrade: (to) => void to.createObjectStore('kept'),
    blocking: (_old, _new, event) => (event.target as IDBDatabase).close(),
  }).catch(() => null);
  /** One after the other, as they were told. */
  private turn: Promise<unknown> = Promise.resolve();
  private last = 0;

  private name(tab: string, box: string, key: string): string {
    return [PREFIX, tab, box, key].join(' ');
  }

  private now(): number {
    this.last = Math.max(Date.now(), this.last + 1);
    return this.last;
  }

  /** @returns whether the browser has it on its disk; where it has no database, whether its storage took it */
  keep(box: string, key: string, value: unknown): Promise<boolean> {
    const name = this.name(this.tab, box, key);
    const kept = { at: this.now(), text: JSON.stringify(value) };
    let stored = true;
    try {
      localStorage.setItem(name, told(kept));
    } catch {
      stored = false;
    }
    return this.write(name, kept).then((written) => written ?? stored);
  }

  drop(box: string, key: string): void {
    const name = this.name(this.tab, box, key);
    try {
      localStorage.removeItem(name);
    } catch {
      // Where nothing can be kept there is nothing to drop.
    }
    void this.write(name, { at: this.now(), text: null });
  }

  /** @returns whether it is on the disk; null where there is no database */
  private write(name: string, kept: Kept): Promise<boolean | null> {
    const written = this.turn.then(async () => {
      const db = await this.database;
      if (db === null) return null;
      try {
        const work = db.transaction('kept', 'readwrite', { durability: 'strict' });
        await Promise.all([work.store.put(kept, name), work.done]);
        return true;
      } catch {
        return false;
      }
    });
    this.turn = written;
    return written;
  }

  /**
   * Takes over what closed windows left in a box, a key at most once; of several the others wait for another time.
   * @param former - how names began that an older Zaffet kept such things under, their keys at the end
   */
  async adopt(box: string, former?: string): Promise<Orphan[]> {
    await this.held;
    const open = await this.openTabs();
    const found = new Map<string, Orphan>();
    const all = await this.everything();
    for (const [name, { text }] of all) {
      const known =
        former !== undefined && name.startsWith(former)
          ? this.name('', box, name.slice(former.length))
          : name;
      const [prefix, tab = '', itsBox, key = ''] = known.split(' ');
      if (prefix !== PREFIX || itsBox !== box || open.has(tab) || found.has(key)) continue;
      if (text !== null) {
        if (all.get(this.name(this.tab, box, key))?.text != null) continue;
        const value = parsed(text);
        // What cannot be read stays where it is.
        if (value === undefined) continue;
        found.set(key, { key, value });
        await this.keep(box, key, value);
      }
      await this.forget(name);
    }
    return [...found.values()];
  }

  /** All that is kept by name, of two copies the newer. */
  private async everything(): Promise<Map<string, Kept>> {
    const all = new Map<string, Kept>();
    const take = (name: string, kept: Kept): void => {
      if ((all.get(name)?.at ?? -1) < kept.at) all.set(name, kept);
    };
    try {
      for (const name of Object.keys(localStorage)) take(name, read(localStorage.getItem(name)!));
    } catch {
      // A browser that keeps nothing has nothing left over.
    }
    try {
      const db = await this.database;
      for (const name of (await db?.getAllKeys('kept')) ?? []) take(name, (await db!.get('kept', name))!);
    } catch {
      // What the storage has is still there.
    }
    return all;
  }

  /** Takes what a closed window left out of both. */
  private async forget(name: string): Promise<void> {
    try {
      localStorage.removeItem(name);
    } catch {
      // It is not there then.
    }
    await (await this.database)?.delete('kept', name).catch(() => undefined);
  }

  private async openTabs(): Promise<Set<string>> {
    const { held = [] } = (await this.locks?.query()) ?? {};
    const tabs = held.map(({ name = '' }) => name.split(' ')).filter(([prefix]) => prefix === PREFIX);
    return new Set([this.tab, ...tabs.map(([, tab = '']) => tab)]);
  }
}
