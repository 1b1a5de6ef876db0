import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { PageWorker } from './data/page-worker';

@Component({
  selector: 'zf-root',
  imports: [RouterOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <router-outlet />
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
  protected readonly pageWorker = inject(PageWorker);

  constructor() {
    void this.pageWorker.begin();
  }
}
