import { Directive, type OnDestroy } from '@angular/core';

/** Gives the focus back where it came from when the card that has it goes: a keyboard goes on where it was. */
@Directive({ host: { '(focusin)': 'inside = true', '(focusout)': 'left($event)' } })
export class KeepsFocus implements OnDestroy {
  private readonly from = document.activeElement;
  protected inside = false;

  /** Only what goes elsewhere has left: of what is taken off the page focus goes nowhere. */
  protected left({ relatedTarget }: FocusEvent): void {
    if (relatedTarget !== null) this.inside = false;
  }

  ngOnDestroy(): void {
    if (!this.inside || document.activeElement !== document.body) return;
    if (this.from instanceof HTMLElement || this.from instanceof SVGElement) this.from.focus();
  }
}
