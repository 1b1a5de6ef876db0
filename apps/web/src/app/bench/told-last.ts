import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { Units } from '../data/units';
import { BenchModel } from '../runs/bench-model';
import { runFeature } from '../runs/run.feature';
import { toldLines } from './told-line';

/** What was told last on this page: seen to be kept, and taken back at once where a finger slipped. */
@Component({
  selector: 'zf-told-last',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (line(); as told) {
      <p>{{ told.text }}</p>
      @if (told.free) {
        <button class="link" (click)="takeBack(told.id)">Take back</button>
      }
    }
  `,
  host: { 'aria-live': 'polite' },
  styleUrl: './answers.scss',
  styles: `
    :host {
      display: flex;
      flex: 1;
      gap: 8px;
      align-items: center;
      justify-content: end;
      min-width: 0;
    }
    p {
      display: -webkit-box;
      min-width: 0;
      margin: 0;
      overflow: hidden;
      color: var(--ink-2);
      font-size: 16px;
      line-height: 1.25;
      text-align: right;
      overflow-wrap: anywhere;
      -webkit-box-orient: vertical;
      -webkit-line-clamp: 2;
    }
    button {
      flex: none;
    }
    @media (max-width: 700px) {
      /* It would push the answers from under the finger. */
      :host {
        display: none;
      }
    }
  `,
})
export class ToldLast {
  private readonly store = inject(Store);
  private readonly model = inject(BenchModel);
  private readonly units = inject(Units).system;
  private readonly events = this.store.selectSignal(runFeature.selectEvents);
  private readonly last = this.store.selectSignal(runFeature.selectToldLast);

  protected readonly line = computed(() => {
    const [run, last] = [this.model.run(), this.last()];
    // Where an answer moved a window it says so itself, and takes it back.
    return run === null || last === null || this.model.moved()?.eventId === last
      ? null
      : (toldLines(this.events(), run, this.units()).find(({ id }) => id === last) ?? null);
  });

  protected takeBack(eventId: string): void {
    this.model.tell({ kind: 'taken-back', eventId });
  }
}
