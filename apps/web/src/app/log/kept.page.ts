import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { LOG_PAGE, type LogFound } from '@zaffet/contract';
import { FIGURE_WORDS, figures, perCent } from '@zaffet/words';
import {
  type Kept,
  MEASURED_FIGURES,
  type MeasuredFigure,
  type School,
  SCHOOLS,
  talliesBy,
  type Tally,
  tallyOf,
} from '@zaffet/workshop';
import { format } from 'date-fns';
import { firstValueFrom } from 'rxjs';
import { CalibrationApi } from '../data/calibration.api';
import { LogApi } from '../data/log.api';
import { faultOf } from '../data/plans.api';
import { LogThread } from '../workers/log-thread';

/** Of fewer nothing can be said. */
const FEW = 8;
const LENGTHS: readonly string[] = ['spacing', 'opening'];
const measuredAtAll = ({ spacingMm, openingMm, chipped, worn }: LogFound): boolean =>
  [spacingMm, openingMm, chipped, worn].some((value) => value !== null);
const halfYear = ({ at }: Kept): string => {
  const date = new Date(at);
  return `${date.getMonth() < 6 ? 'first' : 'second'} half of ${date.getFullYear()}`;
};

interface Row {
  readonly key: string;
  readonly name: string;
  readonly tally: Tally;
  readonly off: string;
  readonly says: string;
}

/** How good predictions have been, as it turned out: whether bands hold, of which figure, which way of working, when. */
@Component({
  selector: 'zf-kept-page',
  imports: [MatButtonModule, RouterLink],
  providers: [LogThread],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './kept.page.html',
  styleUrl: './kept.page.scss',
})
export class KeptPage {
  private readonly api = inject(LogApi);
  private readonly runs = inject(CalibrationApi);
  private readonly thread = inject(LogThread);
  protected readonly kept = signal<readonly Kept[] | null>(null);
  protected readonly trouble = signal<string | null>(null);

  constructor() {
    void this.read();
  }

  private async read(): Promise<void> {
    try {
      const measured: LogFound[] = [];
      for (let skip = 0, count = 1; skip < count; skip += LOG_PAGE) {
        const answer = await firstValueFrom(this.api.find({ skip }));
        count = answer.count;
        measured.push(...answer.found.filter(measuredAtAll));
      }
      const told = await Promise.all(
        measured.map(async ({ runId }) => ({ id: runId, events: await this.runs.eventsOf(runId) })),
      );
      this.kept.set(await this.thread.kept(told));
    } catch (error) {
      this.trouble.set(faultOf(error).message);
      this.kept.set([]);
    }
  }

  protected readonly all = computed(() => {
    const kept = this.kept() ?? [];
    if (kept.length === 0) return null;
    const tally = tallyOf(kept);
    return `Of ${tally.count} figures that were foretold and measured, ${tally.inside} came out inside the band that 8 in 10 should be in: ${perCent(tally.inside / tally.count)}. ${saysOf(tally)}`;
  });
  protected readonly byFigure = computed(() =>
    this.rows(
      MEASURED_FIGURES.flatMap((key) =>
        talliesBy(
          (this.kept() ?? []).filter((one) => one.key === key),
          (one) => one.key,
        ),
      ),
      (key) => FIGURE_WORDS[key as MeasuredFigure].name,
    ),
  );
  protected readonly bySchool = computed(() =>
    this.rows(
      talliesBy(this.kept() ?? [], ({ school }) => school ?? ''),
      (key) => SCHOOLS[key as School] ?? 'Another way',
    ),
  );
  protected readonly byTime = computed(() =>
    this.rows(
      talliesBy(
        [...(this.kept() ?? [])].sort((a, b) => a.at - b.at),
        halfYear,
      ),
      (key) => key,
    ),
  );
  protected readonly groups = computed(() =>
    [
      { name: 'By figure', off: true, rows: this.byFigure() },
      { name: 'By way of working', off: false, rows: this.bySchool() },
      { name: 'Over time', off: false, rows: this.byTime() },
    ].filter(({ rows }) => rows.length > 0),
  );

  private rows(
    tallies: readonly { readonly key: string; readonly tally: Tally }[],
    name: (key: string) => string,
  ): Row[] {
    return tallies.map(({ key, tally }) => ({
      key,
      name: name(key),
      tally,
      // Of figures of several kinds no one measure says how far they are off.
      off:
        tally.off === null || !(MEASURED_FIGURES as readonly string[]).includes(key)
          ? ''
          : LENGTHS.includes(key)
            ? `half of them within ${figures(100 * tally.off)} %`
            : `half of them within ${figures(100 * tally.off)} points`,
      says: saysOf(tally),
    }));
  }

  /** Those that came out otherwise, the newest first. */
  protected readonly missed = computed(() =>
    (this.kept() ?? [])
      .filter(({ inside }) => !inside)
      .sort((a, b) => b.at - a.at)
      .map((one) => ({
        ...one,
        when: format(new Date(one.at), 'd MMM yyyy'),
        figure: FIGURE_WORDS[one.key].name.toLowerCase(),
        way: one.measured > one.foretold.high! ? 'more than foretold' : 'less than foretold',
      })),
  );
}

/** What so many inside say of the bands. */
function saysOf({ count, inside, expected }: Tally): string {
  if (count < FEW) return 'Too few to say.';
  if (inside < expected.least) return 'Too few are inside: it is told too sure here.';
  if (inside > expected.most) return 'Nearly all are inside: it is told less sure than it is.';
  return 'As it should be.';
}
