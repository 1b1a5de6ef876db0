import { Injectable } from '@angular/core';
import { newId } from './fresh';

const PREFIX = 'zaffet-unsaved';

/** Something that waited to be sent when its window went. */
export interface Orphan {
  readonly key: string;
  readonly value: unknown;
}

/**
 * What the server has not got yet, kept in this browser for each window by itself, so that two windows on one plan do
 * not write over each other, and a closed one loses nothing. A window that is open holds a lock of the browser's; what
 * belongs to none is taken over by the next window that looks.
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

  private name(tab: string, box: string, key: string): string {
    return [PREFIX, tab, box, key].join(' ');
  }

  /** @returns whether the browser keeps it */
  keep(box: string, key: string, value: unknown): boolean {
    try {
      localStorage.setItem(this.name(this.tab, box, key), JSON.stringify(value));
      return true;
    } catch {
      return false;
    }
  }

  drop(box: string, key: string): void {
    try {
      localStorage.removeItem(this.name(this.tab, box, key));
    } catch {
      // Where nothing can be kept there is nothing to drop.
    }
  }

  /**
   * Takes over what closed windows left in a box, a key at most once; of several the others wait for another time.
   * @param former - how names began that an older Zaffet kept such things under, their keys at the end
   */
  async adopt(box: string, former?: string): Promise<Orphan[]> {
    await this.held;
    const open = await this.openTabs();
    const found = new Map<string, Orphan>();
    try {
      for (const name of Object.keys(localStorage)) {
        const told =
          former !== undefined && name.startsWith(former)
            ? this.name('', box, name.slice(former.length))
            : name;
        const [prefix, tab = '', itsBox, key = ''] = told.split(' ');
        if (prefix !== PREFIX || itsBox !== box || open.has(tab) || found.has(key)) continue;
        const own = this.name(this.tab, box, key);
        const text = localStorage.getItem(name);
        if (text === null || localStorage.getItem(own) !== null) continue;
        localStorage.removeItem(name);
        localStorage.setItem(own, text);
        found.set(key, { key, value: JSON.parse(text) as unknown });
      }
    } catch {
      // A browser that keeps nothing has nothing left over.
    }
    return [...found.values()];
  }

  private async openTabs(): Promise<Set<string>> {
    const { held = [] } = (await this.locks?.query()) ?? {};
    const tabs = held.map(({ name = '' }) => name.split(' ')).filter(([prefix]) => prefix === PREFIX);
    return new Set([this.tab, ...tabs.map(([, tab = '']) => tab)]);
  }
}
