import { DestroyRef, type ElementRef, inject, type Signal, signal } from '@angular/core';

/** The size of an element as a signal [px], following every change. */
export function sizeOf(
  element: ElementRef<HTMLElement>,
  first: { width: number; height: number },
): Signal<{ width: number; height: number }> {
  const size = signal(first);
  const observer = new ResizeObserver(([entry]) => {
    if (entry === undefined) return;
    const { width, height } = entry.contentRect;
    if (width > 0 && height > 0) size.set({ width: Math.round(width), height: Math.round(height) });
  });
  observer.observe(element.nativeElement);
  inject(DestroyRef).onDestroy(() => observer.disconnect());
  return size;
}
