import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { type FaceMode, LAYER_COLOURS, type ModeScale, RAMP_STOPS } from '@zaffet/core/face';
import { duration, layerWord, lengthShown, thicknessShown } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { Units } from '../../data/units';
import { planFeature } from '../../plan/plan.feature';
import { ageAtOpening } from '../../workers/face-request';

/** Layers of which less is seen are left out. */
const SEEN = 0.004;

/** What the colours of a mode stand for. */
@Component({
  selector: 'zf-face-legend',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (mode() === 'top') {
      @for (layer of layers(); track layer.word) {
        <span class="entry"><i [style.background]="layer.colour"></i>{{ layer.word }}</span>
      }
    } @else if (ends(); as ends) {
      <span>{{ ends.low }}</span><i class="ramp" [style.background]="ramp"></i><span>{{ ends.high }}</span>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 2px 8px;
      padding: 3px 8px;
      border-radius: 3px;
      background: rgb(255 255 255 / 88%);
      color: #23262a;
      font-size: 12px;
    }
    .entry {
      display: flex;
      align-items: center;
      gap: 4px;
    }
    .entry i {
      width: 12px;
      height: 12px;
      border: 1px solid rgb(0 0 0 / 30%);
    }
    .ramp {
      width: 120px;
      height: 10px;
    }
  `,
})
export class FaceLegend {
  private readonly store = inject(Store);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  private readonly units = inject(Units).system;
  readonly mode = input.required<FaceMode>();
  readonly scale = input.required<ModeScale | null>();
  protected readonly ramp = `linear-gradient(90deg, ${RAMP_STOPS.join(', ')})`;

  protected readonly layers = computed(() => {
    const plan = this.plan();
    const forecast = this.forecast();
    if (plan === null || forecast === null) return [];
    return forecast.layers
      .map((layer, k) => ({
        share: layer.share,
        word: layerWord(plan.steps, layer.id, plan.media),
        colour: LAYER_COLOURS[k % LAYER_COLOURS.length]!,
      }))
      .filter(({ share }) => share > SEEN)
      .reverse();
  });

  protected readonly ends = computed(() => {
    const scale = this.scale();
    const forecast = this.forecast();
    if (scale === null || forecast === null) return null;
    const text = (value: number): string => {
      switch (this.mode()) {
        case 'thickness': {
          const { number, unit } = thicknessShown(value * 1e-6, this.units());
          return `${number} ${unit}`;
        }
        case 'width': {
          const { number, unit } = lengthShown(value * 1e-3, this.units());
          return `${number} ${unit}`;
        }
        default: {
          const age = ageAtOpening(forecast, value);
          return age === null ? '' : `${duration(age)} after brushing`;
        }
      }
    };
    if (this.mode() === 'width' && scale.high <= 0) return { low: 'no cracks', high: '' };
    return { low: text(scale.low), high: text(scale.high) };
  });
}
