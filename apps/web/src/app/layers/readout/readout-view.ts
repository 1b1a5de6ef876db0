import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatTooltipModule } from '@angular/material/tooltip';
import { FIGURE_WORDS, figureText, findingWords, layerWord, LIMITS, moverText } from '@zaffet/contract';
import { type Figure, type FigureKey } from '@zaffet/core';
import { Store } from '@ngrx/store';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { Band } from '../../ui/band';
import { NumberField } from '../../ui/number-field';

/** Ranges of the bars, in the core's units: what a crackle can be. */
const BARS: Readonly<Record<FigureKey, { from: number; to: number; scale: 'log' | 'linear' }>> = {
  spacing: { from: 0.0005, to: 0.05, scale: 'log' },
  opening: { from: 0.00003, to: 0.005, scale: 'log' },
  openArea: { from: 0, to: 0.4, scale: 'linear' },
  firstCracks: { from: 10, to: 3600, scale: 'log' },
  strength: { from: 0, to: 1, scale: 'linear' },
};

/** What the plan will give, figure by figure, and what the plan says about itself. */
@Component({
  selector: 'zf-readout-view',
  imports: [Band, MatTooltipModule, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './readout-view.html',
  styleUrl: './readout-view.scss',
})
export class ReadoutView {
  private readonly store = inject(Store);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  private readonly readout = this.store.selectSignal(planFeature.selectReadout);
  protected readonly limits = LIMITS;
  protected readonly bars = BARS;
  protected readonly look = computed(() => this.plan()!.look);

  protected readonly lines = computed(() =>
    (this.readout()?.figures ?? []).map((figure) => this.line(figure)),
  );
  protected readonly findings = computed(() =>
    (this.forecast()?.findings ?? []).map((finding) => ({ ...finding, words: findingWords(finding) })),
  );

  private line(figure: Figure): {
    figure: Figure;
    name: string;
    meaning: string;
    number: string;
    unit: string;
    band: string;
    movers: string[];
    wanted: number | null;
  } {
    const words = FIGURE_WORDS[figure.key];
    const steps = this.plan()?.steps ?? [];
    const value = figure.value === null ? null : figureText(figure.key, figure.value);
    const { low, high } = figure;
    const band =
      low === null || high === null || low === high
        ? ''
        : `${figureText(figure.key, low).number} to ${figureText(figure.key, high).number}`;
    const sameUnit = low === null || high === null || figureText(figure.key, low).unit === value?.unit;
    const bandText =
      sameUnit || low === null || high === null
        ? band
        : `${figureText(figure.key, low).number} ${figureText(figure.key, low).unit} to ${figureText(figure.key, high).number} ${figureText(figure.key, high).unit}`;
    return {
      figure,
      name: words.name,
      meaning: words.meaning,
      number: value?.number ?? 'none',
      unit: value?.unit ?? '',
      band: bandText,
      movers: figure.movers
        .slice(0, figure.key === 'spacing' || figure.key === 'opening' ? 2 : 1)
        .map((mover) => moverText(figure.key, mover, (id) => layerWord(steps, id))),
      wanted: this.wanted(figure.key),
    };
  }

  private wanted(key: FigureKey): number | null {
    const look = this.plan()?.look;
    if (key === 'spacing') return look?.spacingMm == null ? null : look.spacingMm / 1000;
    if (key === 'opening') return look?.openingMm == null ? null : look.openingMm / 1000;
    return null;
  }

  protected want(changes: { spacingMm?: number | null; openingMm?: number | null }): void {
    this.store.dispatch(PlanEditor.lookChanged({ changes }));
  }
}
