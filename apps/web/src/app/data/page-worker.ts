import { inject, Injectable, InjectionToken, signal } from '@angular/core';
import { Door } from './door';

/** Asked for a newer build this often [ms]. */
const AGAIN = 3_600_000;

/** Reloads the page; a test has another. */
export const RELOAD = new InjectionToken<() => void>('reload', {
  providedIn: 'root',
  factory: () => () => location.reload(),
});

/**
 * The worker that keeps the page on this device, so that it opens while the server is away. A newer build waits until
 * somebody takes it: nothing changes under the hand.
 */
@Injectable({ providedIn: 'root' })
export class PageWorker {
  private readonly reload = inject(RELOAD);
  private readonly door = inject(Door);
  private readonly waiting = signal<ServiceWorker | null>(null);
  readonly newer = this.waiting.asReadonly();
  /** Whether the page opens without the server. */
  readonly kept = signal(false);

  /** Begins it, where the browser has such workers. A device that is not signed in may not have its files. */
  async begin(): Promise<void> {
    if (this.door.outside || !('serviceWorker' in navigator)) return;
    const { serviceWorker } = navigator;
    this.kept.set(serviceWorker.controller !== null);
    let controlled = serviceWorker.controller !== null;
    serviceWorker.addEventListener('controllerchange', () => {
      // A full disk may take the worker away: a page that is open goes on, where a reload would find nothing.
      this.kept.set(serviceWorker.controller !== null);
      if (serviceWorker.controller === null) return;
      // The first worker takes a page that has its files already; a newer one has others.
      if (controlled) this.reload();
      controlled = true;
    });
    try {
      const registration = await serviceWorker.register('/sw.js');
      const look = (): void => {
        if (serviceWorker.controller !== null) this.waiting.set(registration.waiting);
      };
      registration.addEventListener('updatefound', () => {
        registration.installing?.addEventListener('statechange', look);
      });
      look();
      setInterval(() => void registration.update().catch(() => undefined), AGAIN);
    } catch {
      // Without it the page needs the server to open; an open page goes on.
    }
  }

  takeNewer(): void {
    this.waiting()?.postMessage('take over');
  }
}
