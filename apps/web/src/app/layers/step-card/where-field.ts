import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { type MappedStep, type Part } from '@zaffet/contract';
import { PLACES } from '@zaffet/core/plan';
import { PLACE_NAMES } from '@zaffet/words';
import { optionsOf } from '../../ui/choice-field';
import { ToggleField } from '../../ui/toggle-field';
import { PaintDesk } from '../face/paint-desk';

type Placing = Pick<MappedStep, 'where' | 'only' | 'except'>;

/** Where on a part a step is done: all over, in a zone, in named places only, or with places left out. */
@Component({
  selector: 'zf-where',
  imports: [MatButtonModule, MatButtonToggleModule, ToggleField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <zf-toggle label="Where" [value]="chosen()" [options]="options()" (chosen)="choose($event)" />
    @if (leavable().length > 0) {
      <div class="leave">
        <span class="cap">Leave out</span>
        <mat-button-toggle-group
          multiple
          hideMultipleSelectionIndicator
          aria-label="Leave out"
          [value]="step().except"
          (change)="changed.emit({ except: $event.value })"
        >
          @for (name of leavable(); track name) {
            <mat-button-toggle [value]="name">{{ name }}</mat-button-toggle>
          }
        </mat-button-toggle-group>
      </div>
    }
    @if (isMissing()) {
      <p class="quiet">This part has no place called {{ step().only }}: the step is not done on it.</p>
    }
    <p class="quiet">
      @if (isPainted()) {
        More here and less there, as painted on the Face.
      }
      <button mat-button (click)="paint()">Paint where</button>
    </p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
    .leave {
      display: grid;
      gap: 4px;
    }
    .cap {
      color: var(--ink-2);
      font-size: 12px;
    }
    mat-button-toggle-group {
      flex-wrap: wrap;
    }
    p {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: 8px;
      margin: 0;
      font-size: 12px;
    }
    p button {
      margin-left: auto;
    }
  `,
})
export class WhereField {
  private readonly desk = inject(PaintDesk);
  readonly step = input.required<MappedStep>();
  readonly part = input.required<Part>();
  readonly changed = output<Partial<Placing>>();
  /** Names of the part's places, each once. */
  private readonly names = computed(() => [...new Set(this.part().zones.map(({ name }) => name))]);
  protected readonly isMissing = computed(() => {
    const { only } = this.step();
    return only !== null && !this.names().includes(only);
  });
  protected readonly isPainted = computed(() => this.step().id in this.part().maps);
  /** A place that only other parts have is kept in sight while the step names it. */
  protected readonly options = computed(() => {
    const { only } = this.step();
    const names = only !== null && this.isMissing() ? [...this.names(), only] : this.names();
    return [
      ...optionsOf(PLACE_NAMES, PLACES),
      ...names.map((name) => ({ value: `only ${name}`, name: `Only: ${name}` })),
    ];
  });
  protected readonly chosen = computed(() => {
    const { only, where } = this.step();
    return only === null ? where : `only ${only}`;
  });
  protected readonly leavable = computed(() => {
    const { only, except } = this.step();
    const names = new Set([...this.names().filter((name) => name !== only), ...except]);
    return [...names];
  });

  protected choose(value: string): void {
    const where = PLACES.find((place) => place === value);
    this.changed.emit(
      where === undefined
        ? { where: 'all', only: value.slice('only '.length), except: [] }
        : { where, only: null },
    );
  }

  protected paint(): void {
    this.desk.beginOn(this.step().id);
  }
}
