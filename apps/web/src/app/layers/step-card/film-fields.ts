import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { type FilmPlanStep, LIMITS } from '@zaffet/contract';
import { opposite } from '@zaffet/core/colour';
import { waxManner } from '@zaffet/core/course';
import { STROKES } from '@zaffet/core/crack';
import { isClear, isOf, medium, MEDIUM_KEYS, mediumLookup } from '@zaffet/core/media';
import { GROUND_IDS } from '@zaffet/core/outcome';
import { COVERS, type CoverStyle, SHEENS } from '@zaffet/core/plan';
import { COVER_NAMES, mediumName, SHEEN_NAMES, STROKE_NAMES, WAX_MANNERS } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { type Fits, type StepChanges, type StepEdit } from '../../plan/edits';
import { planFeature } from '../../plan/plan.feature';
import { ChoiceField, optionsOf } from '../../ui/choice-field';
import { NamedColour } from '../../ui/named-colour';
import { NumberField } from '../../ui/number-field';
import { ToggleField } from '../../ui/toggle-field';
import { MediumSheet } from '../medium-sheet/medium-sheet';
import { MoreColours } from './more-colours';

/** What a partly laid coat usually covers. */
const USUAL_SHARE: Readonly<Record<CoverStyle, number>> = { full: 1, blotchy: 0.6, 'dry-brushed': 0.4 };

/** What a coat or a seal is made of, how thick it lies, how it is laid. */
@Component({
  selector: 'zf-film-fields',
  imports: [
    ChoiceField,
    MatButtonModule,
    MatCheckboxModule,
    MatDialogModule,
    MatIconModule,
    MatTooltipModule,
    MoreColours,
    NamedColour,
    NumberField,
    ToggleField,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './film-fields.html',
  styleUrl: './fields.scss',
})
export class FilmFields {
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  readonly step = input.required<FilmPlanStep>();
  readonly changed = output<StepEdit>();
  protected readonly limits = LIMITS;
  protected readonly strokes = optionsOf(STROKE_NAMES, STROKES);
  protected readonly passes = [1, 2, 3, 4, 5, 6, 7, 8].map((n) => ({ value: String(n), name: String(n) }));
  protected readonly covers = optionsOf(COVER_NAMES, COVERS);
  protected readonly sheens = [{ value: '', name: 'its own' }, ...optionsOf(SHEEN_NAMES, SHEENS)];

  private readonly run = computed(() =>
    this.forecast()?.course.films.find((film) => film.step.id === this.step().id),
  );
  /** A wax with a colour of its own is wiped back while it is soft, or buffed. */
  protected readonly pigmented = computed(() => {
    const run = this.run();
    return run?.medium.kind === 'wax' && !isClear(run.medium);
  });
  protected readonly waxText = computed(() => {
    const run = this.run();
    return run === undefined || !this.pigmented() ? null : WAX_MANNERS[waxManner(run)];
  });
  private readonly known = computed(() => mediumLookup(this.plan()?.media)(this.step().medium));
  protected readonly isMilk = computed(() => isOf(this.known(), 'casein'));
  /** Clear media have no colours to lay beside each other. */
  protected readonly colours = computed(() => !isClear(this.known()));
  protected readonly hasSheen = computed(() => this.known().kind === 'clear');
  protected readonly isWax = computed(() => this.known().kind === 'wax');
  /** Seals are made of clear media and waxes, coats of everything else and of clear media between. */
  protected readonly media = computed(() => {
    const own = (this.plan()?.media ?? []).map(({ key, name }) => ({ value: key, name }));
    const generic = MEDIUM_KEYS.filter((key) => {
      const { kind } = medium(key);
      if (kind === 'resist' || kind === 'agent') return false;
      return this.step().kind === 'seal' ? kind === 'clear' || kind === 'wax' : kind !== 'wax';
    });
    return [...own, ...generic.map((key) => ({ value: key, name: mediumName(key) }))];
  });
  protected readonly looks = computed(
    () => this.forecast()?.appearance.layers.find((layer) => layer.id === this.step().id) ?? null,
  );
  /** The opposite of the coloured layer below; null where none lies below or the medium is clear. */
  protected readonly opposed = computed(() => {
    const layers = this.forecast()?.appearance.layers ?? [];
    const below = layers[layers.findIndex((layer) => layer.id === this.step().id) - 1];
    return below === undefined || GROUND_IDS.includes(below.id) ? null : opposite(below.seen);
  });

  protected change<F extends Fits>(fits: F, changes: StepChanges<F>): void {
    this.changed.emit({ fits, changes } as StepEdit);
  }

  protected changeColour({ colour, name }: { readonly colour?: string; readonly name?: string }): void {
    if (colour !== undefined) this.change('film', { colour });
    if (name !== undefined) this.change('film', { colourName: name });
  }

  protected changeCover(style: CoverStyle): void {
    this.change('film', { cover: { style, share: USUAL_SHARE[style] } });
  }

  /** Another medium brings its usual film; the colour stays unless one of them is clear. */
  protected changeMedium(key: string): void {
    const known = mediumLookup(this.plan()?.media)(key);
    this.change('film', {
      medium: key,
      thicknessUm: known.wetFilmUm,
      ...(known.tint === null ? {} : { colour: known.tint, colourName: '' }),
    });
  }

  protected openMedium(): void {
    this.dialog.open(MediumSheet, {
      data: { stepId: this.step().id },
      width: '680px',
      maxWidth: '95vw',
      maxHeight: '90vh',
    });
  }
}
