import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { Units } from '../data/units';
import { OrderList } from './order/order-list';
import { AddStep } from './section/add-step';
import { SectionView } from './section/section-view';

/** The stack, cut through to scale or as a list in working order. */
@Component({
  selector: 'zf-stack-column',
  imports: [AddStep, MatButtonToggleModule, OrderList, SectionView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2 class="visually-hidden">Layers of the stack</h2>
      <mat-button-toggle-group
        aria-label="How the stack is shown"
        hideSingleSelectionIndicator
        [value]="shown()"
        (change)="shown.set($event.value)"
      >
        <mat-button-toggle value="section">Section</mat-button-toggle>
        <mat-button-toggle value="order">In order</mat-button-toggle>
      </mat-button-toggle-group>
      <span class="quiet">{{ hint() }}</span>
      <zf-add-step />
    </header>
    @if (shown() === 'section') {
      <zf-section-view />
    } @else {
      <zf-order-list />
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-rows: 42px minmax(0, 1fr);
      overflow: hidden;
    }
    header {
      display: flex;
      align-items: center;
      gap: 8px;
      padding: 0 4px 0 10px;
    }
    .quiet {
      flex: 1;
      font-size: 12px;
      line-height: 1.1;
    }
  `,
})
export class StackColumn {
  private readonly units = inject(Units).system;
  protected readonly shown = signal<'section' | 'order'>('section');
  protected readonly hint = computed(() => {
    if (this.shown() === 'order') return 'drag to reorder';
    return `drag a surface, ${this.units() === 'imperial' ? 'mil' : 'µm'}`;
  });
}
