import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { EFFECT_KEYS, type EffectKey, effectPlan, EFFECTS, type PartPlan } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { newId } from '../data/fresh';
import { planFeature } from '../plan/plan.feature';
import { PartFace } from '../ui/part-face';

/** As much of the part as a hand covers shows an effect [mm]. */
const SWATCH = { widthMm: 110, heightMm: 69 };

/** An effect chosen, with a part that shows it. */
export interface EffectChosen {
  readonly key: EffectKey;
  readonly plan: PartPlan;
}

/** What a finish can look like, each drawn by the engine on this part, in its colours and its air. */
@Component({
  selector: 'zf-effect-cards',
  imports: [PartFace],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (effect of effects(); track effect.key) {
        <li>
          <button type="button" [attr.data-effect]="effect.key" (click)="chosen.emit(effect)">
            <zf-part-face
              [plan]="effect.swatch"
              [columns]="170"
              [rows]="106"
              [label]="'How ' + effect.name + ' looks'"
            />
            <strong>{{ effect.name }}</strong>
            <span>{{ effect.words }}</span>
          </button>
        </li>
      }
    </ul>
  `,
  styles: `
    ul {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 10px;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    button {
      display: grid;
      grid-template-rows: 106px auto 1fr;
      width: 100%;
      height: 100%;
      padding: 0 0 7px;
      border: 1px solid var(--line);
      border-radius: 5px;
      background: var(--paper);
      color: var(--ink);
      font: inherit;
      font-size: 12.5px;
      line-height: 1.2;
      text-align: left;
      overflow: hidden;
      cursor: pointer;
    }
    @media (max-width: 1150px) {
      ul {
        grid-template-columns: 1fr;
      }
    }
    button:hover {
      border-color: var(--kelp);
    }
    zf-part-face {
      background: var(--neutral-grey);
      overflow: hidden;
    }
    strong,
    span {
      padding: 4px 9px 0;
    }
    strong {
      font-size: 13.5px;
    }
    span {
      padding-top: 1px;
      color: var(--ink-2);
    }
  `,
})
export class EffectCards {
  private readonly plan = inject(Store).selectSignal(planFeature.selectPlan);
  readonly chosen = output<EffectChosen>();

  /** What the pictures hang on: not on wishes, nor on what is laid. */
  private readonly shown = computed(
    () => {
      const { part, air, media, steps, startsAt, ...rest } = this.plan()!;
      return { ...rest, part, air, media, steps, startsAt };
    },
    {
      equal: (a, b) =>
        a.air === b.air &&
        a.media === b.media &&
        a.part.substrate === b.part.substrate &&
        a.seed === b.seed &&
        coloursOf(a.steps) === coloursOf(b.steps),
    },
  );
  protected readonly effects = computed(() =>
    EFFECT_KEYS.map((key) => {
      const plan = effectPlan(this.shown(), key, newId);
      const { name, words } = EFFECTS[key];
      return { key, name, words, plan, swatch: { ...plan, part: { ...plan.part, ...SWATCH, maps: {} } } };
    }),
  );
}

const coloursOf = (steps: PartPlan['steps']): string =>
  steps.map((step) => ('colour' in step ? step.colour : '')).join();
