import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { type PotItem } from '@zaffet/contract';
import { isOf } from '@zaffet/core/media';
import { BODIES, type Body, filmOfBody, SPOON_TRUE } from '@zaffet/core/quantity';
import { BODY_NAMES, perCent, spoonText, um, volume } from '@zaffet/words';
import { lastBody, type Measured, type MixPot } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { Clock } from '../data/clock';
import { newId } from '../data/fresh';
import { Units } from '../data/units';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { ShelfEditor } from '../shop/shelf.actions';
import { shelfFeature } from '../shop/shelf.feature';
import { ChoiceField, optionsOf } from '../ui/choice-field';

/** A coat that comes to lie this much off what the plan says is told. */
const OFF = 0.12;
/** A last use later than this after mixing is told [s]. */
const LATER = 3600;
/** Less than this is not worth a jar [m³]. */
const WORTH_KEEPING = 2e-6;

/** One pot to mix: when, what goes in by volume and by spoons, what it is for, how it came out. */
@Component({
  selector: 'zf-pot-card',
  imports: [ChoiceField, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.data-pot]': 'pot().name' },
  template: `
    <i class="paint" [class.clear]="pot().colour === null" [style.background]="pot().colour ?? null"></i>
    <div class="what">
      <h2>{{ pot().name }}</h2>
      <p class="quiet">{{ forText() }}</p>
      <p class="when">{{ whenText() }}</p>
    </div>
    <table>
      <caption class="visually-hidden">
        What goes into
        {{
          pot().name
        }}
      </caption>
      <tbody>
        @for (line of lines(); track $index) {
          <tr>
            <th scope="row">
              @if (line.colour) {
                <i [style.background]="line.colour"></i>
              }
              {{ line.name }}
            </th>
            <td>
              <b>{{ line.volume }}</b>
            </td>
            <td class="quiet">{{ line.spoons }}</td>
          </tr>
        }
      </tbody>
    </table>
    <p class="how quiet">{{ howText() }}</p>
    <div class="after">
      @if (asksBody()) {
        <zf-choice
          label="How does it run off the brush?"
          [value]="body() ?? ''"
          [options]="bodies"
          (chosen)="saw($any($event))"
        />
        @if (filmText(); as text) {
          <p class="film" role="status">
            {{ text }}
            <button mat-button (click)="layAsIs()">Plan it so</button>
          </p>
        }
      }
      @if (leftover() > 0) {
        <button mat-button (click)="keep()">Put what is left on the shelf</button>
      }
    </div>
  `,
  styleUrl: './pot-card.scss',
})
export class PotCard {
  private readonly clock = inject(Clock);
  private readonly store = inject(Store);
  private readonly units = inject(Units).system;
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  private readonly shelf = this.store.selectSignal(shelfFeature.selectShelf);
  readonly pot = input.required<MixPot>();
  protected readonly bodies = [{ value: '', name: 'not said yet' }, ...optionsOf(BODY_NAMES, BODIES)];

