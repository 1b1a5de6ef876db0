import { Injectable } from '@angular/core';
import { type PlanSummary, type StoredPlan } from '@zaffet/contract';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

interface Store extends DBSchema {
  plans: { key: string; value: StoredPlan };
}

const NAME = 'zaffet-plans';

/** Plans as this device saw them last, so that they open while the server is away. A browser that keeps nothing has none. */
@Injectable({ providedIn: 'root' })
export class PlanCache {
  private readonly database: Promise<IDBPDatabase<Store> | null> = openDB<Store>(NAME, 1, {
    upgrade: (to) => void to.createObjectStore('plans', { keyPath: 'id' }),
    blocking: (_old, _new, event) => (event.target as IDBDatabase).close(),
  }).catch(() => null);

  async keep(plan: StoredPlan): Promise<void> {
    await (await this.database)?.put('plans', plan).catch(() => undefined);
  }

  async read(id: string): Promise<StoredPlan | null> {
    return (await (await this.database)?.get('plans', id).catch(() => undefined)) ?? null;
  }

  async list(): Promise<PlanSummary[]> {
    const all = (await (await this.database)?.getAll('plans').catch(() => [])) ?? [];
    return all.map(({ plan: _plan, ...summary }) => summary);
  }

  /** Forgets all but those that are still there. */
  async keepOnly(list: readonly PlanSummary[]): Promise<void> {
    const db = await this.database;
    const there = new Set(list.map(({ id }) => id));
    const ids = (await db?.getAllKeys('plans').catch(() => [])) ?? [];
    for (const id of ids) if (!there.has(id)) await db?.delete('plans', id).catch(() => undefined);
  }
}
