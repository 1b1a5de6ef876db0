import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { Clock } from '../data/clock';
import { BenchModel } from '../runs/bench-model';
import { runFeature } from '../runs/run.feature';
import { toldLines } from './told-line';

/** What was told last on this page: seen to be kept, and taken back at once where a finger slipped. */
@Component({
  selector: 'zf-told-last',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (line(); as told) {
      <p>{{ at() }} {{ told.text }}</p>
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
      min-width: 0;
      margin: 0;
      overflow: hidden;
      color: var(--ink-2);
      font-size: 17px;
      text-overflow: ellipsis;
      white-space: nowrap;
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
  private readonly clock = inject(Clock);
  private readonly events = this.store.selectSignal(runFeature.selectEvents);
  private readonly last = this.store.selectSignal(runFeature.selectToldLast);

  protected readonly line = computed(() => {
    const [run, last] = [this.model.run(), this.last()];
    return run === null || last === null
      ? null
      : (toldLines(this.events(), run).find(({ id }) => id === last) ?? null);
  });
  protected readonly at = computed(() => this.clock.time(this.line()!.at));

  protected takeBack(eventId: string): void {
    this.model.tell({ kind: 'taken-back', eventId });
  }
}
