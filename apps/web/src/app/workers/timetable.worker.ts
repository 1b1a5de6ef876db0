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
  time: (plan, given) => timetable(plan, given).table,
  hold: (plan, table, given) => {
    held = retimer(problemOf(plan, given), table);
  },
  drag: (pins) => {
    if (held === null) throw new Error('nothing is held');
    return held(pins);
  },
  holds: softEnds,
  air: airEffects,
  others: otherWays,
  startToEndBy,
  endsAt,
  listed: (plan, now, given) => {
    const { table } = timetable(plan, given);
    return { standing: standingAt(plan, table, now), moments: table.moments };
  },
};

expose(worker);
