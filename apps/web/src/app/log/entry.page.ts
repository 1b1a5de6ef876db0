import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { type Plan } from '@zaffet/contract';
import { type Learned } from '@zaffet/core/media';
import { type Figure } from '@zaffet/core/readout';
import {
  entryFigures,
  entryMade,
  FATE_WORDS,
  FIGURE_WORDS,
  figureText,
  perCent,
  stepTitle,
  VERDICT_WORDS,
  celsius,
} from '@zaffet/words';
import { type ComparedPart, entryOf, type School, SCHOOLS } from '@zaffet/workshop';
import { format } from 'date-fns';
import { firstValueFrom } from 'rxjs';
import { celsiusToKelvin } from '@zaffet/core/units';
import { BenchModel } from '../runs/bench-model';
import { BenchHand } from '../runs/run.actions';
import { runFeature } from '../runs/run.feature';
import { RunRecord } from '../runs/run-record';
import { LogApi } from '../data/log.api';
import { faultOf, PlansApi } from '../data/plans.api';
import { PhotoBox } from '../data/photo-box';
import { ChoiceField } from '../ui/choice-field';
import { Ticker } from '../data/ticker';
import { Units } from '../data/units';
import { calibrationFeature } from '../shop/calibration.feature';
import { type ToldRun } from '../workers/boards-messages';
import { BenchThread } from '../workers/bench-thread';
import { LogThread } from '../workers/log-thread';
import { Latest } from '../workers/thread';
import { RepeatSheet } from './repeat-sheet';

/** Air that is nearer than this to what was planned is the same. */
const OTHER_AIR = { degrees: 1, share: 0.03 } as const;

/** A run that is to be compared, with what the shop knows today. */
interface Asked extends ToldRun {
  readonly learned: Learned | null;
}

