import { type Provider } from '@angular/core';
import { MAT_DIALOG_DEFAULT_OPTIONS, MatDialogConfig } from '@angular/material/dialog';

/** Sheets have the keys from their first moment: what is typed while one opens goes to it, and not to what lies below. */
export function provideSheets(): Provider {
  return {
    provide: MAT_DIALOG_DEFAULT_OPTIONS,
    useValue: { ...new MatDialogConfig(), delayFocusTrap: false },
  };
}
