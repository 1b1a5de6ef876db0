import { ChangeDetectionStrategy, Component, computed, inject, input, resource } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { API, isFilmStep, type Plan, type PlanSummary, type UnitSystem } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { type FigureKey, figureValues } from '@zaffet/core/readout';
import { FIGURE_WORDS, figureText, stepTitle } from '@zaffet/words';
import { basisOf, type Circumstances, type PartPlan, partPlan } from '@zaffet/workshop';
import { Units } from '../data/units';
import { Clock } from '../data/clock';
import { now } from '../data/fresh';
import { faultOf, PlansApi } from '../data/plans.api';
import { PartFace } from '../ui/part-face';
import { Timetables } from '../workers/timetables';

/** A plan as a little sample: its face at arm's length, what makes it crack, its figures. */
@Component({
  selector: 'zf-plan-tile',
  imports: [PartFace],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (fault(); as wrong) {
      <div class="face unreadable" role="alert">
        <p>{{ wrong.message }}</p>
        @for (field of wrong.fields.slice(0, 2); track field.path) {
          <p>{{ field.message }}</p>
        }
      </div>
      <p class="stack"><a [href]="fileUrl()" download>Take it out as a file</a></p>
    } @else {
      <div class="face" [style.background]="tone()">
        @if (part(); as plan) {
          <zf-part-face
            view="close"
            [plan]="plan"
            [columns]="480"
            [rows]="270"
            [label]="'How ' + listed().name + ' will look'"
          />
        }
      </div>
      <p class="quiet stack">{{ stack() }}</p>
    }
    <p class="quiet">{{ figures() }}<br />changed {{ changed() }}</p>
    @if (standing(); as text) {
      <p class="standing">{{ text }}</p>
    }
  `,
  styles: `
    .face {
      aspect-ratio: 16 / 9;
      background: var(--neutral-grey);
    }
    .unreadable {
      padding: 12px 0;
      overflow: auto;
      box-sizing: border-box;
      background: var(--paper);
      border-bottom: 4px solid var(--rust);
      overflow-wrap: anywhere;
    }
    a {
      color: var(--kelp);
    }
    p {
      margin: 2px 14px 0;
      font-size: 12.5px;
    }
    .standing {
      color: var(--kelp);
      font-weight: 600;
    }
    .stack {
      margin-top: 10px;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class PlanTile {
  private readonly units = inject(Units).system;
  private readonly clock = inject(Clock);
  private readonly api = inject(PlansApi);
  private readonly timetables = inject(Timetables);
  readonly listed = input.required<PlanSummary>();

  /** Fetched when the tile comes into sight, anew where a later revision is listed. */
  private readonly fetched = rxResource({
    params: () => this.listed(),
    stream: ({ params }) => this.api.readListed(params),
  });
  private readonly saved = computed(() => (this.fetched.hasValue() ? this.fetched.value() : null));
  protected readonly fault = computed(() => {
    const error = this.fetched.error();
    return error === undefined ? null : faultOf(error.cause ?? error);
  });
  protected readonly fileUrl = computed(() => API.planFile(this.listed().id));
  private readonly timed = resource({
    params: () => this.saved()?.plan,
    loader: ({ params }) => this.timetables.listed(params, now().getTime()),
  });
  /** Its first part as it is timed; null until then, and by its own rules where it cannot be timed. */
  protected readonly part = computed(() => {
    const saved = this.saved();
    if (saved === null) return null;
    if (this.timed.hasValue()) return listedPart(saved.plan, this.timed.value().circumstances);
    return this.timed.error() === undefined ? null : partPlan(saved.plan);
  });
  private readonly forecast = computed(() => {
    const part = this.part();
    return part === null ? null : forecast(basisOf(part));
  });
  /** Its mean colour, until the picture is there. */
  protected readonly tone = computed(() => this.forecast()?.whole.colour ?? null);
  protected readonly stack = computed(() => {
    const saved = this.saved();
    if (saved === null) return '…';
    const part = partPlan(saved.plan);
    return part.steps
      .map((step) =>
        isFilmStep(step) && step.colourName ? step.colourName : stepTitle(step, part.media).toLowerCase(),
      )
      .join(', ');
  });
  /** The same figures that the plan's Layers show, as far as anything of them is seen. */
  protected readonly figures = computed(() => {
    const forecast = this.forecast();
    return forecast === null ? '' : tileFigures(figureValues(forecast), this.units());
  });
  /** What the plan has now, or when it begins; nothing of what is past. A run may be elsewhere. */
  protected readonly standing = computed(() => {
    const saved = this.saved();
    const standing = this.timed.hasValue() ? this.timed.value().standing : undefined;
    if (saved === null || standing === undefined || standing.kind === 'past') return null;
    const zone = saved.plan.work?.zone ?? null;
    if (standing.kind === 'ahead') return `begins ${this.clock.dateTime(standing.begins, zone)}`;
    const { next, ends } = standing;
    return next === null
      ? `planned: done ${this.clock.dateTime(ends, zone)}`
      : `planned: next ${stepTitle(next.step, saved.plan.media)} ${this.clock.dateTime(next.at, zone)}`;
  });
  protected readonly changed = computed(() => this.clock.dateTime(new Date(this.listed().savedAt)));
}

/** What the list shows of a plan: its first part as it is timed. */
export const listedPart = (plan: Plan, circumstances: Circumstances): PartPlan =>
  partPlan(plan, null, null, circumstances);

/** Under this crackle strength hardly any crack is seen, and under this share no loss. */
const SEEN_STRENGTH = 0.12;
const SEEN_LOSS = 0.02;

/** Figures of a plan in a line, named as everywhere. */
export function tileFigures(values: Readonly<Record<FigureKey, number | null>>, units: UnitSystem): string {
  const named = (key: FigureKey): string => {
    const { number, unit } = figureText(key, values[key] ?? 0, units);
    return `${FIGURE_WORDS[key].name.toLowerCase()} ${number} ${unit}`;
  };
  const cracks = values.spacing !== null && (values.strength ?? 0) >= SEEN_STRENGTH;
  return [
    ...(cracks ? [named('spacing'), named('opening')] : ['no cracks to be seen']),
    ...(['chips', 'worn'] as const).filter((key) => (values[key] ?? 0) > SEEN_LOSS).map(named),
  ].join(', ');
}
