import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { NavigationEnd, Router, RouterLink } from '@angular/router';
import { filter, map } from 'rxjs';
import { PhotoBox } from '../data/photo-box';
import { type WaitingPhoto } from '../data/photo-store';
import { PlanOutbox } from '../data/plan-outbox';
import { ShelfOutbox } from '../data/shelf-outbox';
import { RunBox } from '../runs/run-box';
import { saveFile } from '../ui/save-file';

/** What is sent within this is not worth a sign [ms]. */
const PATIENCE = 2500;
const counted = (count: number, one: string, many: string): string[] =>
  count === 0 ? [] : [`${count} ${count === 1 ? one : many}`];

/**
 * What waits on this device to be sent, on every page: with it all queues begin, whatever page is opened. It shows
 * nothing while everything passes at once.
 */
@Component({
  selector: 'zf-waiting-sign',
  imports: [MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (shown()) {
      <section class="sign" aria-label="Not on the server yet">
        <div class="line">
          <span role="status">
            {{ sentence() }}
            @if (onlyHere()) {
              <b>This device has no room to keep it: leave this page open until it is sent.</b>
            }
          </span>
          <button mat-button [attr.aria-expanded]="isOpen()" (click)="isOpen.set(!isOpen())">
            {{ isOpen() ? 'Hide' : 'Details' }}
          </button>
        </div>
        @if (isOpen()) {
          <ul>
            @for (text of parts(); track text) {
              <li>{{ text }}. Sent as soon as the server answers.</li>
            }
            @for (plan of plans.state().held; track plan.key) {
              <li>
                “{{ plan.body.plan.name }}” was changed elsewhere too, or can't be saved as it is.
                <a mat-stroked-button [routerLink]="['/plan', plan.key, 'layers']">Open the plan</a>
              </li>
            }
            @for (photo of photos.state().refused; track photo.hash) {
              <li>
                A photograph wasn't accepted: {{ photo.refused }}
                <button mat-stroked-button (click)="save(photo)">Save it as a file</button>
                <button mat-button (click)="photos.drop(photo.hash)">Delete</button>
              </li>
            }
          </ul>
        }
      </section>
    }
  `,
  styles: `
    .sign {
      border-bottom: 1px solid var(--rust);
      background: var(--rust-soft);
      color: var(--ink);
      font-size: 14px;
    }
    .line {
      display: flex;
      gap: 10px;
      align-items: center;
      min-height: 44px;
      padding: 0 18px;
    }
    .line span {
      flex: 1;
    }
    ul {
      display: grid;
      gap: 6px;
      margin: 0;
      padding: 0 18px 12px 36px;
    }
    li {
      overflow-wrap: anywhere;
    }
    li > * {
      margin-left: 8px;
    }
  `,
})
export class WaitingSign {
  protected readonly plans = inject(PlanOutbox);
  private readonly shelf = inject(ShelfOutbox);
  protected readonly photos = inject(PhotoBox);
  private readonly runs = inject(RunBox);

  private readonly router = inject(Router);
  private readonly url = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      map(() => this.router.url),
    ),
    { initialValue: this.router.url },
  );
  /** The bench says in large letters how it stands with its own reports. */
  private readonly isBench = computed(() => this.url().startsWith('/bench/'));
  private readonly reports = computed(() => (this.isBench() ? 0 : this.runs.state().unsent));

  protected readonly isOpen = signal(false);
  protected readonly parts = computed(() => [
    ...counted(this.plans.state().waiting, 'plan', 'plans'),
    ...counted(this.shelf.state().waiting, 'change of the shelf', 'changes of the shelf'),
    ...counted(this.photos.state().unsent, 'photograph', 'photographs'),
    ...counted(this.reports(), 'bench report', 'bench reports'),
  ]);
  private readonly waiting = computed(
    () =>
      this.plans.state().waiting + this.shelf.state().waiting + this.photos.state().unsent + this.reports(),
  );
  private readonly decisions = computed(
    () => this.plans.state().held.length + this.photos.state().refused.length,
  );
  /** Something has waited for longer than sending takes. */
  private readonly isLate = signal(false);
  /** The browser's store is full, or refuses: what waits is in this page alone. */
  protected readonly onlyHere = computed(
    () => !this.photos.state().kept || (this.reports() > 0 && !this.runs.state().kept),
  );
  protected readonly shown = computed(() => (this.isLate() && this.waiting() > 0) || this.decisions() > 0);
  protected readonly sentence = computed(() => {
    const waiting = this.isLate()
      ? counted(this.waiting(), 'thing waits to be sent', 'things wait to be sent')
      : [];
    const decisions = counted(this.decisions(), 'thing needs your decision', 'things need your decision');
    return `${[...waiting, ...decisions].join(', ')}.`;
  });

  constructor() {
    const isWaiting = computed(() => this.waiting() > 0);
    effect((clean) => {
      if (!isWaiting()) {
        this.isLate.set(false);
        return;
      }
      const timer = setTimeout(() => this.isLate.set(true), PATIENCE);
      clean(() => clearTimeout(timer));
    });
  }

  protected save({ hash, original }: WaitingPhoto): void {
    saveFile(original, `photograph ${hash.slice(0, 8)}`, `.${original.type.split('/')[1] ?? 'jpg'}`);
  }
}