/** One entry of the log: what was planned, done and measured, its photographs, and what is to be said of it since. */
@Component({
  selector: 'zf-entry-page',
  imports: [ChoiceField, MatButtonModule, RouterLink, RunRecord],
  providers: [BenchModel, BenchThread, LogThread, Ticker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './entry.page.html',
  styleUrl: './entry.page.scss',
})
export class EntryPage {
  private readonly store = inject(Store);
  private readonly thread = inject(LogThread);
  private readonly dialog = inject(MatDialog);
  private readonly plans = inject(PlansApi);
  protected readonly router = inject(Router);
  protected readonly besideOptions = computed(() => [
    { value: '', name: 'Lay beside another entry …' },
    ...this.beside().map(({ runId, name }) => ({ value: runId, name })),
  ]);
  private readonly log = inject(LogApi);
  private readonly units = inject(Units).system;
  protected readonly photos = inject(PhotoBox);
  protected readonly model = inject(BenchModel);
  private readonly learned = this.store.selectSignal(calibrationFeature.selectLearned);
  private readonly events = this.store.selectSignal(runFeature.selectEvents);
  readonly run = input.required<string>();

  constructor() {
    effect((onCleanup) => {
      this.store.dispatch(BenchHand.runAsked({ runId: this.run() }));
      onCleanup(() => this.store.dispatch(BenchHand.runLeft()));
    });
    effect(() => {
      const [events, learned] = [this.events(), this.learned()];
      if (events.length === 0) return;
      untracked(() =>
        this.comparing.put(
          { id: this.run(), events, learned },
          (compared) => {
            this.compared.set(compared);
            this.failed.set(false);
          },
          () => this.failed.set(true),
        ),
      );
    });
    void firstValueFrom(this.log.find({}))
      .then(({ found }) => this.others.set(found.map(({ runId, name }) => ({ runId, name }))))
      .catch(() => undefined);
  }

  private readonly comparing = new Latest(({ learned, ...told }: Asked) =>
    this.thread.compare(told, learned),
  );
  protected readonly compared = signal<readonly ComparedPart[] | null>(null);
  protected readonly failed = signal(false);
  /** Other entries, to be laid beside this one. */
  private readonly others = signal<readonly { readonly runId: string; readonly name: string }[]>([]);
  protected readonly beside = computed(() => this.others().filter(({ runId }) => runId !== this.run()));

  protected readonly entry = computed(() => {
    const run = this.model.run();
    return run === null ? null : entryOf(this.run(), run);
  });
  protected readonly told = computed(() => {
    const entry = this.entry();
    if (entry === null) return null;
    return {
      ...entry,
      when: format(new Date(entry.finishedAt ?? entry.begunAt), 'd MMMM yyyy'),
      way: entry.schools.map((key) => SCHOOLS[key as School] ?? key).join('; '),
      figures: entryFigures(entry, this.units()),
      made: entryMade(entry, this.units()),
      liked: entry.verdict === null ? '' : VERDICT_WORDS[entry.verdict],
      became: [entry.forWhom, entry.fate === null ? '' : FATE_WORDS[entry.fate]].filter(Boolean).join(', '),
    };
  });
  /** What air it was planned for, where another was read while it was made. */
  protected readonly plannedAir = computed(() => {
    const [run, read] = [this.model.run(), this.entry()];
    if (run === null || read === null || run.air.length === 0) return null;
    const { temperatureC, humidity } = run.plan.air;
    const off = Math.max(
      Math.abs(temperatureC - read.temperatureC!) / OTHER_AIR.degrees,
      Math.abs(humidity - read.humidity!) / OTHER_AIR.share,
    );
    if (off < 1) return null;
    return `Planned for ${celsius(celsiusToKelvin(temperatureC), this.units())}, ${perCent(humidity)} humid.`;
  });
  protected readonly notes = computed(() => {
    const run = this.model.run();
    return (run?.notes ?? []).map(({ at, partId, text }) => ({
      at,
      text,
      of: run!.plan.piece.parts.find(({ id }) => id === partId)?.name ?? '',
    }));
  });
  /** Its photographs, the last that shows it as it came out first. */
  protected readonly pictures = computed(() => [...(this.model.run()?.photos ?? [])].reverse());
  protected readonly seen = signal(0);

  /** What is not told by hand, eye or ruler is asked of whoever was there. */
  protected readonly missing = computed(() => {
    const [entry, run] = [this.entry(), this.model.run()];
    if (entry === null || run === null) return [];
    return [
      ...(entry.photos.length === 0 ? ['a photograph'] : []),
      ...(entry.verdict === null ? ['how it is liked'] : []),
      ...(Object.keys(run.outcomes).length === 0 ? ['what came out, by a ruler or a photograph'] : []),
      ...(run.details === null ? ['for whom it was, and what became of it'] : []),
    ];
  });

  /** What a colour is called: by the step that put it on. */
  private colourName(id: string): string {
    const plan = this.model.run()?.plan;
    const step = plan?.finishes.flatMap(({ steps }) => steps).find((candidate) => candidate.id === id);
    return step === undefined ? (id === 'wood' ? 'Bare wood' : 'Bare surface') : stepTitle(step, plan!.media);
  }

  protected readonly foretold = computed(() =>
    (this.compared() ?? []).flatMap(({ partId, name, figures, colours }) => {
      const rows = figures
        .filter(({ planned, done, measured }) => shown(planned) || shown(done) || measured !== null)
        .map(({ key, planned, done, today, measured }) => {
          const text = (value: number | null): string => {
            if (value === null) return '';
            const { number, unit } = figureText(key, value, this.units());
            return `${number} ${unit}`.trim();
          };
          const band = (figure: Figure | null): string =>
            figure === null ? '' : `${text(figure.value)} (${bare(figure.low)} to ${text(figure.high)})`;
          const bare = (value: number | null): string =>
            value === null ? '' : figureText(key, value, this.units()).number;
          return {
            key,
            name: FIGURE_WORDS[key].name,
            planned: band(planned),
            done: band(done),
            today: band(today),
            measured: text(measured),
            kept:
              measured === null || done?.low == null || done.high === null
                ? null
                : measured >= done.low && measured <= done.high,
          };
        });
      const share = (value: number | null): string => (value === null ? '' : perCent(value));
      const shares = colours.map(({ id, planned, done, today, measured }) => ({
        key: `colour ${id}`,
        name: this.colourName(id),
        planned: share(planned),
        done: share(done),
        today: share(today),
        measured: share(measured),
        kept: null,
      }));
      return rows.length + shares.length === 0 ? [] : [{ partId, name, rows: [...rows, ...shares] }];
    }),
  );

  protected readonly trouble = signal<string | null>(null);
  /** As a new plan, of what was done. */
  protected repeat(): void {
    const run = this.model.run();
    if (run === null) return;
    this.dialog
      .open<RepeatSheet, typeof run, Plan>(RepeatSheet, { data: run, width: '560px', maxWidth: '96vw' })
      .afterClosed()
      .subscribe((plan) => {
        if (plan !== undefined) void this.make(plan);
      });
  }
  private async make(plan: Plan): Promise<void> {
    try {
      const { id } = await firstValueFrom(this.plans.create(plan));
      await this.router.navigate(['/plan', id]);
    } catch (error) {
      this.trouble.set(faultOf(error).message);
    }
  }
}

/** A share nobody would see is not worth a row. */
const SEEN = 0.005;
const shown = (figure: Figure | null): boolean =>
  figure !== null && (figure.value ?? 0) >= (figure.key === 'spacing' || figure.key === 'opening' ? 0 : SEEN);
