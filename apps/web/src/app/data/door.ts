import { HttpErrorResponse, type HttpInterceptorFn } from '@angular/common/http';
import { inject, Injectable, signal } from '@angular/core';
import { ERRORS } from '@zaffet/contract';
import { tap } from 'rxjs';

const NOT_IN = ERRORS['session.needed'].status;
const KEY = /^#[A-Za-z0-9_-]{43}$/;

/** Whether the server will say otherwise once this device is signed in, or has waited. */
export const isPassing = (status: number): boolean =>
  status === NOT_IN || status === ERRORS['session.too-many-tries'].status;

/** Whether this device is in, where a workshop's Zaffet is open to the network. */
@Injectable({ providedIn: 'root' })
export class Door {
  private readonly closed = signal(false);
  /** The server answers only to those who are signed in, and this device is not. */
  readonly shut = this.closed.asReadonly();
  /** It was not when this page began: then no page is shown at all. */
  outside = false;
  /** Of the invitation this page was opened by; null where there was none. */
  readonly key = KEY.test(location.hash) ? location.hash.slice(1) : null;

  shutIt(): void {
    this.closed.set(true);
  }

  /** Told of every answer of the server. */
  heard(status: number): void {
    if (status === NOT_IN) this.shutIt();
  }
}

/** Tells the door what the server answers. */
export const doorInterceptor: HttpInterceptorFn = (request, next) => {
  const door = inject(Door);
  return next(request).pipe(
    tap({
      error: (error: unknown) => {
        if (error instanceof HttpErrorResponse) door.heard(error.status);
      },
    }),
  );
};
