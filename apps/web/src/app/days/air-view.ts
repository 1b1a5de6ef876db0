import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import { type AirFile, LIMITS } from '@zaffet/contract';
import {
  AIR_ORIGIN_WORDS,
  airSentence,
  ANSWER_WORDS,
  duration,
  OTHER_AIR_WORDS,
  stepTitle,
} from '@zaffet/words';
import { OTHER_AIRS, type OtherAir } from '@zaffet/workshop';
import { Clock } from '../data/clock';
import { MomentField } from '../ui/moment-field';
import { NumberField } from '../ui/number-field';
import { AirChart } from './air-chart';
import { AirModel } from './air-model';
import { DaysModel } from './days-model';

/** Less than this is no difference [s, share]. */
const ALIKE = 60;
/** A window that is shorter by so much is told with weight. */
const NARROWER = 0.8;

/** The air over the days: where it comes from, its course, and what it does to coats and windows. */
@Component({
  selector: 'zf-air-view',
  imports: [AirChart, MatButtonModule, MatCheckboxModule, MatIconModule, MomentField, NumberField],
  providers: [AirModel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './air-view.html',
  styleUrl: './air-view.scss',
})
export class AirView {
  protected readonly model = inject(AirModel);
  private readonly days = inject(DaysModel);
  private readonly clock = inject(Clock);
  protected readonly limits = LIMITS;
  protected readonly others = OTHER_AIRS;
  protected readonly otherWords = OTHER_AIR_WORDS;
  protected readonly dayTime = (at: number): string => this.clock.dayTime(at);
  protected readonly date = (at: string): Date => new Date(at);

  protected readonly origin = computed(() => AIR_ORIGIN_WORDS[this.model.air().origin]);
  protected readonly span = computed(() => {
    const { later } = this.model.air();
    const last = later.at(-1);
    return last === undefined
      ? ', the same all the time.'
      : `, ${later.length} changes until ${this.clock.dayTime(Date.parse(last.at))}.`;
  });

  private readonly effects = computed(() =>
    this.model.effects.hasValue() ? this.model.effects.value() : null,
  );
  private readonly steps = computed(() => {
    const plan = this.days.shown()?.of;
    return new Map(plan?.finishes.flatMap(({ steps }) => steps).map((step) => [step.id, step]));
  });
  private nameOf(stepId: string): string {
    const step = this.steps().get(stepId);
    return step === undefined ? '' : stepTitle(step, this.days.shown()!.of.media);
  }

  protected readonly sentence = computed(() => {
    const effects = this.effects();
    return effects === null ? '' : airSentence(effects, (stepId) => this.nameOf(stepId));
  });

  protected readonly rows = computed(() => {
    let before = '';
    return (this.effects()?.effects ?? []).map(({ partId, stepId, answer, lasts, other }) => {
      const step = this.steps().get(stepId);
      const fresh = before !== stepId;
      before = stepId;
      return {
        key: `${partId} ${stepId} ${answer}`,
        name: fresh ? this.nameOf(stepId) : '',
        colour: step !== undefined && 'colour' in step ? step.colour : 'transparent',
        answer: ANSWER_WORDS[answer],
        lasts: duration(lasts),
        others: OTHER_AIRS.map((air) => {
          const there = other[air];
          return {
            text:
              there === null ? 'never' : Math.abs(there - lasts) < ALIKE / 4 ? 'as here' : duration(there),
            narrower: answer !== 'touch' && there !== null && there < lasts * NARROWER,
          };
        }),
      };
    });
  });

  protected readonly ready = computed(() => {
    const [effects, shown] = [this.effects(), this.days.shown()];
    if (effects === null || shown?.table.ready == null) return null;
    const told = (other: OtherAir): string => {
      const later = effects.later[other];
      if (later === null) return 'never';
      return Math.abs(later) < ALIKE
        ? 'as here'
        : `${duration(Math.abs(later))} ${later > 0 ? 'later' : 'sooner'}`;
    };
    return { here: this.clock.dayTime(this.days.at(shown.table.ready)), others: OTHER_AIRS.map(told) };
  });

  protected change(index: number, changes: Partial<AirFile['later'][number]>): void {
    this.model.setLines(
      this.model.air().later.map((line, i) => (i === index ? { ...line, ...changes } : line)),
    );
  }

  protected remove(index: number): void {
    this.model.setLines(this.model.air().later.filter((_, i) => i !== index));
  }
}
