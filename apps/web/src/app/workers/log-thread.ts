import { Injectable, type OnDestroy } from '@angular/core';
import { type Learned } from '@zaffet/core/media';
import { type ComparedPart, type Kept } from '@zaffet/workshop';
import { type ToldRun } from './boards-messages';
import { type LogWorker } from './log-messages';
import { Thread } from './thread';

/** What was foretold beside what came out, off the page's thread; stopped with the page. */
@Injectable()
export class LogThread implements OnDestroy {
  private readonly thread = new Thread<LogWorker>(
    () => new Worker(new URL('./log.worker', import.meta.url), { type: 'module' }),
  );

  ngOnDestroy(): void {
    this.thread.stop();
  }

  compare(run: ToldRun, learned: Learned | null): Promise<readonly ComparedPart[]> {
    return this.thread.ask<readonly ComparedPart[]>((remote) => remote.compare(run, learned));
  }
  kept(runs: readonly ToldRun[]): Promise<readonly Kept[]> {
    return this.thread.ask<readonly Kept[]>((remote) => remote.kept(runs));
  }
}
