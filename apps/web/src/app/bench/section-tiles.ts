import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { type BenchTask } from '@zaffet/workshop';
import { BenchModel } from '../runs/bench-model';
import { countdown } from './countdown';
import { sectionsTold } from './sections';

interface Tile {
  readonly index: number;
  readonly name: string;
  readonly state: 'bare' | 'glued' | 'painted';
  readonly oldest: boolean;
  readonly text: string;
  readonly late: boolean;
}

/** Glue and the coat over it, section by section: what is bare, glued and painted, and how long each may wait. */
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
  `,
  styleUrl: './section-tiles.scss',
})
export class SectionTiles {
  private readonly model = inject(BenchModel);
  readonly task = input.required<BenchTask>();
  private readonly told = computed(() => sectionsTold(this.task(), this.model.told(this.task())));

  /** How long glue takes its coat: each section as long as the one that the window of the task counts from [ms]. */
  private readonly open = computed(() => {
    const film = this.model.cards().find(({ task }) => task?.key === this.task().key)?.film ?? null;
    const { closes, stepId } = this.task();
    if (film?.stepId !== stepId || closes === null) return null;
    return { at: closes.at - film.laidAt, low: closes.low - film.laidAt };
  });

  protected readonly tiles = computed((): Tile[] => {
    const [now, open, { sections, count, oldest }] = [this.model.now(), this.open(), this.told()];
    return Array.from({ length: count }, (_, index): Tile => {
      const { gluedAt = null, paintedAt = null } = sections[index] ?? {};
      const base = {
        index,
        name: count === 1 ? 'All of it' : `Section ${index + 1}`,
        oldest: index === oldest,
        late: false,
      };
      if (gluedAt === null) return { ...base, state: 'bare', text: 'bare' };
      if (paintedAt !== null)
        return {
          ...base,
          state: 'painted',
          text: `painted ${countdown(paintedAt - gluedAt)} after the glue`,
        };
      const left = open === null ? null : gluedAt + open.at - now;
      return {
        ...base,
        state: 'glued',
        late: open !== null && now > gluedAt + open.low,
        text:
          left === null
            ? `glued ${countdown(now - gluedAt)} ago`
            : left > 0
              ? `paint within ${countdown(left)}`
              : `${countdown(left)} too late`,
      };
    });
  });
}
