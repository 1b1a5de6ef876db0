import { Injectable, signal } from '@angular/core';
import { isFilmStep, type Plan, type PlanStep } from '@zaffet/contract';

/** Steps taken up to be put in elsewhere, with the painter's own media they are made of. */
export interface Clip {
  readonly steps: readonly PlanStep[];
  readonly media: Plan['media'];
}

/** What was copied last: held while Zaffet is open, whichever plan is. */
@Injectable({ providedIn: 'root' })
export class StepsClip {
  readonly held = signal<Clip | null>(null);

  take(steps: readonly PlanStep[], media: Plan['media']): void {
    if (steps.length === 0) return;
    const laid = new Set(steps.filter(isFilmStep).map(({ medium }) => medium));
    this.held.set({ steps, media: media.filter(({ key }) => laid.has(key)) });
  }
}
