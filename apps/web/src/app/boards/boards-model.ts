import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { type CalibrationFile, fault, type Plan, type SavedPlan, ZaffetError } from '@zaffet/contract';
import { type LeftOut } from '@zaffet/core/calibrate';
import { foldRun, teaches } from '@zaffet/workshop';
import { firstValueFrom } from 'rxjs';
import { CalibrationApi } from '../data/calibration.api';
import { faultOf, PlansApi } from '../data/plans.api';
import { readJsonFile } from '../ui/read-json-file';
import { CalibrationHand } from '../shop/calibration.actions';
import { calibrationFeature } from '../shop/calibration.feature';
import { type Taught, type ToldRun } from '../workers/boards-messages';
import { BoardsThread } from '../workers/boards-thread';
import { Latest } from '../workers/thread';

/** What was measured, what it teaches, and what the shop goes by. */
@Injectable()
export class BoardsModel {
  private readonly api = inject(CalibrationApi);
  private readonly plansApi = inject(PlansApi);
  private readonly thread = inject(BoardsThread);
  private readonly store = inject(Store);
  readonly kept = this.store.selectSignal(calibrationFeature.selectKept);
  readonly learned = this.store.selectSignal(calibrationFeature.selectLearned);
  readonly saving = this.store.selectSignal(calibrationFeature.selectSaving);
  readonly fault = this.store.selectSignal(calibrationFeature.selectFault);

  /** Runs that teach something; null until they were read. */
  readonly runs = signal<readonly ToldRun[] | null>(null);
  readonly trouble = signal<string | null>(null);
  readonly leftOut = signal<readonly string[]>([]);
  readonly taught = signal<Taught | null>(null);
  readonly fitting = signal(false);
  readonly checked = signal<readonly LeftOut[] | null>(null);
  readonly checking = signal(false);
  readonly plans = signal<readonly SavedPlan[]>([]);

  /** What the shop goes by is what was fitted here last. */
  readonly current = computed(() => {
    const [now, found] = [this.learned(), this.taught()?.calibration?.learned ?? null];
    return now !== null && found !== null && JSON.stringify(now.mean) === JSON.stringify(found.mean);
  });

  private readonly fits = new Latest((leftOut: readonly string[]) =>
    this.thread.learn(this.runs() ?? [], leftOut),
  );

  /** Reads all runs, and fits what was measured. */
  async open(): Promise<void> {
    try {
      const listed = await this.api.runs();
      const told = await Promise.all(
        listed.map(async ({ id }) => ({ id, events: await this.api.eventsOf(id) })),
      );
      this.runs.set(
        told.filter(({ events }) => {
          const run = foldRun(events);
          return run !== null && teaches(run);
        }),
      );
      const holding = this.kept()?.[0];
      if (holding !== undefined) this.leftOut.set(holding.leftOut);
      this.fit();
      const plans = await firstValueFrom(this.plansApi.list());
      this.plans.set(await Promise.all(plans.map((one) => firstValueFrom(this.plansApi.readListed(one)))));
    } catch (error) {
      this.trouble.set(faultOf(error).message);
      this.runs.update((known) => known ?? []);
    }
  }

  private fit(): void {
    this.fitting.set(true);
    this.checked.set(null);
    const done = (): void => this.fitting.set(false);
    this.fits.put(
      this.leftOut(),
      (taught) => {
        this.taught.set(taught);
        done();
      },
      () => {
        this.trouble.set('The fit could not be worked out. Leave out what looks wrong; nothing is lost.');
        done();
      },
    );
  }

  /** A cell counts, or does not. */
  turn(cell: string): void {
    this.leftOut.update((out) => (out.includes(cell) ? out.filter((one) => one !== cell) : [...out, cell]));
    this.fit();
  }

  /** How well each cell is foretold by the others. */
  async check(): Promise<void> {
    this.checking.set(true);
    try {
      this.checked.set(await this.thread.leaveOut(this.runs() ?? [], this.leftOut()));
    } catch {
      this.trouble.set('The check could not be worked out. Leave out what looks wrong, and try again.');
    }
    this.checking.set(false);
  }

  /** Everything goes by what was fitted, from now on. */
  take(): void {
    const calibration = this.taught()?.calibration;
    if (calibration == null) return;
    const { keys, mean, covariance, centre = [] } = calibration.learned;
    this.store.dispatch(
      CalibrationHand.taken({
        file: {
          learned: { keys, mean, covariance, centre },
          runs: (this.runs() ?? []).map(({ id }) => id),
          leftOut: this.leftOut(),
        },
      }),
    );
  }

  /** Everything goes by what another shop learned, once the server has looked at it. */
  async bringIn(file: File): Promise<void> {
    this.trouble.set(null);
    try {
      const { learned, runs, leftOut } = (await readJsonFile(file)) as Partial<CalibrationFile>;
      if (learned === undefined) throw new ZaffetError(fault('request.not-json'));
      this.store.dispatch(
        CalibrationHand.taken({ file: { learned, runs: runs ?? [], leftOut: leftOut ?? [] } }),
      );
    } catch (error) {
      this.trouble.set((error instanceof ZaffetError ? error.fault : fault('request.not-json')).message);
    }
  }

  /** What held before holds again; the tables where nothing did. @param back - how many calibrations before */
  goBack(back = 1): void {
    const before = this.kept()?.[back];
    this.store.dispatch(
      CalibrationHand.taken({
        file:
          before === undefined
            ? { learned: null, runs: [], leftOut: [] }
            : { learned: before.learned, runs: before.runs, leftOut: before.leftOut },
      }),
    );
  }

  design(...asked: Parameters<BoardsThread['design']>): ReturnType<BoardsThread['design']> {
    return this.thread.design(...asked);
  }

  /** Makes a plan of a board. @returns its id */
  async make(plan: Plan): Promise<string> {
    return (await firstValueFrom(this.plansApi.create(plan))).id;
  }
}
