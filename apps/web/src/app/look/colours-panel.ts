import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import {
  isFilmStep,
  LIMITS,
  type NamedColour,
  type PaletteColour,
  readGpl,
  writeGpl,
  ZaffetError,
} from '@zaffet/contract';
import { contrastWord, opposite, painterOpposite } from '@zaffet/core/colour';
import { figures, stepTitle } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { newId } from '../data/fresh';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { saveFile } from '../ui/save-file';
import { PictureSheet } from '../ui/picture-sheet';

const CONTRAST: Readonly<Record<ReturnType<typeof contrastWord>, string>> = {
  none: 'nobody sees it',
  subtle: 'subtle',
  clear: 'clear',
  strong: 'strong',
};

/** The colours of the coats: dry, wet and sealed, how they stand apart; and the palette they are taken from. */
@Component({
  selector: 'zf-colours-panel',
  imports: [MatButtonModule, MatDialogModule, MatIconModule, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-labelledby="coats-title">
      <h2 id="coats-title">Colours of the coats</h2>
      <div class="coats" role="radiogroup" aria-labelledby="coats-title">
        @for (coat of coats(); track coat.id) {
          <div class="coat" [class.on]="coat.id === chosen()">
            <label class="pick">
              <input
                type="radio"
                name="coat"
                [value]="coat.id"
                [checked]="coat.id === chosen()"
                [attr.aria-label]="'Colour for ' + coat.name"
                (change)="pick(coat.id)"
              />
              <span>{{ coat.name }}</span>
            </label>
            <input
              #colour
              type="color"
              [value]="coat.colour"
              [attr.aria-label]="'Colour of ' + coat.name"
              (change)="paint(coat.id, colour.value, '')"
            />
            <span class="trio">
              <i [style.background]="coat.dry"></i><i [style.background]="coat.wet"></i
              ><i [style.background]="coat.sealed"></i>
            </span>
            <span class="apart quiet">{{ coat.apart }}</span>
          </div>
        }
      </div>
      <p class="legend quiet">dry, wet, sealed; how far from the colour below</p>
    </section>
    <section aria-labelledby="palette-title">
      <h2 id="palette-title">Palette</h2>
      <ul>
        @for (entry of palette(); track entry.id) {
          <li>
            <button
              type="button"
              class="swatch"
              [attr.aria-label]="'Take ' + entry.name + ' for ' + chosenName()"
              [title]="entry.name"
              (click)="paint(chosen(), entry.colour, entry.name)"
            >
              <i [style.background]="entry.colour"></i><span>{{ entry.name }}</span>
            </button>
            <button
              type="button"
              class="drop"
              [attr.aria-label]="'Take ' + entry.name + ' out of the palette'"
              (click)="drop(entry.id)"
            >
              ×
            </button>
          </li>
        } @empty {
          <li class="quiet none">
            Empty. Bring in a palette file, pick from a picture, or keep a coat's colour.
          </li>
        }
      </ul>
      <div class="ways">
        <input
          #file
          class="visually-hidden"
          type="file"
          accept=".gpl,text/plain"
          tabindex="-1"
          aria-label="Palette file to bring in"
          (change)="bringIn(file)"
        />
        <button mat-button (click)="keep()">Keep the coat's colour</button>
        <button mat-button (click)="file.click()">Palette file in</button>
        <button mat-button (click)="fromPicture()">From a picture …</button>
        <button mat-button [matMenuTriggerFor]="opposites">Opposites</button>
        <mat-menu #opposites="matMenu">
          @for (way of opposed(); track way.words) {
            <button mat-menu-item (click)="paint(chosen(), way.colour, '')">
              <i class="small" [style.background]="way.colour"></i>{{ way.words }}
            </button>
          }
        </mat-menu>
        <button mat-button [disabled]="palette().length === 0" (click)="out()">Palette file out</button>
      </div>
      @if (trouble()) {
        <p class="trouble" role="alert">{{ trouble() }}</p>
      }
    </section>
  `,
  styleUrl: './colours-panel.scss',
})
export class ColoursPanel {
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  protected readonly trouble = signal('');
  private readonly asked = signal<string | null>(null);

  protected readonly palette = computed(() => this.plan()?.palette ?? []);
  /** Coats that have a colour, the topmost first. */
  protected readonly coats = computed(() => {
    const plan = this.plan();
    const looks = this.forecast()?.appearance.layers ?? [];
    if (plan === null) return [];
    return plan.steps
      .filter(isFilmStep)
      .flatMap((step) => {
        const look = looks.find(({ id }) => id === step.id);
        if (look === undefined) return [];
        const { dry, wet, sealed, contrast } = look;
        return [
          {
            id: step.id,
            name: stepTitle(step, plan.media),
            colour: step.colour,
            dry,
            wet,
            sealed,
            apart: contrast === null ? '' : `${figures(contrast)} ΔE, ${CONTRAST[contrastWord(contrast)]}`,
          },
        ];
      })
      .reverse();
  });
  protected readonly chosen = computed(() => {
    const coats = this.coats();
    return coats.find(({ id }) => id === this.asked())?.id ?? coats[0]?.id ?? '';
  });
  protected readonly chosenName = computed(
    () => this.coats().find(({ id }) => id === this.chosen())?.name ?? '',
  );
  /** Opposites of the coat below the chosen one, by the eye's circle and by the painters' wheel. */
  protected readonly opposed = computed(() => {
    const coats = this.coats();
    const below = coats[coats.findIndex(({ id }) => id === this.chosen()) + 1];
    if (below === undefined) return [];
    return [
      { words: `of ${below.name}, as the eye sees it`, colour: opposite(below.dry) },
      { words: `of ${below.name}, on the painters' wheel`, colour: painterOpposite(below.dry) },
    ];
  });

  protected pick(id: string): void {
    this.asked.set(id);
  }

  protected paint(stepId: string, colour: string, colourName: string): void {
    if (stepId === '') return;
    this.asked.set(stepId);
    const changes = colourName === '' ? { colour } : { colour, colourName };
    this.store.dispatch(PlanEditor.stepChanged({ stepId, edit: { fits: 'film', changes }, gesture: null }));
  }

  protected keep(): void {
    const coat = this.coats().find(({ id }) => id === this.chosen());
    if (coat !== undefined) this.add([{ name: coat.name, colour: coat.colour }]);
  }

  protected drop(id: string): void {
    this.store.dispatch(
      PlanEditor.paletteChanged({ palette: this.palette().filter((entry) => entry.id !== id) }),
    );
  }

  private add(colours: readonly NamedColour[]): void {
    const known = this.palette();
    const fresh = colours
      .filter(({ name, colour }) => !known.some((entry) => entry.name === name && entry.colour === colour))
      .map(({ name, colour }): PaletteColour => ({ id: newId(), name, colour, mix: [], dry: false }));
    const palette = [...known, ...fresh].slice(0, LIMITS.palette.max);
    this.store.dispatch(PlanEditor.paletteChanged({ palette }));
  }

  protected async bringIn(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (file === undefined) return;
    try {
      this.trouble.set('');
      this.add(readGpl(await file.text()).colours);
    } catch (error) {
      this.trouble.set(error instanceof ZaffetError ? error.message : String(error));
    }
  }

  protected fromPicture(): void {
    this.dialog
      .open<PictureSheet, void, readonly NamedColour[]>(PictureSheet, { width: '900px', maxWidth: '95vw' })
      .afterClosed()
      .subscribe((colours) => {
        if (colours !== undefined) this.add(colours);
      });
  }

  protected out(): void {
    const name = this.plan()?.name ?? 'Palette';
    saveFile(new Blob([writeGpl(name, this.palette())], { type: 'text/plain' }), name, '.gpl');
  }
}
