import { Injectable, type OnDestroy } from '@angular/core';
import { type Plan } from '@zaffet/contract';
import { type LeftOut } from '@zaffet/core/calibrate';
import { type Learned } from '@zaffet/core/media';
import { type BoardDesign, type BoardQuestion, type BoardSize } from '@zaffet/workshop';
import { type BoardsWorker, type Taught, type ToldRun } from './boards-messages';
import { Thread } from './thread';

/** Boards designed and learned from, off the page's thread; stopped with the page. */
@Injectable()
export class BoardsThread implements OnDestroy {
  private readonly thread = new Thread<BoardsWorker>(
    () => new Worker(new URL('./boards.worker', import.meta.url), { type: 'module' }),
  );

  ngOnDestroy(): void {
    this.thread.stop();
  }

  learn(runs: readonly ToldRun[], leftOut: readonly string[]): Promise<Taught> {
    return this.thread.ask<Taught>((remote) => remote.learn(runs, leftOut));
  }

  leaveOut(runs: readonly ToldRun[], leftOut: readonly string[]): Promise<readonly LeftOut[]> {
    return this.thread.ask((remote) => remote.leaveOut(runs, leftOut));
  }

  design(
    plan: Plan,
    partId: string,
    question: BoardQuestion,
    size: BoardSize,
    learned: Learned | null,
  ): Promise<BoardDesign | null> {
    return this.thread.ask<BoardDesign | null>((remote) =>
      remote.design(plan, partId, question, size, learned),
    );
  }
}
