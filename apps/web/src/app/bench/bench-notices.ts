import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { duration, overtimeText } from '@zaffet/words';
import { Clock } from '../data/clock';
import { missingHere } from '../data/secure';
import { BenchModel } from '../runs/bench-model';
import { RunBox } from '../runs/run-box';
import { BenchAlarms } from './bench-alarms';

/** A clock that is wrong by this much is worth a notice [ms]. */
const CLOCK_OFF = 60_000;

interface Action {
  readonly label: string;
  readonly act: () => void;
}

interface Notice {
  readonly id: string;
  readonly text: string;
  readonly kind: 'grave' | 'rung' | 'plain';
  readonly actions: readonly Action[];
}

/** What has to be said above the card: one line, the most urgent and newest first; the rest behind a count. */
@Component({
  selector: 'zf-bench-notices',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (notice of shown(); track notice.id; let first = $first) {
      <p
        class="notice {{ notice.kind }}"
        [class.single]="!all()"
        [attr.role]="notice.kind === 'plain' ? null : 'alert'"
      >
        <span class="text">{{ notice.text }}</span>
        @for (action of notice.actions; track action.label) {
          <button class="link" (click)="action.act()">{{ action.label }}</button>
        }
        @if (first && notices().length > 1) {
          <button class="link" [attr.aria-expanded]="all()" (click)="all.set(!all())">
            {{ all() ? 'Show one' : notices().length - 1 + ' more' }}
          </button>
        }
      </p>
    }
  `,
  host: { class: 'notices', 'aria-live': 'polite' },
  styleUrl: './bench-notices.scss',
})
export class BenchNotices {
  private readonly model = inject(BenchModel);
  private readonly alarms = inject(BenchAlarms);
  private readonly box = inject(RunBox);
  private readonly clock = inject(Clock);
  private readonly missing = signal(missingHere());
  protected readonly all = signal(false);
  /** A part that is to be taken in hand. */
  readonly wanted = output<string>();

  protected readonly notices = computed((): Notice[] => [
    ...this.grave(),
    ...this.moved(),
    ...this.rung(),
    ...this.plain(),
  ]);
  protected readonly shown = computed(() => (this.all() ? this.notices() : this.notices().slice(0, 1)));

  private grave(): Notice[] {
    const { kept, refused } = this.box.state();
    const texts = [
      kept ? null : 'Not stored on this device. Keep this page open until the workshop has it.',
      refused === null ? null : `The workshop refused something you entered: ${refused}`,
      this.model.failed()
        ? 'Zaffet could not work out what comes next. Reload the page; nothing is lost.'
        : null,
    ];
    return noticesOf('grave', texts);
  }

  private moved(): Notice[] {
    const moved = this.model.moved();
    if (moved === null) return [];
    const verb = moved.what === 'opens' ? 'opens' : 'closes';
    const [before, after] = [moved.before, moved.after].map((at) => this.clock.near(at, this.model.now()));
    return [
      {
        id: moved.eventId,
        text: `The window ${verb} at ${after}, not ${before}.`,
        kind: 'plain',
        actions: [
          {
            label: 'Take it back',
            act: () => {
              this.model.tell({ kind: 'taken-back', eventId: moved.eventId });
              this.model.moved.set(null);
            },
          },
          { label: 'Right', act: () => this.model.moved.set(null) },
        ],
      },
    ];
  }

  private rung(): Notice[] {
    return this.alarms.shown().map(({ alarm, text }) => ({
      id: alarm.id,
      text,
      kind: 'rung',
      actions: [
        {
          label: 'Show it',
          act: () => {
            this.wanted.emit(alarm.partId);
            this.alarms.drop(alarm.id);
          },
        },
      ],
    }));
  }

  private plain(): Notice[] {
    const { away, unsent, offsetMs } = this.box.state();
    const overtime = this.model.bench()?.overtime ?? null;
    const clockOff = `This device's clock is ${duration(Math.abs(offsetMs) / 1000)} ${offsetMs < 0 ? 'fast' : 'slow'}; times here go by the workshop's.`;
    const missing = this.missing();
    return [
      ...noticesOf('plain', [
        overtime === null ? null : overtimeText(this.clock.near(overtime, this.model.now())),
        away ? `The workshop cannot be reached. Go on: ${waiting(unsent)}` : null,
        Math.abs(offsetMs) < CLOCK_OFF ? null : clockOff,
      ]),
      ...(missing === null
        ? []
        : noticesOf('plain', [missing], [{ label: 'Right', act: () => this.missing.set(null) }])),
    ];
  }
}

const noticesOf = (
  kind: Notice['kind'],
  texts: readonly (string | null)[],
  actions: readonly Action[] = [],
): Notice[] => texts.flatMap((text) => (text === null ? [] : [{ id: text, text, kind, actions }]));

const waiting = (unsent: number): string =>
  unsent === 0
    ? 'what you enter is stored here and sent when it is back.'
    : `${unsent} ${unsent === 1 ? 'thing waits' : 'things wait'} here and will be sent when it is back.`;
