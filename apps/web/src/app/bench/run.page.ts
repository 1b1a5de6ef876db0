import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { celsius, FIGURE_WORDS, figures, figureText, perCent, STATE_WORDS, stepTitle } from '@zaffet/words';
import { celsiusToKelvin } from '@zaffet/core/units';
import { forecast } from '@zaffet/core/forecast';
import { type LiveState } from '@zaffet/core/live';
import { bandedFigures, type FigureKey } from '@zaffet/core/readout';
import { asBelieved, basisOf } from '@zaffet/workshop';
import { Clock, showZone } from '../data/clock';
import { Sound } from '../data/sound';
import { Ticker } from '../data/ticker';
import { Units } from '../data/units';
import { PartFace } from '../ui/part-face';
import { saveFile } from '../ui/save-file';
import { BenchThread } from '../workers/bench-thread';
import { FacePool } from '../workers/face.pool';
import { BenchAir } from './bench-air';
import { BenchAlarms } from './bench-alarms';
import { BenchNotices } from './bench-notices';
import { BenchSheets } from './bench-sheets';
import { BenchModel, type Card } from '../runs/bench-model';
import { BenchHand } from '../runs/run.actions';
import { RunRecord } from '../runs/run-record';
import { StepCard } from './step-card';
import { ToldList } from './told-list';

/** States a drying coat is told by: the next of them. */
const TOLD: readonly LiveState[] = ['touch', 'recoat', 'through'];

/** Figures told beside the picture; shares under this are not seen. */
const TOLD_FIGURES: readonly FigureKey[] = ['spacing', 'opening', 'chips'];
const SEEN = 1e-5;

interface NextLine {
  readonly id: string;
  readonly partId: string;
  readonly at: string;
  readonly title: string;
  readonly part: string;
  readonly now: boolean;
  readonly must: boolean;
  /** The hands will be at something else until its window has closed. */
  readonly late: boolean;
}

