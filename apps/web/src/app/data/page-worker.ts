import { inject, Injectable, InjectionToken, signal } from '@angular/core';
import { Door } from './door';

/** Asked for a newer build this often [ms]. */
const AGAIN = 3_600_000;
/** A first worker whose files did not all come is tried again after this long, doubling up to the time above [ms]. */
const FIRST_RETRY = 5000;
/** A worker with unfinished answers keeps a newer one waiting, in some browsers for minutes. After this it has to go [ms]. */
const PATIENCE = 4000;
const SCRIPT = '/sw.js';

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
  private registration: ServiceWorkerRegistration | null = null;
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
    setInterval(() => void this.registration?.update().catch(() => undefined), AGAIN);
    await this.register(FIRST_RETRY);
  }

  private async register(wait: number): Promise<void> {
    const again = (): void => void setTimeout(() => void this.register(Math.min(2 * wait, AGAIN)), wait);
    const registration: ServiceWorkerRegistration | null | undefined = await navigator.serviceWorker
      .register(SCRIPT)
      .catch(() => null);
    // Without it the page needs the server to open; an open page goes on. Where workers are blocked there is none.
    if (registration === undefined) return;
    if (registration === null) return again();
    this.registration = registration;
    const look = (): void => {
      if (navigator.serviceWorker.controller !== null) this.waiting.set(registration.waiting);
    };
    const first = registration.active === null ? registration.installing : null;
    first?.addEventListener('statechange', () => {
      if (first.state === 'redundant' && registration.active === null) again();
    });
    registration.addEventListener('updatefound', () => {
      registration.installing?.addEventListener('statechange', look);
    });
    look();
  }

  /** Lets the newer build take over: the page is reloaded then, without its worker where that one does not end. */
  async takeNewer(): Promise<void> {
    this.waiting()?.postMessage('take over');
    await new Promise((go) => setTimeout(go, PATIENCE));
    const answer = await fetch(SCRIPT, { method: 'HEAD', cache: 'no-store' }).catch(() => null);
    if (answer?.ok !== true || this.waiting()?.state !== 'installed') return;
    await this.registration?.unregister();
    this.reload();
  }
}
