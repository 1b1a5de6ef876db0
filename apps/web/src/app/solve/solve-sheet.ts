import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatRadioModule } from '@angular/material/radio';
import { type Limit, WANT_KEYS, type Wants } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { type Wish, wishOutcomes, wishValues } from '@zaffet/core/solve';
import { mediumName, perCent, weekText, WISH_WORDS, celsius } from '@zaffet/words';
import {
  basisOf,
  NO_WANTS,
  notOnShelf,
  type PartPlan,
  type School,
  schoolPlans,
  SCHOOLS,
  wishOf,
  withSettingsFiled,
} from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { celsiusToKelvin } from '@zaffet/core/units';
import { Units } from '../data/units';
import { Clock } from '../data/clock';
import { newId } from '../data/fresh';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { WANT_LIMITS, WANTED_LENGTHS, WISH_OF } from '../data/wants';
import { NumberField } from '../ui/number-field';
import { ShelfServer } from '../shop/shelf.actions';
import { shelfFeature } from '../shop/shelf.feature';
import { FacePool } from '../workers/face.pool';
import { SolveClient } from '../workers/solve.client';
import { RecipeCard } from './recipe-card';

const HOURS: Limit = { min: 1, max: 24 * 14, step: 1, unit: 'h' };
const SECONDS_PER_HOUR = 3600;
/** A medium to be bought counts against a recipe as much as half a warning. */
const BUYING = 0.5;

interface Found {
  readonly key: School;
  readonly plan: PartPlan;
  /** Media that must be bought. */
  readonly missing: readonly string[];
}

