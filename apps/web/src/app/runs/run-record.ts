import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import {
  FATES,
  LIMITS,
  type Part,
  type PhotoTime,
  plainText,
  type RunBodies,
  type Verdict,
  VERDICT_TIMES,
  type VerdictTime,
  VERDICTS,
} from '@zaffet/contract';
import {
  duration,
  FATE_WORDS,
  perCent,
  PHOTO_TIME_WORDS,
  stepTitle,
  um,
  VERDICT_TIME_WORDS,
  VERDICT_WORDS,
} from '@zaffet/words';
import { forecast } from '@zaffet/core/forecast';
import { coloursOf } from '@zaffet/core/outcome';
import { basisOf, isBoard, recordOf, type Run } from '@zaffet/workshop';
import { Clock } from '../data/clock';
import { Money } from '../data/money';
import { Units } from '../data/units';
import { MomentField } from '../ui/moment-field';
import { NumberField } from '../ui/number-field';
import { PhotoRow } from '../ui/photo-row';
import { BoardPhoto } from './board-photo';
import { BenchModel } from './bench-model';
import { UsedList } from './used-list';
import { type Photographed, PhotoSheet, type TakenReading } from '../ui/photo-sheet';

type Measured = Omit<RunBodies['outcome'], 'partId'>;
const NOTHING: Measured = { spacingMm: null, openingMm: null, chipped: null, worn: null, cracked: null };
const NOTHING_SAID: RunBodies['details'] = {
  forWhom: '',
  fate: null,
  price: null,
  leftOn: null,
  hours: null,
  cost: null,
};
/** Read to a hundredth of a millimetre; what was not read stays as it was told. */
const rounded = (read: number | null, before: number | null): number | null =>
  read === null ? before : Math.round(100 * read) / 100;
/** A moment off by less than this was in time [ms]. */
const IN_TIME = 60_000;

