import { ApplicationRef, Directive, ElementRef, inject, type OnDestroy, output } from '@angular/core';

/** Where a pointer is, in the window's pixels. */
export interface Pull {
  readonly x: number;
  readonly y: number;
}

/**
 * Something that a pointer takes hold of and pulls: told when it is taken, where it is pulled to, at most once a frame
 * however fast the pointer reports, and when it is let go.
 */
@Directive({
  selector: '[zfHold]',
  host: {
    '(pointerdown)': 'press($event)',
    '(pointermove)': 'move($event)',
    '(pointerup)': 'letGo()',
    '(pointercancel)': 'letGo()',
  },
})
export class Hold implements OnDestroy {
  private readonly element = inject<ElementRef<Element>>(ElementRef).nativeElement;
  private held = false;
  private readonly app = inject(ApplicationRef);
  private frame = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private next: Pull | null = null;
  readonly zfHold = output<PointerEvent>();
  readonly pulled = output<Pull>();
  readonly released = output<void>();

  protected press(event: PointerEvent): void {
    this.element.setPointerCapture(event.pointerId);
    this.held = true;
    this.zfHold.emit(event);
  }

  protected move({ clientX: x, clientY: y }: PointerEvent): void {
    if (!this.held) return;
    this.next = { x, y };
    if (this.frame === 0) this.frame = requestAnimationFrame(() => this.afterFrame());
  }

  protected letGo(): void {
    if (!this.held) return;
    this.tell();
    this.held = false;
    this.released.emit();
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.frame);
    clearTimeout(this.timer);
  }

  /** What follows from a pull is worked out between two frames: a task of its own, and painted in the next. */
  private afterFrame(): void {
    this.timer = setTimeout(() => {
      this.tell();
      this.app.tick();
    });
  }

  private tell(): void {
    cancelAnimationFrame(this.frame);
    clearTimeout(this.timer);
    this.frame = 0;
    const { next } = this;
    this.next = null;
    if (next !== null) this.pulled.emit(next);
  }
}
