import { inject, Injectable, Injector, type Type } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { type Card } from '../runs/bench-model';
import { MoreSheet } from './more-sheet';
import { RescueSheet } from './rescue-sheet';

/** The sheets over the bench. Most of their buttons tell something at once, so that none is in hand as they open. */
@Injectable()
export class BenchSheets {
  private readonly dialog = inject(MatDialog);
  private readonly injector = inject(Injector);

  more(card: Card): void {
    this.open(MoreSheet, card);
  }

  wrong(card: Card): void {
    this.open(RescueSheet, card);
  }

  private open(sheet: Type<unknown>, card: Card): void {
    this.dialog.open(sheet, {
      // A key that comes late must tell nothing.
      autoFocus: 'dialog',
      data: card,
      injector: this.injector,
      width: '720px',
      maxWidth: '96vw',
      maxHeight: '94vh',
    });
  }
}