/** What was planned beside what was done, what came out, and how it is liked. */
@Component({
  selector: 'zf-run-record',
  imports: [MomentField, NumberField, PhotoRow, UsedList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './run-record.html',
  styleUrl: './run-record.scss',
})
export class RunRecord {
  private readonly model = inject(BenchModel);
  private readonly clock = inject(Clock);
  private readonly units = inject(Units).system;
  private readonly dialog = inject(MatDialog);
  protected readonly limits = LIMITS;
  protected readonly times = VERDICT_TIMES.map((when) => ({ when, name: VERDICT_TIME_WORDS[when] }));
  protected readonly verdicts = VERDICTS.map((verdict) => ({ verdict, name: VERDICT_WORDS[verdict] }));
  protected readonly cracked = [
    { is: true, name: 'It cracked' },
    { is: false, name: 'No cracks' },
  ] as const;
  protected readonly when = signal<VerdictTime>('at-once');
  protected readonly told = computed(() => this.model.run()?.verdicts[this.when()] ?? null);

  protected readonly parts = computed(() => {
    const [run, bench] = [this.model.run(), this.model.bench()];
    if (run === null || bench === null) return [];
    const steps = run.plan.finishes.flatMap(({ steps: own }) => own);
    const all = recordOf(run, bench);
    return run.plan.piece.parts.map((part) => ({
      part,
      measured: run.outcomes[part.id] ?? NOTHING,
      lines: all
        .filter(({ partId }) => partId === part.id)
        .map((line) => {
          const step = steps.find(({ id }) => id === line.stepId);
          const task = bench.parts
            .find(({ partId }) => partId === part.id)!
            .tasks.find(({ key, stepId }) => key === line.key && stepId === line.stepId);
          const { late, film, passes, skipped } = line;
          return {
            key: `${line.key} ${line.stepId}`,
            title:
              task === undefined
                ? step === undefined
                  ? ''
                  : stepTitle(step, run.plan.media)
                : this.model.title(task),
            planned: line.plannedAt === null ? '' : this.clock.dayTime(line.plannedAt),
            done:
              skipped === null
                ? line.begunAt === null
                  ? run.finishedAt === null
                    ? 'not yet'
                    : 'not told'
                  : this.clock.dayTime(line.begunAt)
                : 'left out',
            off:
              skipped ??
              (late === null || Math.abs(late) < IN_TIME
                ? ''
                : `${duration(Math.abs(late) / 1000)} ${late > 0 ? 'later' : 'sooner'}`),
            amount: [
              ...(film === null
                ? []
                : [
                    film.told === null
                      ? `${um(film.meant * 1e-6, this.units())} by eye`
                      : `${um(film.told * 1e-6, this.units())}, meant ${um(film.meant * 1e-6, this.units())}`,
                  ]),
              ...(passes?.told == null ? [] : [`${passes.told} strokes, meant ${passes.meant}`]),
            ].join('; '),
          };
        }),
    }));
  });

  /** The colours that may be seen on each part, from the lowest, by part. */
  protected readonly colours = computed(() => {
    const run = this.model.run();
    if (run === null) return {};
    const steps = run.plan.finishes.flatMap(({ steps: all }) => all);
    return Object.fromEntries(
      run.plan.piece.parts.map(({ id: partId }) => {
        const paints = coloursOf(forecast(basisOf(this.model.partPlanOf(partId))));
        const colours = paints.map(({ id }) => {
          const step = steps.find((candidate) => candidate.id === id);
          return {
            id,
            name:
              step === undefined
                ? id === 'wood'
                  ? 'Bare wood'
                  : 'Bare surface'
                : stepTitle(step, run.plan.media),
          };
        });
        return [partId, colours] as const;
      }),
    );
  });

  /** Says on how much of a part a colour is seen; without a value, that nobody said. */
  protected share(partId: string, before: Measured, colour: string, value: number | null): void {
    const { [colour]: _before, ...others } = before.shares ?? {};
    this.measure(partId, before, { shares: value === null ? others : { ...others, [colour]: value } });
  }
  /** What the shares of a part come to together, where that is more than all of it. */
  protected tooMuch({ shares = {} }: Measured): string {
    const sum = Object.values(shares).reduce((all, share) => all + share, 0);
    return sum > 1.005 ? `Together ${perCent(sum)}. More than 100 % can't be seen: check the shares.` : '';
  }

  protected measure(partId: string, before: Measured, changes: Partial<Measured>): void {
    this.model.tell({ kind: 'outcome', partId, ...before, ...changes });
  }

  /** What a photograph tells of a part goes where a ruler's figures go. */
  protected photograph({ id, name, widthMm, heightMm }: Part, before: Measured): void {
    this.dialog
      .open<PhotoSheet, Photographed, TakenReading>(PhotoSheet, {
        data: { name, widthMm, heightMm },
        width: '1000px',
        maxWidth: '96vw',
        maxHeight: '94vh',
      })
      .afterClosed()
      .subscribe((taken) => {
        if (taken !== undefined) this.take(id, before, taken);
      });
  }

  /** A whole board is read from one photograph. */
  protected readonly isBoard = computed(() => {
    const run = this.model.run();
    return run !== null && isBoard(run.plan);
  });
  protected photographBoard(): void {
    const run = this.model.run();
    if (run === null) return;
    this.dialog
      .open<BoardPhoto, Run, Readonly<Record<string, TakenReading>>>(BoardPhoto, {
        data: run,
        width: '1180px',
        maxWidth: '96vw',
        maxHeight: '94vh',
      })
      .afterClosed()
      .subscribe((taken) => {
        for (const [partId, read] of Object.entries(taken ?? {}))
          this.take(partId, this.model.run()!.outcomes[partId] ?? NOTHING, read);
      });
  }

  private take(partId: string, before: Measured, read: TakenReading): void {
    this.measure(partId, before, {
      spacingMm: rounded(read.spacingMm, before.spacingMm),
      openingMm: rounded(read.openingMm, before.openingMm),
      cracked: true,
    });
  }

  protected readonly photos = computed(() => {
    const run = this.model.run();
    return (run?.photos ?? []).map(({ eventId, hash, partId, when, text, at }) => ({
      id: eventId,
      hash,
      text: [
        PHOTO_TIME_WORDS[when],
        run!.plan.piece.parts.find(({ id }) => id === partId)?.name,
        text,
        this.clock.dayTime(at),
      ]
        .filter(Boolean)
        .join(', '),
    }));
  });
  protected keepPhoto(taken: { readonly when: PhotoTime; readonly hash: string }): void {
    this.model.tell({ kind: 'photo', partId: null, stepId: null, text: '', ...taken });
  }
  protected takeBack(eventId: string): void {
    this.model.tell({ kind: 'taken-back', eventId });
  }

  /** Something of it was done at the bench. */
  protected readonly worked = computed(() =>
    Object.values(this.model.run()?.steps ?? {}).some(({ begunAt }) => begunAt !== null),
  );
  protected readonly money = inject(Money);
  protected readonly fates = FATES.map((fate) => ({ fate, name: FATE_WORDS[fate] }));
  protected readonly about = computed(() => this.model.run()?.details ?? NOTHING_SAID);
  protected readonly leftOn = computed(() => {
    const { leftOn } = this.about();
    return leftOn === null ? null : new Date(`${leftOn}T12:00:00`);
  });
  protected readonly day = (at: Date): string => this.clock.isoDate(at);
  protected tellAbout(changes: Partial<RunBodies['details']>): void {
    this.model.tell({ kind: 'details', ...this.about(), ...changes });
  }
  protected readonly plain = plainText;

  protected judge(verdict: Verdict): void {
    this.model.tell({ kind: 'verdict', when: this.when(), verdict, text: this.told()?.text ?? '' });
  }

  protected nextTime(text: string): void {
    const verdict = this.told()?.verdict ?? null;
    this.model.tell({
      kind: 'verdict',
      when: this.when(),
      verdict,
      text: plainText(text, LIMITS.noteLength.max),
    });
  }
}
