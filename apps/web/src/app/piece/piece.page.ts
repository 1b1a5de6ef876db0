import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { LIMITS, plainText } from '@zaffet/contract';
import { panelArea } from '@zaffet/core/plan';
import { area } from '@zaffet/words';
import { meantFinishes, newPart } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { newId } from '../data/fresh';
import { Units } from '../data/units';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { FacePool } from '../workers/face.pool';
import { NewPiece, type NewPieceAnswer } from './new-piece';
import { PartCard } from './part-card';
import { PrepList } from './prep-list';
import { type Resized, UnfoldedSheet } from './unfolded-sheet';

/** A free panel begins as large as a cupboard's front [mm]. */
const FREE_PANEL = { widthMm: 400, heightMm: 300 };

/** The piece: its parts unfolded to scale, what each is made of and went through, what must be done before painting. */
@Component({
  selector: 'zf-piece-page',
  imports: [
    MatButtonModule,
    MatButtonToggleModule,
    MatDialogModule,
    MatIconModule,
    PartCard,
    PrepList,
    UnfoldedSheet,
  ],
  providers: [FacePool],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './piece.page.html',
  styleUrl: './piece.page.scss',
})
export class PiecePage {
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  private readonly units = inject(Units).system;
  protected readonly file = this.store.selectSignal(planFeature.selectFile);
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  protected readonly limits = LIMITS;
  protected readonly faces = signal(false);

  protected readonly sum = computed(() => {
    const file = this.file();
    if (file === null) return '';
    const { parts } = file.piece;
    const whole = parts.reduce(
      (sum, { widthMm, heightMm, oval }) =>
        sum + 1e-6 * panelArea({ width: widthMm, height: heightMm, oval }),
      0,
    );
    const finishes = meantFinishes(file).length;
    return `${parts.length} ${parts.length === 1 ? 'part' : 'parts'}, ${area(whole, this.units())} in all, ${
      finishes === 1 ? 'one finish' : `${finishes} finishes`
    }. Drag a chosen part's corner, or type its size.`;
  });

  protected pick(partId: string): void {
    this.store.dispatch(PlanEditor.partChosen({ partId }));
  }

  protected resize({ partId, widthMm, heightMm }: Resized): void {
    this.store.dispatch(
      PlanEditor.partChanged({ partId, changes: { widthMm, heightMm }, gesture: `size ${partId}` }),
    );
  }

  protected endResize(): void {
    this.store.dispatch(PlanEditor.gestureEnded());
  }

  protected rename(input: HTMLInputElement): void {
    const name = plainText(input.value);
    if (name === '') input.value = this.file()!.piece.name;
    else this.store.dispatch(PlanEditor.pieceRenamed({ name }));
  }

  protected addPanel(): void {
    const part = this.plan()!.part;
    const panel = { ...newPart(newId(), 'Panel', FREE_PANEL, part.finish), substrate: part.substrate };
    this.store.dispatch(PlanEditor.partsAdded({ parts: [{ ...panel, history: part.history }] }));
  }

  protected beginPiece(): void {
    const finish = this.plan()!.part.finish;
    this.dialog
      .open<NewPiece, void, NewPieceAnswer>(NewPiece, { width: '620px', maxWidth: '95vw' })
      .afterClosed()
      .subscribe((answer) => {
        if (answer === undefined) return;
        const parts = answer.parts.map((part) => ({ ...part, finish }));
        this.store.dispatch(PlanEditor.partsReplaced({ name: answer.name, parts }));
      });
  }
}
