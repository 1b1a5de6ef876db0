import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import { type Ingredient, isFilmStep, LIMITS, type PaletteColour, plainText } from '@zaffet/contract';
import { deltaE2000, mixParts } from '@zaffet/core/colour';
import { isClear, mediumLookup } from '@zaffet/core/media';
import { figures } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { newId } from '../data/fresh';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { NumberField } from '../ui/number-field';

const WHITE: Ingredient = { name: 'White', colour: '#f2efe4', parts: 4 };

/** Colours as parts of others: what they give when stirred together, and how far that is from what is wanted. */
@Component({
  selector: 'zf-colour-recipes',
  imports: [MatButtonModule, MatCheckboxModule, MatIconModule, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Colours mixed from others</h2>
    @for (entry of recipes(); track entry.id) {
      <div class="recipe" [attr.data-recipe]="entry.name">
        <div class="sum">
          <i [style.background]="entry.gives"></i>
          <div>
            <strong>{{ entry.name }}</strong>
            <p class="quiet">{{ entry.text }}</p>
          </div>
          <button
            mat-icon-button
            [attr.aria-label]="'No recipe for ' + entry.name"
            (click)="forget(entry.id)"
          >
            <mat-icon svgIcon="remove" />
          </button>
        </div>
        @for (part of entry.mix; track $index; let i = $index) {
          <div class="part">
            <input
              #colour
              type="color"
              [value]="part.colour"
              [attr.aria-label]="'Colour of ' + part.name"
              (change)="change(entry.id, i, { colour: colour.value })"
            />
            <input
              #name
              class="text"
              [value]="part.name"
              [attr.aria-label]="'Name of part ' + (i + 1) + ' of ' + entry.name"
              [attr.maxlength]="limits.textLength.max"
              (change)="rename(entry.id, i, part, name)"
            />
            <zf-number
              [label]="'Parts of ' + part.name"
              [quiet]="true"
              [value]="part.parts"
              [limit]="limits.ingredientParts"
              (changed)="change(entry.id, i, { parts: $event! })"
            />
            <button
              mat-icon-button
              [attr.aria-label]="'Take ' + part.name + ' out'"
              [disabled]="entry.mix.length === 1"
              (click)="remove(entry.id, i)"
            >
              <mat-icon svgIcon="close" />
            </button>
          </div>
        }
        <div class="ways">
          <button mat-button [disabled]="entry.mix.length >= limits.ingredients.max" (click)="add(entry.id)">
            <mat-icon svgIcon="plus" />Another part
          </button>
          <mat-checkbox [checked]="entry.dry" (change)="changeEntry(entry.id, { dry: $event.checked })"
            >dry powders</mat-checkbox
          >
          @if (entry.mix.length > 1) {
            <button mat-button (click)="take(entry.id)">Paint it so</button>
          }
        </div>
      </div>
    } @empty {
      <p class="quiet">Bought as they are. Choose a coat to mix its colour from others.</p>
    }
    <div class="begin">
      @for (coat of coats(); track coat.name) {
        <button mat-stroked-button (click)="begin(coat.name, coat.colour)">
          <i [style.background]="coat.colour"></i>Mix {{ coat.name }}
        </button>
      }
    </div>
  `,
  styleUrl: './colour-recipes.scss',
})
export class ColourRecipes {
  private readonly store = inject(Store);
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  protected readonly limits = LIMITS;
  /** The colour each recipe shall come to, as it was when its recipe was begun. */
  private readonly aims = signal<Readonly<Record<string, string>>>({});

  private readonly palette = computed(() => this.file()?.palette ?? []);
  protected readonly recipes = computed(() =>
    this.palette()
      .filter(({ mix }) => mix.length > 0)
      .map((entry) => {
        const gives = mixParts(entry.mix);
        const aim = this.aims()[entry.id] ?? entry.colour;
        const off = deltaE2000(gives, aim);
        const whole = entry.mix.reduce((sum, { parts }) => sum + parts, 0);
        return {
          ...entry,
          gives,
          text:
            off < 1
              ? `${figures(whole)} parts in all, as it shall be.`
              : `${figures(whole)} parts in all; ${figures(off)} ΔE off what it shall be.`,
        };
      }),
  );
  /** Coats with a name and a colour that is not mixed yet. */
  protected readonly coats = computed(() => {
    const file = this.file();
    if (file === null) return [];
    const media = mediumLookup(file.media);
    const named = new Map<string, string>();
    for (const step of file.finishes.flatMap(({ steps }) => steps))
      if (isFilmStep(step) && step.colourName !== '' && !isClear(media(step.medium)))
        named.set(step.colourName, step.colour);
    const mixed = this.recipes().map(({ name }) => name);
    return [...named].map(([name, colour]) => ({ name, colour })).filter(({ name }) => !mixed.includes(name));
  });

  private save(palette: readonly PaletteColour[]): void {
    this.store.dispatch(PlanEditor.paletteChanged({ palette }));
  }

  protected changeEntry(id: string, changes: Partial<PaletteColour>): void {
    this.save(this.palette().map((entry) => (entry.id === id ? { ...entry, ...changes } : entry)));
  }

  private mixOf(id: string): readonly Ingredient[] {
    return this.palette().find((entry) => entry.id === id)?.mix ?? [];
  }

  protected begin(name: string, colour: string): void {
    const known = this.palette().find((entry) => entry.name === name && entry.colour === colour);
    const mix: Ingredient[] = [{ name, colour, parts: 1 }, WHITE];
    const entry = known ?? { id: newId(), name, colour, mix: [], dry: false };
    this.aims.update((aims) => ({ ...aims, [entry.id]: colour }));
    const others = this.palette().filter(({ id }) => id !== entry.id);
    this.save([...others, { ...entry, mix }].slice(0, LIMITS.palette.max));
  }

  protected change(id: string, at: number, changes: Partial<Ingredient>): void {
    this.changeEntry(id, {
      mix: this.mixOf(id).map((part, i) => (i === at ? { ...part, ...changes } : part)),
    });
  }

  protected rename(id: string, at: number, part: Ingredient, input: HTMLInputElement): void {
    const name = plainText(input.value);
    if (name === '') input.value = part.name;
    else this.change(id, at, { name });
  }

  protected add(id: string): void {
    this.changeEntry(id, { mix: [...this.mixOf(id), { name: 'Another', colour: '#6a5a48', parts: 1 }] });
  }

  protected remove(id: string, at: number): void {
    this.changeEntry(id, { mix: this.mixOf(id).filter((_, i) => i !== at) });
  }

  protected forget(id: string): void {
    this.changeEntry(id, { mix: [] });
  }

  /** The colour becomes what the parts give, on every coat that has it. */
  protected take(id: string): void {
    const entry = this.palette().find((candidate) => candidate.id === id)!;
    const colour = mixParts(entry.mix);
    const steps = this.file()!.finishes.flatMap((finish) => finish.steps);
    for (const step of steps)
      if (isFilmStep(step) && step.colourName === entry.name && step.colour === entry.colour)
        this.store.dispatch(
          PlanEditor.stepChanged({
            stepId: step.id,
            edit: { fits: 'film', changes: { colour } },
            gesture: null,
          }),
        );
    this.changeEntry(id, { colour });
  }
}
