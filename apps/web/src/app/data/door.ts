import { HttpClient, HttpErrorResponse, type HttpInterceptorFn } from '@angular/common/http';
import { inject, Injectable, signal } from '@angular/core';
import {
  API,
  type DoorAnswer,
  ERRORS,
  INNER_PATH,
  type Invitation,
  type SignedIn,
  type SignIn,
} from '@zaffet/contract';
import { firstValueFrom, tap } from 'rxjs';
import { RELOAD } from './page-worker';

const NOT_IN = ERRORS['session.needed'].status;
const KEY = /^#[A-Za-z0-9_-]{43}$/;

/** Whether the server will say otherwise once this device is signed in, or has waited. */
export const isPassing = (status: number): boolean =>
  status === NOT_IN || status === ERRORS['session.too-many-tries'].status;

/** The door of a workshop whose Zaffet is open to the network: whether this device is in, and who else is. */
@Injectable({ providedIn: 'root' })
export class Door {
  private readonly http = inject(HttpClient);
  private readonly reload = inject(RELOAD);
  private readonly closed = signal(false);
  /** The server answers to those only who are signed in, and this device is not. */
  readonly shut = this.closed.asReadonly();
  /** It was not when this page began: then no page is shown at all. */
  outside = false;
  /** Of the invitation this page was opened by; null where there was none. */
  readonly key = KEY.test(location.hash) ? location.hash.slice(1) : null;

  /** Told of every answer of the server. */
  heard(status: number): void {
    if (status === NOT_IN) this.closed.set(true);
  }

  /** Looks before anything else is asked, so that a device outside asks nothing more; a server that is away says nothing. */
  async look(): Promise<void> {
    const { network, name } = await this.stands().catch(() => ({ network: false, name: null }));
    this.outside = network && name === null;
    if (this.outside) this.closed.set(true);
  }

  stands(): Promise<DoorAnswer> {
    return firstValueFrom(this.http.get<DoorAnswer>(API.session));
  }

  /** Signs this device in, and begins anew where it was, or where the invitation leads. @throws where it may not */
  async signIn(asked: SignIn): Promise<void> {
    await firstValueFrom(this.http.post<DoorAnswer>(API.session, asked));
    const to = new URLSearchParams(location.search).get('to') ?? '/plans';
    // The key is used up; nobody shall find it in the history.
    if (this.key !== null) history.replaceState(null, '', INNER_PATH.test(to) ? to : '/plans');
    this.reload();
  }

  async signOut(): Promise<void> {
    await firstValueFrom(this.http.delete<void>(API.session));
    this.closed.set(true);
  }

  devices(): Promise<readonly SignedIn[]> {
    return firstValueFrom(this.http.get<readonly SignedIn[]>(API.sessions));
  }
  async shutOut(id: string): Promise<void> {
    await firstValueFrom(this.http.delete<void>(API.oneSession(id)));
  }
  async shutOthersOut(): Promise<void> {
    await firstValueFrom(this.http.delete<void>(API.sessions));
  }
  invite(to: string): Promise<Invitation> {
    return firstValueFrom(this.http.post<Invitation>(API.invitations, { to }));
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
