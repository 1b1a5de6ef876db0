import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  model,
  signal,
} from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import { duration } from '@zaffet/words';
import { type Sitting } from '@zaffet/workshop';
import { Clock } from '../data/clock';
import { sizeOf } from '../ui/size-of';
import {
  airPath,
  type Block,
  blocksOf,
  EDGE,
  GAP,
  heightOf,
  LANE,
  RAIL,
  ribbonsOf,
  scaleOf,
  spanOf,
} from './board-layout';
import { DaysModel, isMovable } from './days-model';

const COLUMN = 236;
const HEAD = 44;
const NIGHT = 24;
/** A pointer that moves less has pressed, not dragged [px]. */
const PRESSED = 4;
/** Keys move by so much [s]. */
const KEY_STEP = 300;

/** The days side by side, time running down: hands in the middle, what dries at their left, what they do at their right. */
@Component({
  selector: 'zf-days-board',
  imports: [MatIconModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './days-board.html',
  styleUrl: './days-board.scss',
  // What is dragged moves in the page while it is held: the page itself follows the pointer.
  host: {
    '(document:pointermove)': 'pull($event)',
    '(document:pointerup)': 'release()',
    '(document:pointercancel)': 'putBack()',
    '(document:keydown.escape)': 'putBack()',
  },
})
export class DaysBoard {
  protected readonly model = inject(DaysModel);
  private readonly clock = inject(Clock);
  private readonly size = sizeOf(inject<ElementRef<HTMLElement>>(ElementRef), { width: 800, height: 560 });
  readonly deadline = input<number | null>(null);
  /** The day the card tells of, by its midnight. */
  readonly day = model<number | null>(null);

  protected readonly head = HEAD;
  protected readonly night = NIGHT;
  protected readonly rail = RAIL;
  protected readonly lane = LANE;
  protected readonly edge = EDGE;
  protected readonly height = computed(() =>
    heightOf(this.model.days(), this.size().height - HEAD - NIGHT - 18),
  );
  /** While something is dragged the hours stay where they are. */
  private readonly heldSpan = signal<ReturnType<typeof spanOf> | null>(null);
  private readonly span = computed(() => this.heldSpan() ?? spanOf(this.model.days(), this.model.at));
  protected readonly hours = computed(() => {
    const { from, to } = this.span();
    const step = (to - from) / 3_600_000 > 14 ? 2 : 1;
    const hours: { y: number; text: string }[] = [];
    for (let at = from; at <= to; at += step * 3_600_000)
      hours.push({
        y: ((at - from) / (to - from)) * this.height(),
        text: this.clock.timeOfDay(at),
      });
    return hours;
  });
  protected readonly railX = computed(() => this.model.lanes().length * LANE + GAP);
  private readonly people = computed(() => this.model.shown()?.of.work?.people ?? 1);
  protected readonly labelX = computed(() => this.railX() + this.people() * (RAIL + 2) + 8);
  /** As wide as there is room, so that what is done can be read. */
  protected readonly column = computed(() => {
    const share = (this.size().width - 50) / Math.max(1, this.model.days().length) - 1;
    return Math.max(COLUMN, this.labelX() + 150, share);
  });
  protected readonly lanesText = computed(() =>
    this.model
      .lanes()
      .map(({ name }) => name.toLowerCase())
      .join(', '),
  );

  protected readonly columns = computed(() => {
    const lanes = this.model.lanes();
    const span = this.span();
    const height = this.height();
    const deadline = this.deadline();
    const points = this.model.airPoints();
    const warmth = points.map(({ at, temperatureC }) => ({ at, value: temperatureC }));
    const damp = points.map(({ at, humidity }) => ({ at, value: humidity }));
    const edge = this.column() - 3;
    return this.model.days().map((day) => {
      const y = scaleOf(day, span, height);
      return {
        day,
        ribbons: ribbonsOf(day, lanes, y, span),
        warmth: airPath(warmth, day, span, y, edge),
        damp: airPath(damp, day, span, y, edge),
        blocks: blocksOf(day, lanes.length, y, this.model.at, height),
        closed: closedOf(day.stretches, day.at + span.from, day.at + span.to).map(({ from, to }) => ({
          y: y(from),
          height: y(to) - y(from),
        })),
        deadline:
          deadline !== null && deadline >= day.at && deadline < day.at + 86_400_000 ? y(deadline) : null,
        deliveries: this.deliveries()
          .filter(({ at }) => at >= day.at && at < day.at + 86_400_000)
          .map((one) => ({ ...one, y: y(one.at) })),
      };
    });
  });
  private readonly deliveries = computed(() =>
    (this.model.shown()?.of.timing.deliveries ?? []).map(({ medium, at }) => ({
      medium,
      at: Date.parse(at),
    })),
  );

  protected text({ sitting }: Block): string {
    const parts = sitting.kind === 'mix' ? '' : `: ${this.model.partsOf(sitting)}`;
    return `${this.model.titleOf(sitting)}${parts}`;
  }
  protected time(sitting: Sitting): string {
    return this.clock.time(this.model.at(sitting.from));
  }
  protected spoken(block: Block): string {
    const { sitting } = block;
    const window =
      sitting.closes === null ? '' : `, not later than ${this.clock.time(this.model.at(sitting.closes))}`;
    return `${this.time(sitting)} ${this.text(block)}, ${duration(sitting.until - sitting.from)}${window}`;
  }
  protected slack({ sitting, window }: Block): string {
    return window === null || !window.tight ? '' : `${duration(Math.max(0, sitting.slack!))} left`;
  }
  protected colourOf({ step }: Sitting): string {
    return step !== null && 'colour' in step ? step.colour : 'var(--ink-2)';
  }
  protected readonly movable = isMovable;

  /** What a hand holds: where it took hold, and to where it is put [s from the plan's start]. */
  protected readonly held = signal<{ sitting: Sitting; at: number; x: number; y: number } | null>(null);
  private taken: { sitting: Sitting; x: number; y: number; from: number } | null = null;

  protected take(sitting: Sitting, event: PointerEvent): void {
    if (!isMovable(sitting) || event.button !== 0) return;
    this.heldSpan.set(this.span());
    this.taken = { sitting, x: event.clientX, y: event.clientY, from: sitting.work[0]!.from };
  }

  protected pull({ clientX: x, clientY: y }: PointerEvent): void {
    const { taken } = this;
    if (taken === null) return;
    if (this.held() === null && Math.hypot(x - taken.x, y - taken.y) < PRESSED) return;
    const { from, to } = this.span();
    const days = Math.round((x - taken.x) / (this.column() + 1));
    const seconds = ((y - taken.y) / this.height()) * ((to - from) / 1000);
    const at = Math.max(0, Math.round((taken.from + seconds + days * 86_400) / KEY_STEP) * KEY_STEP);
    const before = this.held();
    this.held.set({ sitting: taken.sitting, at, x, y });
    if (before?.at !== at) this.model.drag(taken.sitting, at);
  }

  protected release(): void {
    const held = this.held();
    this.taken = null;
    this.held.set(null);
    this.heldSpan.set(null);
    if (held !== null) this.model.drop(held.sitting, held.at);
  }

  protected putBack(): void {
    if (this.taken === null && this.held() === null) return;
    this.taken = null;
    this.held.set(null);
    this.heldSpan.set(null);
    this.model.putBack();
  }

  /** Down and up: five minutes later and earlier. */
  protected key(sitting: Sitting, event: Event, by: 1 | -1): void {
    if (!isMovable(sitting)) return;
    event.preventDefault();
    this.model.drop(sitting, Math.max(0, sitting.work[0]!.from + by * KEY_STEP));
  }

  protected heldText(at: number): string {
    return this.clock.dayTime(this.model.at(at));
  }
}

/** What lies between the stretches of a day. */
function closedOf(
  stretches: readonly { opens: number; closes: number }[],
  from: number,
  to: number,
): { from: number; to: number }[] {
  if (stretches.length === 0) return [];
  const gaps: { from: number; to: number }[] = [];
  let at = from;
  for (const { opens, closes } of stretches) {
    if (opens > at) gaps.push({ from: at, to: opens });
    at = Math.max(at, closes);
  }
  if (at < to) gaps.push({ from: at, to });
  return gaps;
}
