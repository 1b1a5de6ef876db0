import { type Pin, retimer, type Schedule } from '@zaffet/core/schedule';
import {
  airEffects,
  endsAt,
  otherWays,
  problemOf,
  softEnds,
  standingAt,
  startToEndBy,
  timetable,
} from '@zaffet/workshop';
import { expose } from 'comlink';
import { type TimetableWorker } from './timetable-messages';

let held: ((pins: readonly Pin[]) => Schedule) | null = null;

const worker: TimetableWorker = {
  time: (plan) => timetable(plan).table,
  hold: (plan, table) => {
    held = retimer(problemOf(plan), table);
  },
  drag: (pins) => {
    if (held === null) throw new Error('nothing is held');
    return held(pins);
  },
  holds: softEnds,
  air: airEffects,
  others: (plan, table) => otherWays(plan, table),
  startToEndBy,
  endsAt,
  standing: standingAt,
};

expose(worker);
