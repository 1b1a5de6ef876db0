import { Injectable } from '@angular/core';
import { PLAN_VERSION, type Plan } from '@zaffet/contract';
import equal from 'fast-deep-equal';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** What can be undone and redone, nearest last and first. */
export interface UndoSteps {
  readonly past: readonly Plan[];
  readonly future: readonly Plan[];
}

interface Stored extends UndoSteps {
  readonly id: string;
  readonly version: number;
  readonly present: Plan;
}
interface Store extends DBSchema {
  undo: { key: string; value: Stored };
}

const NAME = 'zaffet-undo';

/** What can be undone in each plan, kept by this device over a reload. A browser that stores nothing keeps none. */
@Injectable({ providedIn: 'root' })
export class UndoStore {
  private readonly database: Promise<IDBPDatabase<Store> | null> = openDB<Store>(NAME, 1, {
    upgrade: (to) => void to.createObjectStore('undo', { keyPath: 'id' }),
    blocking: (_old, _new, event) => (event.target as IDBDatabase).close(),
  }).catch(() => null);

  /** Plans share what edits did not touch: stored together, that is stored once. */
  async keep(id: string, present: Plan, { past, future }: UndoSteps): Promise<void> {
    const database = await this.database;
    await database?.put('undo', { id, version: PLAN_VERSION, present, past, future }).catch(() => undefined);
  }

  /** What can be undone from a plan as it is opened; null where it is another than was left here. */
  async read(id: string, present: Plan): Promise<UndoSteps | null> {
    const stored = await (await this.database)?.get('undo', id).catch(() => undefined);
    if (stored === undefined || stored.version !== PLAN_VERSION || !equal(stored.present, present))
      return null;
    return { past: stored.past, future: stored.future };
  }
}
