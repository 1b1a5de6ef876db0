import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  API,
  type DoorAnswer,
  INNER_PATH,
  type Invitation,
  type SignedIn,
  type SignIn,
} from '@zaffet/contract';
import { firstValueFrom } from 'rxjs';
import { Door } from './door';
import { RELOAD } from './page-worker';

/** The server's door: signing in and out, who is in, who is invited, who is shut out. */
@Injectable({ providedIn: 'root' })
export class DoorApi {
  private readonly http = inject(HttpClient);
  private readonly door = inject(Door);
  private readonly reload = inject(RELOAD);

  stands(): Promise<DoorAnswer> {
    return firstValueFrom(this.http.get<DoorAnswer>(API.session));
  }

  /** Looks before anything else is asked, so that a device outside asks nothing more; a server that is away says nothing. */
  async look(): Promise<void> {
    const { network, name } = await this.stands().catch(() => ({ network: false, name: null }));
    this.door.outside = network && name === null;
    if (this.door.outside) this.door.shutIt();
  }

  /** Signs this device in, and begins anew where it was, or where the invitation leads. @throws where it may not */
  async signIn(asked: SignIn): Promise<void> {
    await firstValueFrom(this.http.post<DoorAnswer>(API.session, asked));
    const to = new URLSearchParams(location.search).get('to') ?? '';
    // The key is used up; nobody shall find it in the history.
    if (this.door.key !== null) history.replaceState(null, '', INNER_PATH.test(to) ? to : '/plans');
    this.reload();
  }

  async signOut(): Promise<void> {
    await firstValueFrom(this.http.delete<void>(API.session));
    this.door.shutIt();
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
