import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Router, RouterOutlet } from '@angular/router';
import { Door } from './data/door';
import { PageWorker } from './data/page-worker';
import { SignInSheet } from './shell/sign-in';
import { WaitingSign } from './shell/waiting-sign';

@Component({
  selector: 'zf-root',
  imports: [RouterOutlet, SignInSheet, WaitingSign],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!door.outside) {
      @defer (on idle) {
        <zf-waiting-sign />
      }
      <div class="pages" [inert]="door.shut()"><router-outlet /></div>
    }
    @if (door.shut()) {
      @defer (on immediate) {
        <zf-sign-in />
      }
    }
    @if (pageWorker.newer() !== null) {
      <p role="status">
        A newer Zaffet is ready.
        <button (click)="pageWorker.takeNewer()">Take it now</button>
      </p>
    }
  `,
  styleUrl: './app.scss',
})
export class App {
  protected readonly door = inject(Door);
  protected readonly pageWorker = inject(PageWorker);

  constructor() {
    if (!this.door.outside) inject(Router).initialNavigation();
    void this.pageWorker.begin();
  }
}
