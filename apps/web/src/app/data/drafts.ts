import { Injectable } from '@angular/core';
import { type Plan } from '@zaffet/contract';

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

  find(id: string): Draft | null {
    try {
      const text = localStorage.getItem(this.key(id));
      return text === null ? null : (JSON.parse(text) as Draft);
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
}
