import { Injectable } from '@angular/core';
import { type Plan } from '@zaffet/contract';
import { type Pin, type Schedule } from '@zaffet/core/schedule';
import { type AirEffects, type OtherWay, type Standing } from '@zaffet/workshop';
import { Thread } from './thread';
import { type TimetableWorker } from './timetable-messages';

const startThread = (): Worker =>
  new Worker(new URL('./timetable.worker', import.meta.url), { type: 'module' });

/** Timetables, worked out off the page's thread: one for all pages, so that it stays warm. */
@Injectable({ providedIn: 'root' })
export class Timetables {
  private readonly thread = new Thread<TimetableWorker>(startThread);
  /** How all plans of a list stand: nothing that is open waits for that. */
  private readonly list = new Thread<TimetableWorker>(startThread);

  time(plan: Plan): Promise<Schedule> {
    return this.thread.ask((remote) => remote.time(plan));
  }

  /** Takes hold of a timetable, to drag from it. */
  hold(plan: Plan, table: Schedule): Promise<void> {
    return this.thread.ask((remote) => remote.hold(plan, table));
  }

  drag(pins: readonly Pin[]): Promise<Schedule> {
    return this.thread.ask((remote) => remote.drag(pins));
  }

  others(plan: Plan, table: Schedule): Promise<readonly OtherWay[]> {
    return this.thread.ask((remote) => remote.others(plan, table));
  }

  holds(plan: Plan, table: Schedule): Promise<Readonly<Record<string, number>>> {
    return this.thread.ask((remote) => remote.holds(plan, table));
  }

  air(plan: Plan, table: Schedule): Promise<AirEffects> {
    return this.thread.ask<AirEffects>((remote) => remote.air(plan, table));
  }

  startToEndBy(plan: Plan, by: string): Promise<string> {
    return this.thread.ask((remote) => remote.startToEndBy(plan, by));
  }

  endsAt(plan: Plan): Promise<number> {
    return this.thread.ask((remote) => remote.endsAt(plan));
  }

  standing(plan: Plan, now: number): Promise<Standing> {
    return this.list.ask<Standing>((remote) => remote.standing(plan, now));
  }
}
