import { Injectable, type OnDestroy } from '@angular/core';
import { type RunEvent, type Shelf } from '@zaffet/contract';
import { type Bench, type Mixing } from '@zaffet/workshop';
import { type AskedLook, type BenchWorker } from './bench-messages';
import { Thread } from './thread';

/** How runs stand, worked out off the page's thread; stopped with the page. */
@Injectable()
export class BenchThread implements OnDestroy {
  private readonly thread = new Thread<BenchWorker>(
    () => new Worker(new URL('./bench.worker', import.meta.url), { type: 'module' }),
  );

  ngOnDestroy(): void {
    this.thread.stop();
  }

  stand(events: readonly RunEvent[], now: number, inHand: string | null): Promise<Bench | null> {
    return this.thread.ask<Bench | null>((remote) => remote.stand(events, now, inHand));
  }

  mixes(events: readonly RunEvent[], shelf: Shelf): Promise<Mixing | null> {
    return this.thread.ask<Mixing | null>((remote) => remote.mixes(events, shelf));
  }

  doubts(events: readonly RunEvent[], asked: AskedLook): Promise<boolean> {
    return this.thread.ask((remote) => remote.doubts(events, asked));
  }
}
