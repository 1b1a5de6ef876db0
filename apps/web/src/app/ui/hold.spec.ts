import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Hold, type Pull } from './hold';

@Component({
  imports: [Hold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template:
    '<i (zfHold)="told.push(\'held\')" (pulled)="pulled.push($event)" (released)="told.push(\'let go\')"></i>',
})
class Handle {
  readonly told: string[] = [];
  readonly pulled: Pull[] = [];
}

const frame = (): Promise<void> => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));

describe('hold', () => {
  const made = (): { handle: Handle; send: (kind: string, x: number) => void } => {
    const fixture = TestBed.createComponent(Handle);
    fixture.detectChanges();
    const element = (fixture.nativeElement as HTMLElement).querySelector('i')!;
    element.setPointerCapture = () => undefined;
    const send = (kind: string, x: number): void =>
      void element.dispatchEvent(new PointerEvent(kind, { pointerId: 1, clientX: x, clientY: 2 }));
    return { handle: fixture.componentInstance, send };
  };

  it('tells of a pull once a frame, with where the pointer is by then', async () => {
    const { handle, send } = made();
    send('pointermove', 5);
    send('pointerdown', 10);
    for (const x of [11, 12, 13]) send('pointermove', x);
    await frame();
    await frame();
    expect(handle.pulled).toEqual([{ x: 13, y: 2 }]);
    expect(handle.told).toEqual(['held']);
  });

  it('tells of the last pull before it is let go, and of none after', async () => {
    const { handle, send } = made();
    send('pointerdown', 10);
    send('pointermove', 20);
    send('pointerup', 20);
    send('pointermove', 30);
    await frame();
    expect(handle.pulled).toEqual([{ x: 20, y: 2 }]);
    expect(handle.told).toEqual(['held', 'let go']);
  });
});
