import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { type BenchTask } from '@zaffet/workshop';
import { BenchModel } from './bench-model';
import { countdown } from './countdown';
import { ofTask } from './of-task';

type TileState = 'bare' | 'glued' | 'painted';
interface Tile {
  readonly index: number;
  readonly name: string;
  readonly state: TileState;
  readonly oldest: boolean;
  readonly text: string;
  readonly late: boolean;
}

/** Glue and the coat over it, section by section: which to glue, which to paint next, and how long that may wait. */
@Component({
  selector: 'zf-section-tiles',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol>
      @for (tile of tiles(); track tile.index) {
        <li [class]="tile.state" [class.oldest]="tile.oldest" [class.late]="tile.late">
          <b>{{ tile.name }}</b>
          <span>{{ tile.text }}</span>
        </li>
      }
    </ol>
    <div class="answers">
      @if (toGlue() !== null) {
        <button class="answer" [class.main]="oldest() === null" (click)="glue()">
          Glue {{ nameOf(toGlue()!) }}
        </button>
      }
      @if (oldest() !== null) {
        <button class="answer main" (click)="paint()">Paint {{ nameOf(oldest()!) }}</button>
      }
      @if (allPainted()) {
        <button class="answer main" (click)="finish()">All painted</button>
      }
    </div>
  `,
  styleUrl: './section-tiles.scss',
})
export class SectionTiles {
  private readonly model = inject(BenchModel);
  readonly task = input.required<BenchTask>();

  private readonly sections = computed(() => this.model.told(this.task())?.sections ?? []);
  private readonly count = computed(() => Math.max(1, this.task().sections, this.sections().length));
  protected readonly nameOf = (index: number): string =>
    this.count() === 1 ? 'it all' : `section ${index + 1}`;

  /** The glued section that has waited longest. */
  protected readonly oldest = computed(() => {
    const open = this.sections().flatMap(({ gluedAt, paintedAt }, index) =>
      gluedAt !== null && paintedAt === null ? [{ index, gluedAt }] : [],
    );
    return open.sort((a, b) => a.gluedAt - b.gluedAt)[0]?.index ?? null;
  });
  protected readonly toGlue = computed(() => {
    for (let index = 0; index < this.count(); index++)
      if (this.sections()[index]?.gluedAt == null) return index;
    return null;
  });
  protected readonly allPainted = computed(
    () => this.toGlue() === null && this.sections().every(({ paintedAt }) => paintedAt !== null),
  );
  /** How long glue stays open, as it is believed [ms]. */
  private readonly open = computed(() => {
    const film = this.model.cards().find(({ task }) => task?.key === this.task().key)?.film ?? null;
    const skins = film?.stepId === this.task().stepId ? film.states.skinned : undefined;
    return skins === undefined ? null : { at: skins.at - film!.laidAt, low: skins.low - film!.laidAt };
  });

  protected readonly tiles = computed((): Tile[] => {
    const [now, open] = [this.model.now(), this.open()];
    return Array.from({ length: this.count() }, (_, index): Tile => {
      const { gluedAt = null, paintedAt = null } = this.sections()[index] ?? {};
      const base = { index, name: this.count() === 1 ? 'All of it' : `Section ${index + 1}` };
      if (paintedAt !== null && gluedAt !== null)
        return {
          ...base,
          state: 'painted',
          oldest: false,
          late: false,
          text: `painted ${countdown(paintedAt - gluedAt)} after the glue`,
        };
      if (gluedAt === null) return { ...base, state: 'bare', oldest: false, late: false, text: 'bare' };
      const left = open === null ? null : gluedAt + open.at - now;
      return {
        ...base,
        state: 'glued',
        oldest: index === this.oldest(),
        late: open !== null && now > gluedAt + open.low,
        text:
          left === null
            ? `glued ${countdown(now - gluedAt)} ago`
            : left > 0
              ? `skins over in ${countdown(left)}`
              : `skinned over ${countdown(left)} ago`,
      };
    });
  });

  protected glue(): void {
    const [task, index] = [this.task(), this.toGlue()!];
    const of = ofTask(task);
    this.model.tell(...(task.state === 'doing' ? [] : [{ kind: 'begun' as const, ...of, minutesAgo: 0 }]), {
      kind: 'section',
      ...of,
      minutesAgo: 0,
      index,
      painted: false,
    });
  }

  protected paint(): void {
    const [task, index] = [this.task(), this.oldest()!];
    const of = ofTask(task);
    const first = this.sections().every(({ paintedAt }) => paintedAt === null);
    this.model.tell(
      ...(first ? [{ kind: 'begun' as const, ...of, stepId: task.topId!, minutesAgo: 0 }] : []),
      { kind: 'section', ...of, minutesAgo: 0, index, painted: true },
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
