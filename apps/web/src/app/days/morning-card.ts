import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { type Facing } from '@zaffet/core/piece';
import { duration, sittingDetail, urgencyText } from '@zaffet/words';
import { type Sitting } from '@zaffet/workshop';
import { Clock } from '../data/clock';
import { Lying } from '../ui/lying';
import { type Day, DaysModel } from './days-model';

/** Free time shorter than this is not worth telling [s]. */
const WORTH_TELLING = 900;
const NUMBERS = [
  'Nothing',
  'One thing',
  'Two things',
  'Three things',
  'Four things',
  'Five things',
  'Six things',
];

interface Line {
  readonly id: string;
  readonly sitting: Sitting | null;
  readonly time: string;
  readonly title: string;
  readonly detail: string;
  readonly urgency: string;
  readonly word: string;
  readonly takes: string;
  readonly colour: string | null;
  /** The face it is turned to, where that is one. */
  readonly turned: Facing | null;
}

/** The face a body is turned to for a sitting; null where it is not turned, or more than once. */
function turnedTo({ turning, work }: Sitting): Facing | null {
  const up = work[0]!.up;
  return turning > 0 && up !== 'loose' && work.every((entry) => entry.up === up) ? up : null;
}

/** One day as a list by the clock: what first, what must not be late, when one can go. */
@Component({
  selector: 'zf-morning-card',
  imports: [Lying, MatButtonModule, MatIconModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>{{ day().name }}</h2>
    <p class="sum">{{ sentence() }}</p>
    <ol>
      @for (line of lines(); track line.id) {
        @if (line.sitting === null) {
          <li class="free">{{ line.title }}</li>
        } @else {
          <li [class]="line.word" [class.small]="line.sitting.kind === 'mix'">
            <span class="time">{{ line.time }}</span>
            <span class="what">
              <b>
                @if (line.colour; as paint) {
                  <i [style.background]="paint"></i>
                }
                {{ line.title }}
                @if (model.isPinned(line.sitting)) {
                  <button
                    mat-icon-button
                    class="pin"
                    [attr.aria-label]="'Let go: ' + line.title + ' may move again'"
                    (click)="model.unpin(line.sitting)"
                  >
                    <mat-icon svgIcon="pin" />
                  </button>
                }
              </b>
              @if (line.detail) {
                <span class="detail">
                  @if (line.turned; as up) {
                    <zf-lying [up]="up" />
                  }
                  {{ line.detail }}
                </span>
              }
              @if (line.urgency) {
                <span class="urgency">{{ line.urgency }}</span>
              }
            </span>
            <span class="takes">{{ line.takes }}</span>
          </li>
        }
      }
    </ol>
    @if (day().overNight) {
      <p class="night">Over night {{ day().overNight }}.</p>
    }
    @if (next(); as text) {
      <p class="quiet">{{ text }}</p>
    }
  `,
  styleUrl: './morning-card.scss',
})
export class MorningCard {
  protected readonly model = inject(DaysModel);
  private readonly clock = inject(Clock);
  readonly day = input.required<Day>();
  /** The day after, where anything is done on it. */
  readonly following = input<Day | null>(null);

  protected readonly sentence = computed(() => {
    const { sittings } = this.day();
    const work = sittings.reduce((sum, { from, until }) => sum + until - from, 0);
    const things = sittings.filter(({ kind }) => kind !== 'mix').length;
    const musts = sittings.filter(({ urgency }) => urgency === 'must').length;
    const first = this.clock.time(this.model.at(sittings[0]!.from));
    const last = this.clock.time(this.model.at(Math.max(...sittings.map(({ until }) => until))));
    const late = musts === 0 ? '' : `; ${musts === 1 ? 'one' : musts} must not be late`;
    return `${NUMBERS[things] ?? `${things} things`} to do, ${duration(work)} of work between ${first} and ${last}${late}.`;
  });

  protected readonly lines = computed((): Line[] => {
    const shown = this.model.shown()!;
    const start = Date.parse(shown.of.startsAt);
    const clock = {
      time: (at: number) => this.clock.time(at),
      dayTime: (at: number) => this.clock.dayTime(at),
    };
    let free = this.day().sittings[0]!.from;
    return this.day().sittings.flatMap((sitting): Line[] => {
      const gap = sitting.from - free;
      free = Math.max(free, sitting.until);
      const line: Line = {
        id: sitting.id,
        sitting,
        time: this.clock.time(this.model.at(sitting.from)),
        title: `${this.model.titleOf(sitting)}${sitting.kind === 'mix' ? '' : `: ${this.model.partsOf(sitting)}`}`,
        detail: sittingDetail(sitting, shown.of),
        urgency:
          sitting.kind === 'mix'
            ? ''
            : [urgencyText(sitting, start, clock), this.model.softEnd(sitting)].filter(Boolean).join('; '),
        word: sitting.urgency,
        takes: duration(sitting.until - sitting.from),
        turned: turnedTo(sitting),
        colour: sitting.step !== null && 'colour' in sitting.step ? sitting.step.colour : null,
      };
      return gap < WORTH_TELLING
        ? [line]
        : [
            {
              ...line,
              id: `free ${sitting.id}`,
              sitting: null,
              title: `free ${duration(gap)}`,
            },
            line,
          ];
    });
  });

  protected readonly next = computed(() => {
    const following = this.following();
    const first = following?.sittings[0];
    if (following == null || first === undefined) return '';
    return `${following.name}, ${this.clock.time(this.model.at(first.from))}: ${this.model.titleOf(first).toLowerCase()}.`;
  });
}
