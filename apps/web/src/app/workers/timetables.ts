import { Injectable } from '@angular/core';
import { type Plan } from '@zaffet/contract';
import { type Pin, type Schedule } from '@zaffet/core/schedule';
import { type OtherWay, type Standing } from '@zaffet/workshop';
import { Thread } from './thread';
import { type TimetableWorker } from './timetable-messages';

/** Timetables, worked out off the page's thread: one for all pages, so that it stays warm. */
@Injectable({ providedIn: 'root' })
export class Timetables {
  private readonly thread = new Thread<TimetableWorker>(
    () => new Worker(new URL('./timetable.worker', import.meta.url), { type: 'module' }),
  );

  time(plan: Plan): Promise<Schedule> {
    return this.thread.ask((remote) => remote.time(plan));
  }

  drag(plan: Plan, table: Schedule, pins: readonly Pin[]): Promise<Schedule> {
    return this.thread.ask((remote) => remote.drag(plan, table, pins));
  }

  others(plan: Plan, table: Schedule): Promise<readonly OtherWay[]> {
    return this.thread.ask((remote) => remote.others(plan, table));
  }

  startToEndBy(plan: Plan, by: string): Promise<string> {
    return this.thread.ask((remote) => remote.startToEndBy(plan, by));
  }

  endsAt(plan: Plan): Promise<number> {
    return this.thread.ask((remote) => remote.endsAt(plan));
  }

  standing(plan: Plan, now: number): Promise<Standing> {
    return this.thread.ask<Standing>((remote) => remote.standing(plan, now));
  }
}
