import { Injectable } from '@angular/core';
import { migratePlan, type Plan } from '@zaffet/contract';
import { type Change } from '../shelf/shelf.feature';

const SHELF = 'zaffet-shelf-draft';

export interface Draft {
  readonly plan: Plan;
  /** The revision the draft grew from. */
  readonly revision: number;
}

/** Changes the server has not acknowledged, kept in the browser so that a closed window loses nothing. */
@Injectable({ providedIn: 'root' })
export class Drafts {
  private key(id: string): string {
    return `zaffet-draft-${id}`;
  }

  keep(id: string, draft: Draft): void {
    try {
      localStorage.setItem(this.key(id), JSON.stringify(draft));
    } catch {
      // A full or forbidden store only loses the second safety net; the save itself goes on.
    }
  }

  /** A draft may have been kept by an older Zaffet, before an update. */
  find(id: string): Draft | null {
    try {
      const text = localStorage.getItem(this.key(id));
      if (text === null) return null;
      const draft = JSON.parse(text) as Draft;
      return { ...draft, plan: migratePlan(draft.plan) as Plan };
    } catch {
      return null;
    }
  }

  drop(id: string): void {
    try {
      localStorage.removeItem(this.key(id));
    } catch {
      // Nothing to drop where nothing could be kept.
    }
  }

  keepShelf(unsaved: readonly Change[]): void {
    try {
      if (unsaved.length === 0) localStorage.removeItem(SHELF);
      else localStorage.setItem(SHELF, JSON.stringify(unsaved));
    } catch {
      // As for plans.
    }
  }

  findShelf(): readonly Change[] {
    try {
      const text = localStorage.getItem(SHELF);
      return text === null ? [] : (JSON.parse(text) as readonly Change[]);
    } catch {
      return [];
    }
  }
}
