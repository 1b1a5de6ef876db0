import { type Pin, retimer, type Schedule } from '@zaffet/core/schedule';
import { endsAt, otherWays, problemOf, standingAt, startToEndBy, timetable } from '@zaffet/workshop';
import { expose } from 'comlink';
import { type TimetableWorker } from './timetable-messages';

/** What is being dragged: a plan's parts are gone through once for all frames of a drag. */
let dragged: { key: string; timed: (pins: readonly Pin[]) => Schedule } | null = null;

const worker: TimetableWorker = {
  time: (plan) => timetable(plan).table,
  drag: (plan, table, pins) => {
    const key = JSON.stringify([plan, table.order]);
    if (dragged?.key !== key) dragged = { key, timed: retimer(problemOf(plan), table) };
    return dragged.timed(pins);
  },
  others: (plan, table) => otherWays(plan, table),
  startToEndBy,
  endsAt,
  standing: standingAt,
};

expose(worker);
