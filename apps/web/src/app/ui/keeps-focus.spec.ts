import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { KeepsFocus } from './keeps-focus';

@Component({
  selector: 'zf-card',
  hostDirectives: [KeepsFocus],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<button>Close</button>',
})
class Card {}

@Component({
  imports: [Card],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<button id="first">One</button><input />@if (open()) {<zf-card />}',
})
class Page {
  readonly open = signal(false);
}

describe('a card that keeps focus', () => {
  it('gives it back where it came from, and takes it from nobody else', async () => {
    const fixture = TestBed.createComponent(Page);
    const root = fixture.nativeElement as HTMLElement;
    document.body.append(root);
    const shown = async (open: boolean): Promise<void> => {
      fixture.componentInstance.open.set(open);
      await fixture.whenStable();
      fixture.detectChanges();
    };
    await shown(false);
    const opener = root.querySelector<HTMLButtonElement>('#first')!;
    opener.focus();
    await shown(true);
    root.querySelector<HTMLButtonElement>('zf-card button')!.focus();
    await shown(false);
    expect(document.activeElement).toBe(opener);

    await shown(true);
    const field = root.querySelector('input')!;
    field.focus();
    await shown(false);
    expect(document.activeElement).toBe(field);
    root.remove();
  });
});