  private readonly start = computed(() => Date.parse(this.file()!.startsAt));
  protected readonly forText = computed(() => {
    const { uses, parts } = this.pot();
    const coats = new Set(uses.map(({ stepId }) => stepId)).size;
    return `${volume(this.pot().volume, this.units())} for ${parts.join(', ').toLowerCase()}${
      coats > 1 ? `, ${coats} coats` : ''
    }`;
  });
  protected readonly whenText = computed(() => {
    const { mixedAt, useBy, keepCold, medium, uses } = this.pot();
    const at = (moment: number): string => this.clock.dateTime(this.start() + moment * 1000);
    const mixes = isOf(medium, 'powder') || this.pot().goesIn.length > 1;
    const verb = mixes ? 'Mix it' : 'Pour it out';
    const keeps =
      useBy - mixedAt > 30 * 86400
        ? ''
        : `, good until ${at(useBy)}${keepCold ? ' if it stands in a refrigerator, closed and labelled' : ''}`;
    const again = uses.at(-1)!.at - mixedAt > LATER ? `; last used ${at(uses.at(-1)!.at)}` : '';
    return `${verb} ${at(mixedAt)}${again}${keeps}.`;
  });
  protected readonly lines = computed(() =>
    this.pot().goesIn.map((stuff: Measured) => ({
      name: stuff.name,
      colour: stuff.colour,
      volume: volume(stuff.volume, this.units()),
      spoons: spoonText(stuff.spoons),
    })),
  );
  protected readonly howText = computed(() => {
    const { medium, dry, off, thinned } = this.pot();
    const said: string[] = [];
    if (off > SPOON_TRUE)
      said.push(`Spoons would be ${perCent(off)} off the ratio of so small a batch: weigh it, or mix more.`);
    if (dry) said.push('Stir the powders together dry, before the water; wet they do not come out even.');
    if (isOf(medium, 'powder'))
      said.push('Powder into warm water, rest it 15 to 20 min, stir every few minutes while you work.');
    for (const { at, water } of thinned)
      said.push(
        `For ${this.clock.dateTime(this.start() + at * 1000)} thin what is left with ${volume(water, this.units())} of water.`,
      );
    if (this.leftover() > 0) said.push(`Whole spoons leave ${volume(this.leftover(), this.units())} over.`);
    return said.join(' ');
  });
  protected readonly leftover = computed(() =>
    this.pot().over >= WORTH_KEEPING && this.pot().goesIn.length > 1 ? this.pot().over : 0,
  );

  /** Ratios alone do not tell how a mix runs: asked of what is mixed. */
  protected readonly asksBody = computed(() => {
    const { step, medium, dilution } = this.pot();
    return step.kind === 'coat' && (isOf(medium, 'powder') || medium.kind === 'ground' || dilution > 0);
  });
  protected readonly body = computed((): Body | null => {
    const { step } = this.pot();
    const shelf = this.shelf();
    if (step.kind !== 'coat') return null;
    return step.body ?? (shelf === null ? null : lastBody(this.file()!, shelf, step.medium));
  });
  private readonly film = computed(() => {
    const body = this.body();
    return body === null ? null : filmOfBody(this.pot().medium, body);
  });
  protected readonly filmText = computed(() => {
    const film = this.film();
    const { step } = this.pot();
    if (film === null || step.kind !== 'coat') return null;
    const planned = step.thicknessUm * 1e-6;
    if (Math.abs(film / planned - 1) < OFF) return null;
    return `So one coat comes to lie about ${um(film, this.units())} wet; the plan says ${um(planned, this.units())}.`;
  });

  private stepIds(): Set<string> {
    return new Set(this.pot().uses.map(({ stepId }) => stepId));
  }

  protected saw(body: Body | ''): void {
    for (const stepId of this.stepIds())
      this.store.dispatch(
        PlanEditor.stepChanged({
          stepId,
          edit: { fits: 'coat', changes: { body: body === '' ? null : body } },
          gesture: null,
        }),
      );
  }

  protected layAsIs(): void {
    const film = this.film();
    if (film === null) return;
    for (const stepId of this.stepIds())
      this.store.dispatch(
        PlanEditor.stepChanged({
          stepId,
          edit: { fits: 'film', changes: { thicknessUm: Math.round(film * 1e6) } },
          gesture: null,
        }),
      );
  }

  /** What whole spoons leave over goes on the shelf as a pot with its dates. */
  protected keep(): void {
    const { name, colour, dilution, mixedAt, keepCold, medium } = this.pot();
    const item: PotItem = {
      id: newId(),
      kind: 'pot',
      name: `${name}, left over`,
      // The shelf knows generic media.
      medium: medium.like,
      colour,
      amountMl: Math.round(this.leftover() * 1e6),
      dilution,
      mixedAt: new Date(this.start() + mixedAt * 1000).toISOString(),
      keptCold: keepCold || isOf(medium, 'spoils'),
      body: this.body(),
    };
    this.store.dispatch(ShelfEditor.itemPut({ item }));
  }
}