/** The question turned round: what is wanted, and which ways of working come there. */
@Component({
  selector: 'zf-solve-sheet',
  imports: [MatButtonModule, MatDialogModule, MatProgressBarModule, MatRadioModule, NumberField, RecipeCard],
  providers: [FacePool, SolveClient],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>What do you want to see?</h2>
    <mat-dialog-content>
      <fieldset>
        <legend>What may the recipes use?</legend>
        <mat-radio-group
          aria-label="What may the recipes use?"
          [value]="shelfOnly()"
          [disabled]="shelf() === null"
          (change)="shelfChosen.set($event.value)"
        >
          <mat-radio-button [value]="true">What is on the shelf</mat-radio-button>
          <mat-radio-button [value]="false">Anything, also what I have to buy</mat-radio-button>
        </mat-radio-group>
        <p class="quiet">{{ onShelf() }}</p>
      </fieldset>
      <div class="wishes">
        @for (field of fields; track field.key) {
          <zf-number
            [label]="field.name"
            [value]="wished()[field.key]"
            [limit]="field.limit"
            [factor]="field.factor"
            [unit]="field.unit"
            [optional]="true"
            placeholder="any"
            (changed)="set(field.key, $event)"
          />
        }
        <zf-number
          label="All dry within"
          [value]="hours()"
          [limit]="hoursLimit"
          [optional]="true"
          placeholder="any time"
          (changed)="hours.set($event)"
        />
      </div>
      <p class="given quiet">{{ given() }}</p>
      <div class="ask">
        <button mat-button (click)="asNow()">As this plan gives now</button>
        @if (progress() === null) {
          <button mat-flat-button [disabled]="!asked()" (click)="find()">Find recipes</button>
        } @else {
          <button mat-stroked-button (click)="stop()">Stop</button>
        }
      </div>
      @if (progress() !== null) {
        <mat-progress-bar mode="determinate" aria-label="Looking for recipes" [value]="100 * progress()!" />
      }
      <p class="sum" role="status">{{ sum() }}</p>
      @for (recipe of found(); track recipe.key) {
        <zf-recipe-card
          [school]="recipe.key"
          [plan]="recipe.plan"
          [wish]="wish()"
          [missing]="recipe.missing"
          (taken)="take($event)"
        />
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button mat-button mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    .wishes {
      display: grid;
      grid-template-columns: repeat(6, minmax(0, 1fr));
      gap: 10px;
    }
    fieldset {
      margin: 0 0 10px;
      padding: 0;
      border: 0;
    }
    mat-radio-group {
      display: flex;
      flex-wrap: wrap;
      gap: 0 18px;
    }
    fieldset p {
      margin: 0;
      font-size: 13px;
    }
    legend {
      font-weight: 600;
    }
    .ask {
      display: flex;
      align-items: center;
      justify-content: flex-end;
      gap: 10px;
      margin: 10px 0;
    }
    .given {
      margin: 8px 0 0;
      font-size: 13px;
    }
    .sum {
      margin: 6px 0;
      font-weight: 600;
    }
    @media (max-width: 900px) {
      .wishes {
        grid-template-columns: repeat(3, minmax(0, 1fr));
      }
    }
  `,
})
export class SolveSheet {
  private readonly store = inject(Store);
  private readonly dialog = inject<MatDialogRef<SolveSheet>>(MatDialogRef);
  private readonly client = inject(SolveClient);
  private readonly clock = inject(Clock);
  private readonly units = inject(Units).system;
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  protected readonly hoursLimit = HOURS;
  protected readonly fields = WANT_KEYS.map((key) => ({
    key,
    name: WISH_WORDS[WISH_OF[key]].name,
    limit: WANT_LIMITS[key],
    factor: WANTED_LENGTHS.includes(key) ? 1 : 100,
    unit: WANTED_LENGTHS.includes(key) ? undefined : '%',
  }));
  protected readonly wished = signal<Wants>(this.fromLook());
  protected readonly hours = signal<number | null>(null);
  protected readonly shelf = this.store.selectSignal(shelfFeature.selectShelf);
  /** What the painter answered; null before. */
  protected readonly shelfChosen = signal<boolean | null>(null);
  private readonly shelfMedia = computed(() => {
    const items = this.shelf()?.items ?? [];
    const media = items.flatMap((item) =>
      item.kind !== 'abrasive' && item.amountMl > 0 ? [item.medium] : [],
    );
    return [...new Set(media)].map((key) => mediumName(key, this.plan()!.media));
  });
  /** Without an answer: the shelf, where something stands on it. */
  protected readonly shelfOnly = computed(() => this.shelfChosen() ?? this.shelfMedia().length > 0);
  protected readonly onShelf = computed(() =>
    this.shelfMedia().length === 0
      ? 'Your shelf is empty.'
      : `On your shelf: ${this.shelfMedia().join(', ')}.`,
  );
  /** What the recipes are worked out for, beside the wish. */
  protected readonly given = computed(() => {
    const { part, air, work } = this.plan()!;
    return `For the ${part.name.toLowerCase()}, in air of ${celsius(celsiusToKelvin(air.temperatureC), this.units())} and ${perCent(air.humidity)}, worked ${weekText(work, this.clock.face())}.`;
  });
  protected readonly progress = signal<number | null>(null);
  protected readonly found = signal<readonly Found[]>([]);
  /** The wish the recipes were found for. */
  protected readonly wish = signal<Wish>({});
  protected readonly sum = signal('');
  protected readonly asked = computed(() => WANT_KEYS.some((key) => this.wished()[key] !== null));

  constructor() {
    this.store.dispatch(ShelfServer.shelfAsked());
  }

  private fromLook(): Wants {
    const look = this.plan()?.look;
    return look === undefined ? NO_WANTS : onlyWants(look);
  }

  protected set(key: keyof Wants, value: number | null): void {
    this.wished.update((before) => ({ ...before, [key]: value }));
  }

  /** Fills in what the plan gives as it stands, to find other ways to the same look. */
  protected asNow(): void {
    const result = this.forecast();
    if (result === null) return;
    const { spacing, opening, chips, worn, under } = wishValues(result);
    const toMm = (value: number | null): number | null =>
      value === null ? null : Math.round(value * 1e5) / 100;
    const toShare = (value: number | null): number | null =>
      value === null ? null : Math.round(value * 100) / 100;
    this.wished.set({
      spacingMm: toMm(spacing),
      openingMm: toMm(opening),
      chips: toShare(chips),
      worn: toShare(worn),
      under: toShare(under),
    });
  }

  protected async find(): Promise<void> {
    const plan = this.plan();
    if (plan === null) return;
    const wish = wishOf(this.wished());
    const shelf = this.shelf();
    const missing = (steps: PartPlan['steps']): string[] =>
      shelf === null ? [] : notOnShelf(steps, shelf, plan.media);
    const schools = schoolPlans(plan, newId).filter(
      ({ plan: school }) => !this.shelfOnly() || missing(school.steps).length === 0,
    );
    if (schools.length === 0) {
      this.found.set([]);
      this.sum.set(
        'No technique works with what is on the shelf alone. Choose "Anything" above to see them all.',
      );
      return;
    }
    this.found.set([]);
    this.sum.set('');
    this.progress.set(0);
    const hours = this.hours();
    try {
      const recipes = await this.client.find(
        {
          wish,
          candidates: schools.map(({ key, plan: school }) => ({
            key,
            basis: basisOf(school),
            handicap: BUYING * missing(school.steps).length,
          })),
          deadline: hours === null ? null : hours * SECONDS_PER_HOUR,
        },
        (share) => this.progress.set(share),
      );
      if (recipes === null) return;
      this.wish.set(wish);
      this.found.set(
        recipes.map(({ key, settings }) => {
          const filed = withSettingsFiled(schools.find((school) => school.key === key)!.plan, settings);
          return { key: key as School, plan: filed, missing: missing(filed.steps) };
        }),
      );
      this.sum.set(this.summary(schools.length));
    } catch {
      this.sum.set('The recipes could not be worked out. Try again; nothing was changed.');
    } finally {
      this.progress.set(null);
    }
  }

  private summary(tried: number): string {
    const found = this.found();
    const met = found.filter(({ plan }) => wishOutcomes(forecast(basisOf(plan)), this.wish()).met);
    const late = tried - found.length;
    const lateText = late > 0 ? ` ${late} would not be dry in time.` : '';
    const first = found[0];
    if (met.length > 0) return `${met.length} of ${tried} techniques give what you want.${lateText}`;
    if (first === undefined) return `No technique is dry in time. Give it more hours.`;
    return `${this.shelfOnly() ? 'What is on the shelf cannot give' : 'No technique can give'} all of it at once. ${SCHOOLS[first.key]} comes nearest.${lateText}`;
  }

  protected stop(): void {
    this.client.stop();
    this.progress.set(null);
    this.sum.set('Stopped.');
  }

  /** Puts the recipe's steps in the place of the plan's; one undo brings them back. */
  protected take(recipe: PartPlan): void {
    const look = this.wished();
    this.store.dispatch(PlanEditor.recipeTaken({ steps: recipe.steps, look }));
    this.dialog.close();
  }
}

const onlyWants = ({ spacingMm, openingMm, chips, worn, under }: Wants): Wants => ({
  spacingMm,
  openingMm,
  chips,
  worn,
  under,
});
