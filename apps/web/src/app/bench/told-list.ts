import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { Units } from '../data/units';
import { Clock } from '../data/clock';
import { BenchModel } from '../runs/bench-model';
import { runFeature } from '../runs/run.feature';
import { toldLines } from './told-line';

/** What is asked last is shown first, so many of them. */
const SHOWN = 40;

/** All that was told of the run, newest first; what was told by mistake can be taken back. */
@Component({
  selector: 'zf-told-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol>
      @for (line of lines(); track line.id) {
        <li [class.gone]="line.gone">
          <time>{{ clock.time(line.at) }}</time>
          <span>{{ line.text }}</span>
          @if (line.free) {
            <button (click)="takeBack(line.id)">Take back</button>
          }
        </li>
      }
    </ol>
  `,
  styles: `
    ol {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 66px minmax(0, 1fr) auto;
      gap: 8px;
      align-items: center;
      min-height: 56px;
      border-bottom: 1px solid var(--line);
      font-size: 17px;
    }
    .gone span {
      text-decoration: line-through;
      color: var(--ink-2);
    }
    button {
      min-height: 56px;
      border: 0;
      background: none;
      color: var(--ink);
      font: 450 17px var(--text);
      text-decoration: underline;
      cursor: pointer;
    }
  `,
})
export class ToldList {
  private readonly model = inject(BenchModel);
  private readonly units = inject(Units).system;
  protected readonly clock = inject(Clock);
  private readonly events = inject(Store).selectSignal(runFeature.selectEvents);

  protected readonly lines = computed(() => {
    const run = this.model.run();
    return run === null ? [] : toldLines(this.events(), run, this.units()).slice(0, SHOWN);
  });

  protected takeBack(eventId: string): void {
    this.model.tell({ kind: 'taken-back', eventId });
  }
}
