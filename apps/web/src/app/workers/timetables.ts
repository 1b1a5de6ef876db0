import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { type Plan } from '@zaffet/contract';
import { type Pin, type Schedule } from '@zaffet/core/schedule';
import {
  type AirEffects,
  type Circumstances,
  type Given,
  type OtherWay,
  shopKnowing,
  type Standing,
} from '@zaffet/workshop';
import { calibrationFeature } from '../shop/calibration.feature';
import { Thread } from './thread';
import { type Listed, type TimetableWorker } from './timetable-messages';

const startThread = (): Worker =>
  new Worker(new URL('./timetable.worker', import.meta.url), { type: 'module' });

/** Timetables, worked out off the page's thread: one for all pages, so that it stays warm. */
@Injectable({ providedIn: 'root' })
export class Timetables {
  private readonly learned = inject(Store).selectSignal(calibrationFeature.selectLearned);
  private readonly given = computed((): Given => ({ shop: shopKnowing(this.learned()) }));
  private readonly thread = new Thread<TimetableWorker>(startThread);
  /** How all plans of a list stand: nothing that is open waits for that. */
  private readonly list = new Thread<TimetableWorker>(startThread);

  time(plan: Plan): Promise<Schedule> {
    return this.thread.ask((remote) => remote.time(plan, this.given()));
  }

  /** Takes hold of a timetable, to drag from it. */
  hold(plan: Plan, table: Schedule): Promise<void> {
    return this.thread.ask((remote) => remote.hold(plan, table, this.given()));
  }

  drag(pins: readonly Pin[]): Promise<Schedule> {
    return this.thread.ask((remote) => remote.drag(pins));
  }

  others(plan: Plan, table: Schedule): Promise<readonly OtherWay[]> {
    return this.thread.ask((remote) => remote.others(plan, table, this.given()));
  }

  holds(plan: Plan, table: Schedule): Promise<Readonly<Record<string, number>>> {
    return this.thread.ask((remote) => remote.holds(plan, table, this.given()));
  }

  air(plan: Plan, table: Schedule): Promise<AirEffects> {
    return this.thread.ask<AirEffects>((remote) => remote.air(plan, table, this.given()));
  }

  startToEndBy(plan: Plan, by: string): Promise<string> {
    return this.thread.ask((remote) => remote.startToEndBy(plan, by, this.given()));
  }

  endsAt(plan: Plan): Promise<number> {
    return this.thread.ask((remote) => remote.endsAt(plan, this.given()));
  }

  /** What the list shows of a plan, with the circumstances that its figures rest on. */
  async listed(
    plan: Plan,
    now: number,
  ): Promise<{ readonly standing: Standing; readonly circumstances: Circumstances }> {
    const given = this.given();
    const { standing, moments } = await this.list.ask<Listed>((remote) => remote.listed(plan, now, given));
    return { standing, circumstances: { ...given, moments } };
  }
}
