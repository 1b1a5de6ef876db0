import { ChangeDetectionStrategy, Component, computed, inject, resource, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { LIMITS, type Part, type Plan, plainText, USUAL_SHOP } from '@zaffet/contract';
import { duration, METHOD_WORDS, weekText } from '@zaffet/words';
import {
  beginAt,
  newPart,
  newPlan,
  partPlan,
  PIECE_KEYS,
  type PieceKey,
  pieceParts,
  PIECES,
  type PieceSize,
  type School,
  SCHOOL_KEYS,
  SCHOOLS,
  usualWork,
} from '@zaffet/workshop';
import { catchError, of } from 'rxjs';
import { Clock } from '../data/clock';
import { ShopApi } from '../data/shop.api';
import { newId, newSeed, now, workBegins } from '../data/fresh';
import { MomentField } from '../ui/moment-field';
import { NumberField } from '../ui/number-field';
import { ToggleField } from '../ui/toggle-field';
import { PartFace } from '../ui/part-face';
import { FacePool } from '../workers/face.pool';
import { Timetables } from '../workers/timetables';
import { PieceSketch } from './piece-sketch';

/** A hand-sized piece shows a way of working well enough [mm]. */
const SWATCH = { widthMm: 180, heightMm: 100 };
const PANEL = { widthMm: 600, heightMm: 400, depthMm: 20 };
const SIZES: readonly (keyof PieceSize)[] = ['widthMm', 'heightMm', 'depthMm'];

/** [ms] */
const WEEK = 7 * 24 * 3_600_000;

type Kind = PieceKey | 'panel';
/** A panel by itself is a piece of one part. */
function partsOf(kind: Kind, size: PieceSize, finish: string): readonly Part[] {
  const { widthMm, heightMm } = size;
  return kind === 'panel'
    ? [newPart(newId(), 'Panel', { widthMm, heightMm }, finish)]
    : pieceParts(kind, size, finish, newId);
}

const KINDS: readonly { readonly key: Kind; readonly name: string }[] = [
  { key: 'panel', name: 'One panel' },
  ...PIECE_KEYS.map((key) => ({ key, name: PIECES[key].name })),
];

/** The clocks of this device, until the workshop has hours with a zone. */
const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;
/** When a working day ends. */
const EVENING = 17;

function inAWeek(): Date {
  const day = new Date(workBegins(now()).getTime() + WEEK);
  day.setHours(EVENING, 0, 0, 0);
  return day;
}

/** Beginning a plan in pictures: what piece, what look and way of working, when, and what it is called. */
@Component({
  selector: 'zf-new-plan',
  imports: [MatButtonModule, MatDialogModule, MomentField, NumberField, PartFace, PieceSketch, ToggleField],
  providers: [FacePool],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './new-plan.html',
  styleUrl: './new-plan.scss',
})
export class NewPlan {
  private readonly dialog = inject<MatDialogRef<NewPlan, Plan>>(MatDialogRef);
  protected readonly limits = LIMITS;
  private readonly clock = inject(Clock);
  private readonly timetables = inject(Timetables);
  private readonly opened = now();
  private readonly seed = newSeed();
  /** Whether a beginning is told, or when it has to be done. */
  protected readonly meant = signal<'begin' | 'done'>('begin');
  protected readonly meanings = [
    { value: 'begin', name: 'You begin' },
    { value: 'done', name: 'Done by' },
  ];
  protected readonly begins = signal(workBegins(now()));
  protected readonly due = signal(inAWeek());
  /** Whether work goes by the workshop's hours, or by day and night. */
  protected readonly hours = signal<'workshop' | 'any'>('workshop');
  protected readonly hoursOffered = [
    { value: 'workshop', name: 'Workshop' },
    { value: 'any', name: 'Any time' },
  ];
  protected readonly piece = signal<Kind>('panel');
  protected readonly size = signal<PieceSize>(PANEL);
  protected readonly school = signal<School>('dried-medium');
  protected readonly typed = signal('');
  private readonly pieceName = computed(() => KINDS.find(({ key }) => key === this.piece())!.name);
  /** Called after what it is until somebody says otherwise. */
  protected readonly called = computed(() => this.typed() || this.pieceName());

  protected readonly kinds = KINDS.map(({ key, name }) => ({
    key,
    name,
    parts: partsOf(key, key === 'panel' ? PANEL : PIECES[key].usual, ''),
  }));
  protected readonly ways = SCHOOL_KEYS.map((key) => {
    const plan = newPlan(key, 'Swatch', 7, workBegins(now()).toISOString(), newId);
    const part = partPlan(plan);
    return {
      key,
      name: SCHOOLS[key],
      words: METHOD_WORDS[key],
      swatch: { ...part, part: { ...part.part, ...SWATCH } },
    };
  });
  protected readonly fields = computed(() => {
    const piece = this.piece();
    const labels = piece === 'panel' ? ['Width', 'Height', ''] : PIECES[piece].sizes;
    return SIZES.map((key, i) => ({ key, label: labels[i] ?? '' })).filter(({ label }) => label !== '');
  });

  protected choosePiece(kind: Kind): void {
    this.piece.set(kind);
    this.size.set(kind === 'panel' ? PANEL : PIECES[kind].usual);
  }

  protected setSize(key: keyof PieceSize, value: number): void {
    this.size.update((size) => ({ ...size, [key]: value }));
  }

  /** How the shop works, as it was kept; nothing until it is read. */
  private readonly shop = toSignal(
    inject(ShopApi)
      .read()
      .pipe(catchError(() => of(USUAL_SHOP))),
  );
  private readonly work = computed(() =>
    this.hours() === 'any' ? null : (this.shop()?.work ?? usualWork(HERE)),
  );
  protected readonly week = computed(() => weekText(this.work(), this.clock.face()));
  /** The plan begun when it is told to. */
  private readonly meantPlan = computed((): Plan => {
    const name = plainText(this.called()) || this.pieceName();
    const [kind, size] = [this.piece(), this.size()];
    const piece = { name, parts: (finish: string): readonly Part[] => partsOf(kind, size, finish) };
    const { air } = this.shop() ?? USUAL_SHOP;
    const begins = this.begins().toISOString();
    const plan = newPlan(this.school(), name, this.seed, begins, newId, piece, this.work());
    const timing = { ...plan.timing, deadlineAt: this.meant() === 'done' ? this.due().toISOString() : null };
    return { ...plan, air: { ...plan.air, ...air }, timing };
  });
  /** When it would be begun and done, by the timetable of all its parts. */
  private readonly timed = resource({
    params: () => ({ plan: this.meantPlan(), due: this.meant() === 'done' ? this.due() : null }),
    loader: async ({ params: { plan, due } }) => {
      const begun =
        due === null ? plan : beginAt(plan, await this.timetables.startToEndBy(plan, due.toISOString()));
      return { plan: begun, ends: await this.timetables.endsAt(begun) };
    },
  });
  protected readonly tooLate = computed(() => {
    const timed = this.timed.hasValue() ? this.timed.value() : undefined;
    return (
      this.meant() === 'done' &&
      timed !== undefined &&
      Date.parse(timed.plan.startsAt) < this.opened.getTime()
    );
  });
  /** A plan that is to be done by a day waits for its timetable. */
  protected readonly waits = computed(() => this.meant() === 'done' && !this.timed.hasValue());
  /** When it is done if begun so, or when it must be begun. */
  protected readonly told = computed(() => {
    if (!this.timed.hasValue()) return '…';
    const { plan, ends } = this.timed.value();
    if (this.meant() === 'begin') return `done ${this.clock.dateTime(ends)}`;
    const takes = duration((this.due().getTime() - Date.parse(plan.startsAt)) / 1000);
    return this.tooLate()
      ? `it takes ${takes}: choose a later day`
      : `begin ${this.clock.dateTime(Date.parse(plan.startsAt))}`;
  });

  protected begin(): void {
    const timed = this.timed.hasValue() ? this.timed.value().plan : null;
    this.dialog.close(this.meant() === 'done' && timed !== null ? timed : this.meantPlan());
  }
}