/** A run on a tablet or a phone beside the work: one card, what comes next, what dries elsewhere. */
@Component({
  selector: 'zf-run-page',
  imports: [BenchNotices, PartFace, RouterLink, RunRecord, StepCard, ToldList],
  providers: [BenchModel, BenchAlarms, BenchAir, BenchSheets, BenchThread, FacePool, Ticker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './run.page.html',
  styleUrl: './run.page.scss',
})
export class RunPage {
  private readonly store = inject(Store);
  protected readonly model = inject(BenchModel);
  protected readonly alarms = inject(BenchAlarms);
  protected readonly hygrometer = inject(BenchAir);
  protected readonly sound = inject(Sound);
  protected readonly clock = inject(Clock);
  private readonly units = inject(Units).system;
  readonly run = input.required<string>();
  protected readonly listed = signal(false);
  protected readonly armed = signal(false);

  constructor() {
    showZone(() => this.model.run()?.plan.work?.zone ?? null);
    effect((onCleanup) => {
      this.store.dispatch(BenchHand.runAsked({ runId: this.run() }));
      onCleanup(() => this.store.dispatch(BenchHand.runLeft()));
    });
  }

  protected readonly stands = this.model.run;
  protected readonly over = computed(() => {
    const [run, cards] = [this.stands(), this.model.cards()];
    return run !== null && this.model.bench() !== null && cards.every(({ task }) => task === null);
  });
  protected readonly air = computed(() => {
    const run = this.stands();
    if (run === null) return '';
    const read = run.air.at(-1);
    const { temperatureC, humidity } = read ?? run.plan.air;
    const text = `${celsius(celsiusToKelvin(temperatureC), this.units())}, ${perCent(humidity)}`;
    return read === undefined ? `${text} as planned` : text;
  });
  /** How the coats that were looked at dry, against what was expected. */
  protected readonly pace = computed(() => {
    const air = this.model.bench()?.air;
    if (air === undefined || air.answers === 0) return null;
    const share = air.factor - 1;
    if (Math.abs(share) < 0.03) return 'it dries as expected';
    return `it dries ${figures(Math.abs(share) * 100)} % ${share > 0 ? 'quicker' : 'slower'} than expected`;
  });
  /** When all is dry as it goes now, and until when hands are wanted today. */
  protected readonly ends = computed(() => {
    const at = this.model.bench()?.readyAt;
    return at === undefined
      ? null
      : at === null
        ? 'In this air not all of it dries.'
        : `As it goes now all is dry ${this.moment(at)}.`;
  });
  protected readonly next = computed((): NextLine[] => {
    const [bench, card, now] = [this.model.bench(), this.model.card(), this.model.now()];
    if (bench === null) return [];
    // Of every other part what is next on it, and of the one in hand what follows.
    return bench.parts
      .flatMap(({ partId, tasks }) =>
        tasks
          .filter(({ state }) => state === 'doing' || state === 'next' || state === 'later')
          .slice(partId === card?.part.id && card.task !== null ? 1 : 0)
          .slice(0, 1),
      )
      .sort((a, b) => a.from - b.from)
      .map((task): NextLine => {
        const ready = task.state === 'doing' || (task.state === 'next' && task.from <= now);
        return {
          id: task.key,
          partId: task.partId,
          at: task.state === 'doing' ? 'under way' : ready ? 'now' : this.moment(Math.max(task.from, now)),
          title: this.model.title(task),
          part: this.partName(task.partId),
          now: ready,
          must: task.closes !== null,
          late: task.late && !ready,
        };
      });
  });
  protected readonly drying = computed(() => {
    const [bench, run, card, now] = [this.model.bench(), this.stands(), this.model.card(), this.model.now()];
    if (bench === null || run === null) return [];
    return bench.parts.flatMap(({ partId, film }) => {
      if (film === null || partId === card?.part.id) return [];
      const state = TOLD.find((one) => (film.states[one]?.at ?? 0) > now);
      if (state === undefined) return [];
      const step = this.model.stepOf(run, film.stepId);
      const colour = step !== null && 'colour' in step ? step.colour : null;
      return [
        {
          partId,
          name: this.partName(partId),
          what: step === null ? '' : stepTitle(step, run.plan.media),
          colour,
          text: `${STATE_WORDS[state]} about ${this.moment(film.states[state]!.at)}`,
        },
      ];
    });
  });

  /** The part in hand as it will look, by what was really done. */
  protected readonly look = computed(() => {
    const card = this.model.card();
    return card === null ? null : this.model.asDone(card.part.id);
  });
  protected readonly outcome = computed(() => {
    const plan = this.look();
    if (plan === null) return '';
    const basis = basisOf(plan);
    const believed = this.model.card()?.film?.figures ?? {};
    const shown = asBelieved(bandedFigures(basis, forecast(basis)), believed);
    const told = shown.flatMap(({ key, value, low, high }) => {
      if (value === null || !TOLD_FIGURES.includes(key) || value < SEEN) return [];
      const text = (amount: number): string => {
        const { number, unit } = figureText(key, amount, this.units());
        return `${number} ${unit}`.trim();
      };
      const band = low === null || high === null ? '' : ` (${text(low)} to ${text(high)})`;
      return [`${FIGURE_WORDS[key].name} ${text(value)}${band}`];
    });
    return told.length === 0 ? 'Neither cracks nor chips.' : `${told.join('; ')}.`;
  });

  private partName(partId: string): string {
    return this.model.parts().find(({ id }) => id === partId)?.name ?? '';
  }
  private moment(at: number): string {
    return this.clock.near(at, this.model.now());
  }

  protected show(partId: string): void {
    this.model.take(partId);
    this.listed.set(false);
  }
  protected async arm(): Promise<void> {
    await this.alarms.arm();
    this.armed.set(true);
  }
  /** Alarms as a calendar file: for a device that goes to sleep. */
  protected async calendar(): Promise<void> {
    const [run, bench, runId] = [this.stands(), this.model.bench(), this.model.runId()];
    if (run === null || bench === null || runId === null) return;
    const { benchCalendar } = await import('@zaffet/words');
    const text = benchCalendar(bench, run.plan, runId, this.model.now());
    saveFile(new Blob([text], { type: 'text/calendar' }), `${run.plan.name} at the bench`, '.ics');
  }

  protected pause(): void {
    this.model.tell({ kind: this.stands()!.paused ? 'resumed' : 'paused' });
  }
  protected finish(): void {
    this.model.tell({ kind: this.stands()!.finishedAt === null ? 'finished' : 'reopened' });
  }
  protected headOf({ part }: Card): string {
    return part.name;
  }
}
