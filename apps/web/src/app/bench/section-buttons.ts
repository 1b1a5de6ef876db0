import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { type BenchTask } from '@zaffet/workshop';
import { BenchModel } from '../runs/bench-model';
import { ofTask } from './of-task';
import { sectionsTold } from './sections';

/** What the hands tell of glue in sections: glued, painted, all painted; the oldest first. */
@Component({
  selector: 'zf-section-buttons',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="answers">
      @if (told().bare !== null) {
        <button class="answer" [class.main]="told().oldest === null" (click)="glue(told().bare!)">
          Glue {{ nameOf(told().bare!) }}
        </button>
      }
      @if (told().oldest !== null) {
        <button class="answer main" (click)="paint()">Paint {{ nameOf(told().oldest!) }}</button>
      }
      @if (told().bare === null) {
        <button class="answer" (click)="glue(told().count)">Glue one more section</button>
      }
      @if (told().bare === null && told().oldest === null) {
        <button class="answer main" (click)="finish()">All painted</button>
      }
    </div>
  `,
  styleUrl: './answers.scss',
})
export class SectionButtons {
  private readonly model = inject(BenchModel);
  readonly task = input.required<BenchTask>();
  protected readonly told = computed(() => sectionsTold(this.task(), this.model.told(this.task())));
  protected readonly nameOf = (index: number): string =>
    this.told().count === 1 ? 'it all' : `section ${index + 1}`;

  protected glue(index: number): void {
    const task = this.task();
    const of = ofTask(task);
    this.model.tell(...(task.state === 'doing' ? [] : [{ kind: 'begun' as const, ...of, minutesAgo: 0 }]), {
      kind: 'section',
      ...of,
      minutesAgo: 0,
      index,
      painted: false,
    });
    this.model.take(task.partId);
  }

  protected paint(): void {
    const [task, { sections, oldest }] = [this.task(), this.told()];
    const of = ofTask(task);
    const first = sections.every(({ paintedAt }) => paintedAt === null);
    this.model.tell(
      ...(first ? [{ kind: 'begun' as const, ...of, stepId: task.topId!, minutesAgo: 0 }] : []),
      { kind: 'section', ...of, minutesAgo: 0, index: oldest!, painted: true },
    );
  }

  protected finish(): void {
    const of = ofTask(this.task());
    this.model.tell(
      { kind: 'done', ...of, minutesAgo: 0 },
      { kind: 'done', ...of, stepId: this.task().topId!, minutesAgo: 0 },
    );
    this.model.take(null);
  }
}
