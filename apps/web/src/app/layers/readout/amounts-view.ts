import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { duration, LIMITS, mediumName, spreadShown, stepTitle, volume, volumeShown } from '@zaffet/contract';
import { handsOn, type Quantity, quantities } from '@zaffet/core';
import { Store } from '@ngrx/store';
import { Units } from '../../data/units';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { NumberField } from '../../ui/number-field';

/** What the plan takes: volumes of every medium with water and powder, what it costs, how long the hands are at it. */
@Component({
  selector: 'zf-amounts-view',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="quiet small">For this panel, what stays in brush and dish counted in.</p>
    <ul class="amounts">
      @for (item of amounts(); track item.id) {
        <li>
          <strong>{{ item.title }}</strong>
          <span class="amount"
            ><b>{{ item.volume.number }}</b> {{ item.volume.unit }}</span
          >
          <span class="mover quiet">{{ item.detail }}</span>
          <span class="pricing"
            ><zf-number
              [label]="'Price a litre of ' + item.title"
              [quiet]="true"
              [value]="item.price"
              [limit]="limits.price"
              [optional]="true"
              placeholder="price"
              unit="a litre"
              (changed)="setPrice(item.medium, $event)"
          /></span>
          @if (item.cost !== null) {
            <span class="cost">{{ item.cost }}</span>
          }
        </li>
      }
    </ul>
    <p class="total">
      {{ handsOn() }} of work
      @if (cost(); as sum) {
        , {{ sum }} for media
      }
    </p>
  `,
  styles: `
    ul {
      margin: 0 0 10px;
      padding: 0;
      list-style: none;
    }
    .mover {
      display: block;
      font-size: 12px;
      line-height: 1.25;
    }
    .small {
      margin: 4px 0;
      font-size: 12.5px;
    }
    .amounts li {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 2px 8px;
      padding: 7px 0;
      border-bottom: 1px solid var(--line);

      .mover {
        grid-column: 1 / -1;
      }

      .pricing {
        width: 130px;
      }

      .cost {
        align-self: center;
      }
    }

    .total {
      font-weight: 600;
    }
  `,
})
export class AmountsView {
  private readonly store = inject(Store);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly model = this.store.selectSignal(planFeature.selectModel);
  private readonly units = inject(Units).system;
  protected readonly limits = LIMITS;

  private readonly used = computed((): readonly Quantity[] => {
    const model = this.model();
    return model === null ? [] : quantities(model, this.plan()?.prices);
  });
  /** What is used, each medium of one name once. */
  protected readonly amounts = computed(() => {
    const plan = this.plan();
    if (plan === null) return [];
    const groups = new Map<string, Quantity[]>();
    for (const item of this.used()) {
      const step = plan.steps.find((s) => s.id === item.stepId)!;
      const key = `${item.medium} ${stepTitle(step, plan.media)}`;
      groups.set(key, [...(groups.get(key) ?? []), item]);
    }
    return [...groups.values()].map((items) => {
      const first = items[0]!;
      const step = plan.steps.find((s) => s.id === first.stepId)!;
      const sum = (value: (item: Quantity) => number): number =>
        items.reduce((all, item) => all + value(item), 0);
      const costs = items.flatMap((item) => item.cost ?? []);
      return {
        id: first.stepId,
        medium: first.medium,
        title: stepTitle(step, plan.media),
        volume: volumeShown(
          sum((item) => item.volume),
          this.units(),
        ),
        detail: this.amountDetail(
          { ...first, water: sum((i) => i.water), powder: first.powder && sum((i) => i.powder ?? 0) },
          items.length,
        ),
        price: plan.prices[first.medium] ?? null,
        cost: costs.length === 0 ? null : costs.reduce((all, cost) => all + cost, 0).toFixed(2),
      };
    });
  });
  protected readonly cost = computed(() => {
    const costs = this.used().flatMap((item) => item.cost ?? []);
    return costs.length === 0 ? null : costs.reduce((sum, cost) => sum + cost, 0).toFixed(2);
  });
  protected readonly handsOn = computed(() => {
    const model = this.model();
    if (model === null) return '';
    const area = model.panel.width * model.panel.height;
    return duration(model.steps.reduce((sum, step) => sum + handsOn(step, area), 0));
  });

  private amountDetail(item: Quantity, coats: number): string {
    const { number, unit } = spreadShown(item.spreadRate, this.units());
    const parts = [mediumName(item.medium, this.plan()?.media)];
    if (coats > 1) parts.push(`${coats} coats`);
    parts.push(`${number} ${unit}`);
    if (item.powder !== null)
      parts.push(`from ${volume(item.powder, this.units())} powder and as much water`);
    if (item.water > 0) parts.push(`${volume(item.water, this.units())} of it water stirred in`);
    if (item.keeps < 30 * 86400) parts.push(`keeps ${duration(item.keeps)} at 21 °C`);
    return parts.join(', ');
  }

  protected setPrice(medium: string, price: number | null): void {
    this.store.dispatch(PlanEditor.priceChanged({ medium, price }));
  }
}
