import { fault, type LearnedFile, LIMITS, type RunEvent, ZaffetError } from '@zaffet/contract';
import { parseCalibration } from '@zaffet/contract/calibration';
import { parseEvents } from '@zaffet/contract/runs';
import { calibrate, leaveOneOut } from '@zaffet/core/calibrate';
import { cellsOf, foldRun } from '@zaffet/workshop';
import { lessonText, oneAirText } from '@zaffet/words';
import { basename } from 'node:path';
import { readJsonFile } from './readJsonFile';

/** Events of a run as a file holds them: by themselves, or counted as the server tells them. */
function eventsIn(value: unknown): RunEvent[] {
  const list =
    typeof value === 'object' && value !== null && Array.isArray((value as { events?: unknown }).events)
      ? (value as { events: unknown[] }).events
      : [value];
  const plain = list.map((one) =>
    typeof one === 'object' && one !== null && 'event' in one ? one.event : one,
  );
  const events: RunEvent[] = [];
  for (let at = 0; at < plain.length; at += LIMITS.events.max)
    events.push(...parseEvents({ events: plain.slice(at, at + LIMITS.events.max) }).events);
  return events;
}

/**
 * What the runs in files teach, as JSON: a calibration that `--knowing` takes, with what it says and how far it is off.
 * @throws ZaffetError where a file holds no run, or nothing was measured in any
 */
export async function calibrateFiles(paths: readonly string[]): Promise<unknown> {
  const told: { id: string; cells: ReturnType<typeof cellsOf> }[] = [];
  for (const path of paths) {
    const run = foldRun(eventsIn(await readJsonFile(path)));
    if (run === null) throw new ZaffetError(fault('run.not-found'));
    const id = basename(path, '.json');
    told.push({ id, cells: cellsOf(id, run) });
  }
  const cells = told.flatMap(({ cells: own }) => own);
  const { learned, lessons, compared, disagree, airs, ended } = calibrate(cells);
  const { keys, mean, covariance, centre = [] } = learned;
  return {
    learned: { keys, mean, covariance, centre },
    runs: told.map(({ id }) => id),
    leftOut: [],
    lessons: lessons.map((lesson) => ({ ...lesson, says: lessonText(lesson, []) })),
    compared,
    leaveOneOut: leaveOneOut(cells),
    disagree,
    airs: { ...airs, says: oneAirText(airs, 'metric') },
    ended,
  };
}

/** What a calibration file says the shop has learned. @throws ZaffetError `calibration.invalid` */
export async function learnedIn(path: string): Promise<LearnedFile | null> {
  const value = (await readJsonFile(path)) as Partial<Record<'learned' | 'runs' | 'leftOut', unknown>> | null;
  const { learned, runs = [], leftOut = [] } = value ?? {};
  return parseCalibration({ learned, runs, leftOut }).learned;
}
