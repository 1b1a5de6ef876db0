import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { filePlan } from '@zaffet/contract';
import { duration, partsOf, sittingTitle } from '@zaffet/words';
import { beginAt, sittings } from '@zaffet/workshop';
import { Clock } from '../data/clock';
import { planFeature } from '../plan/plan.feature';
import { BenchHand } from '../runs/run.actions';
import { RunBox } from '../runs/run-box';
import { runFeature } from '../runs/run.feature';
import { calibrationFeature } from '../shop/calibration.feature';
import { newId } from '../data/fresh';

/** What is done first, at most. */
const FIRST = 4;

/** Where a plan goes to the bench: what would be done first, and the runs that were begun. */
@Component({
  selector: 'zf-bench-page',
  imports: [MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench.page.html',
  styleUrl: './bench.page.scss',
})
export class BenchPage {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly box = inject(RunBox);
  protected readonly clock = inject(Clock);
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  private readonly timed = this.store.selectSignal(planFeature.selectTimed);
  private readonly id = this.store.selectSignal(planFeature.selectId);
  private readonly learned = this.store.selectSignal(calibrationFeature.selectLearned);
  private readonly all = this.store.selectSignal(runFeature.selectRuns);
  protected readonly away = this.store.selectSignal(runFeature.selectAway);
  protected readonly beginning = signal(false);

  constructor() {
    this.store.dispatch(BenchHand.runsAsked());
  }

  protected readonly runs = computed(() => this.all()?.filter(({ planId }) => planId === this.id()) ?? null);
  protected readonly planned = computed(() => {
    const timed = this.timed();
    if (timed === null) return null;
    const start = Date.parse(timed.of.startsAt);
    return {
      at: start,
      lines: sittings(timed.of, timed.table)
        .filter(({ kind }) => kind !== 'mix')
        .slice(0, FIRST)
        .map((sitting) => ({
          id: sitting.id,
          at: this.clock.dayTime(start + sitting.from * 1000),
          title: sittingTitle(sitting, timed.of),
          parts: partsOf(sitting, timed.of),
          takes: duration(sitting.until - sitting.from),
        })),
    };
  });

  protected readonly toTime = (at: string): number => Date.parse(at);

  /** A run of the plan as it stands, begun now: its moments go by the clock of the workshop. */
  protected async begin(): Promise<void> {
    const plan = this.file();
    if (plan === null || this.beginning()) return;
    this.beginning.set(true);
    // Asked once something stands at stake: the browser may say no.
    void navigator.storage?.persist?.();
    const runId = newId();
    const begun = beginAt(plan, new Date(this.box.now()).toISOString());
    const learned = this.learned();
    await this.box.tell(runId, [{ kind: 'run-begun', planId: this.id(), plan: filePlan(begun), learned }]);
    await this.router.navigate(['/bench', runId]);
  }
}
