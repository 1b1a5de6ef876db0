import { computed, effect, inject, Injectable, type OnDestroy, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { type Basis } from '@zaffet/core/basis';
import { type Region } from '@zaffet/core/maps';
import { type Readout, type ZoneReadout } from '@zaffet/core/readout';
import { planFeature } from '../plan/plan.feature';
import { type FiguresAnswer, type FiguresRequest, type FiguresWorker } from './figures-messages';
import { Latest, Thread } from './thread';

/**
 * The figures of the part in hand, on a thread of their own. While new ones are worked out the last hold; those of
 * another part never do.
 */
@Injectable()
export class FiguresReading implements OnDestroy {
  private readonly store = inject(Store);
  private readonly basis = this.store.selectSignal(planFeature.selectBasis);
  private readonly bench = this.store.selectSignal(planFeature.selectBench);
  private readonly thread = new Thread<FiguresWorker>(
    () => new Worker(new URL('./figures.worker', import.meta.url), { type: 'module' }),
  );
  private readonly latest = new Latest<FiguresRequest, FiguresAnswer>((request) =>
    this.thread.ask((remote) => remote.figures(request)),
  );
  private of: string | null = null;

  readonly readout = signal<Readout | null>(null);
  readonly trouble = signal(false);
  private readonly answered = signal<Basis | null>(null);
  /** Whether what is shown is not yet that of the plan as it stands. */
  readonly busy = computed(() => this.basis() !== this.answered());
  /** A place to tell the figures of, beside the part's. */
  readonly region = signal<Region | null>(null);
  readonly regionTold = signal<ZoneReadout | null>(null);

  constructor() {
    effect(() => {
      const basis = this.basis();
      const region = this.region();
      const bench = this.bench();
      if (bench !== this.of) {
        this.of = bench;
        this.readout.set(null);
        this.regionTold.set(null);
      }
      if (basis === null) return;
      this.latest.put(
        { basis, region },
        (answer) => {
          if (this.of !== bench) return;
          this.trouble.set(false);
          this.answered.set(basis);
          this.readout.set(answer.readout);
          this.regionTold.set(answer.region);
        },
        () => {
          this.trouble.set(true);
          this.answered.set(basis);
        },
      );
    });
  }

  ngOnDestroy(): void {
    this.thread.stop();
  }
}
