import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { LIMITS, type Part } from '@zaffet/contract';
import { PIECE_KEYS, type PieceKey, pieceParts, PIECES, type PieceSize } from '@zaffet/workshop';
import { newId } from '../data/fresh';
import { NumberField } from '../ui/number-field';

/** What a piece begun from a template brings: its name and its parts. */
export interface NewPieceAnswer {
  readonly name: string;
  readonly parts: readonly Part[];
}

const KEYS: readonly (keyof PieceSize)[] = ['widthMm', 'heightMm', 'depthMm'];

/** Choosing a kind of piece and its outer sizes; its parts follow. */
@Component({
  selector: 'zf-new-piece',
  imports: [MatButtonModule, MatDialogModule, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Which piece is it?</h2>
    <mat-dialog-content>
      <div class="kinds" role="radiogroup" aria-label="Kind of piece">
        @for (key of keys; track key) {
          <label [class.on]="key === kind()">
            <input type="radio" name="kind" [value]="key" [checked]="key === kind()" (change)="choose(key)" />
            <span>{{ pieces[key].name }}</span>
          </label>
        }
      </div>
      <div class="sizes">
        @for (field of fields(); track field.key) {
          <zf-number
            [label]="field.label"
            [value]="size()[field.key]"
            [limit]="limits.sideMm"
            (changed)="set(field.key, $event!)"
          />
        }
      </div>
      <p class="quiet">
        It unfolds into {{ parts().length }} parts: {{ names() }}. Parts that are there already are replaced;
        undo brings them back.
      </p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button [mat-dialog-close]="undefined">Cancel</button>
      <button mat-flat-button (click)="take()">Unfold it</button>
    </mat-dialog-actions>
  `,
  styles: `
    .kinds {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 6px;
      margin-bottom: 14px;
    }
    label {
      display: flex;
      align-items: center;
      min-height: 40px;
      padding: 0 12px;
      border: 1px solid var(--line);
      border-radius: 5px;
      cursor: pointer;
    }
    label:has(:focus-visible) {
      outline: 2px solid var(--kelp);
    }
    label.on {
      border-color: var(--kelp);
      background: var(--kelp-soft);
    }
    input {
      position: absolute;
      opacity: 0;
      pointer-events: none;
    }
    .sizes {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 10px;
    }
  `,
})
export class NewPiece {
  private readonly dialog = inject<MatDialogRef<NewPiece, NewPieceAnswer>>(MatDialogRef);
  protected readonly keys = PIECE_KEYS;
  protected readonly pieces = PIECES;
  protected readonly limits = LIMITS;
  protected readonly kind = signal<PieceKey>('chest');
  protected readonly size = signal<PieceSize>(PIECES.chest.usual);
  protected readonly fields = computed(() =>
    KEYS.map((key, i) => ({ key, label: PIECES[this.kind()].sizes[i] ?? '' })).filter(
      ({ label }) => label !== '',
    ),
  );
  protected readonly parts = computed(() => pieceParts(this.kind(), this.size(), '', newId));
  protected readonly names = computed(() =>
    this.parts()
      .map(({ name }) => name.toLowerCase())
      .join('; '),
  );

  protected choose(kind: PieceKey): void {
    this.kind.set(kind);
    this.size.set(PIECES[kind].usual);
  }

  protected set(key: keyof PieceSize, value: number): void {
    this.size.update((size) => ({ ...size, [key]: value }));
  }

  protected take(): void {
    this.dialog.close({ name: PIECES[this.kind()].name, parts: this.parts() });
  }
}
