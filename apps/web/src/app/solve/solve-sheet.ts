import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { type Limit, LIMITS } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { type Wish, WISH_KEYS, type WishKey, wishOutcomes, wishValues } from '@zaffet/core/solve';
import { perCent, weekText, WISH_WORDS } from '@zaffet/words';
import {
  basisOf,
  notOnShelf,
  type PartPlan,
  type School,
  schoolPlans,
  SCHOOLS,
  withSettingsFiled,
} from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { newId } from '../data/fresh';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { NumberField } from '../ui/number-field';
import { ShelfServer } from '../shop/shelf.actions';
import { shelfFeature } from '../shop/shelf.feature';
import { FacePool } from '../workers/face.pool';
import { SolveClient } from '../workers/solve.client';
import { RecipeCard } from './recipe-card';

const LENGTHS: readonly WishKey[] = ['spacing', 'opening'];
const WISH_LIMITS: Readonly<Record<WishKey, Limit>> = {
  spacing: LIMITS.spacingMm,
  opening: LIMITS.openingMm,
  chips: LIMITS.share,
  worn: LIMITS.share,
  under: LIMITS.share,
};
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
  imports: [
    MatButtonModule,
    MatCheckboxModule,
    MatDialogModule,
    MatProgressBarModule,
    NumberField,
    RecipeCard,
  ],
  providers: [FacePool, SolveClient],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>What do you want to see?</h2>
    <mat-dialog-content>
      <div class="wishes">
        @for (field of fields; track field.key) {
          <zf-number
            [label]="field.name"
            [value]="wished()[field.key] ?? null"
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
        <mat-checkbox
          [checked]="shelfOnly()"
          [disabled]="shelf() === null"
          (change)="shelfOnly.set($event.checked)"
          >only with what is on the shelf</mat-checkbox
        >
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
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  protected readonly hoursLimit = HOURS;
  protected readonly fields = WISH_KEYS.map((key) => ({
    key,
    name: WISH_WORDS[key].name,
    limit: WISH_LIMITS[key],
    factor: LENGTHS.includes(key) ? 1 : 100,
    unit: LENGTHS.includes(key) ? undefined : '%',
  }));
  /** Lengths in mm, shares 0 … 1. */
  protected readonly wished = signal<Readonly<Partial<Record<WishKey, number>>>>(this.fromLook());
  protected readonly hours = signal<number | null>(null);
  protected readonly shelf = this.store.selectSignal(shelfFeature.selectShelf);
  protected readonly shelfOnly = signal(false);
  /** What the recipes are worked out for, beside the wish. */
  protected readonly given = computed(() => {
    const { part, air, work } = this.plan()!;
    return `For ${part.name.toLowerCase()}, in air of ${air.temperatureC} °C and ${perCent(air.humidity)}, worked ${weekText(work)}.`;
  });
  protected readonly progress = signal<number | null>(null);
  protected readonly found = signal<readonly Found[]>([]);
  /** The wish the recipes were found for. */
  protected readonly wish = signal<Wish>({});
  protected readonly sum = signal('');
  protected readonly asked = computed(() => Object.keys(this.wished()).length > 0);

  constructor() {
    this.store.dispatch(ShelfServer.shelfAsked());
  }

  private fromLook(): Partial<Record<WishKey, number>> {
    const look = this.plan()?.look;
    if (look === undefined) return {};
    const told: Record<WishKey, number | null> = {
      spacing: look.spacingMm,
      opening: look.openingMm,
      chips: look.chips,
      worn: look.worn,
      under: look.under,
    };
    return Object.fromEntries(Object.entries(told).filter(([, value]) => value !== null)) as Partial<
      Record<WishKey, number>
    >;
  }

  protected set(key: WishKey, value: number | null): void {
    this.wished.update(({ [key]: _before, ...others }) =>
      value === null ? others : { ...others, [key]: value },
    );
  }

  /** Fills in what the plan gives as it stands, to find other ways to the same look. */
  protected asNow(): void {
    const result = this.forecast();
    if (result === null) return;
    const values = wishValues(result);
    const told = WISH_KEYS.flatMap((key): [WishKey, number][] => {
      const value = values[key];
      if (value === null) return [];
      return [[key, LENGTHS.includes(key) ? Math.round(value * 1e5) / 100 : Math.round(value * 100) / 100]];
    });
    this.wished.set(Object.fromEntries(told));
  }

  protected async find(): Promise<void> {
    const plan = this.plan();
    if (plan === null) return;
    const wish = Object.fromEntries(
      Object.entries(this.wished()).map(([key, value]) => [
        key,
        LENGTHS.includes(key as WishKey) ? value / 1000 : value,
      ]),
    ) as Wish;
    const shelf = this.shelf();
    const missing = (steps: PartPlan['steps']): string[] =>
      shelf === null ? [] : notOnShelf(steps, shelf, plan.media);
    const schools = schoolPlans(plan, newId).filter(
      ({ plan: school }) => !this.shelfOnly() || missing(school.steps).length === 0,
    );
    if (schools.length === 0) {
      this.found.set([]);
      this.sum.set('No way of working goes with what is on the shelf alone. Look at all of them instead.');
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
    const lateText = late > 0 ? ` ${late} ways would not be dry in time.` : '';
    const first = found[0];
    if (met.length > 0) return `${met.length} of ${tried} ways of working come to what you want.${lateText}`;
    if (first === undefined) return `No way of working is dry in time. Give it more hours.`;
    return `It cannot be had all at once. ${SCHOOLS[first.key]} comes nearest.${lateText}`;
  }

  protected stop(): void {
    this.client.stop();
    this.progress.set(null);
    this.sum.set('Stopped.');
  }

  /** Puts the recipe's steps in the place of the plan's; one undo brings them back. */
  protected take(recipe: PartPlan): void {
    const { spacing, opening, chips, worn, under } = this.wished();
    const look = {
      spacingMm: spacing ?? null,
      openingMm: opening ?? null,
      chips: chips ?? null,
      worn: worn ?? null,
      under: under ?? null,
    };
    this.store.dispatch(PlanEditor.recipeTaken({ steps: recipe.steps, look }));
    this.dialog.close();
  }
}
