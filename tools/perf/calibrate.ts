import { calibrate } from '@zaffet/core/calibrate';
import { forecast } from '@zaffet/core/forecast';
import {
  BOARD_SCHOOLS,
  boardOf,
  type BoardSchool,
  hiddenShop,
  judgeBoards,
  WORLDS,
} from '../../packages/core/src/testing/boards';
import { line, type PerfLine, race } from './report';

/** Shops of each school and world that the fit is not told of. */
const TRUTHS = 60;
const RUNS = 15;

const schools: readonly (readonly [string, BoardSchool])[] = Object.entries(BOARD_SCHOOLS);

/** What a fit takes. */
function fitLine(name: string, school: BoardSchool): PerfLine {
  const board = boardOf(school, 3, hiddenShop(school, 3), WORLDS['and outliers']!);
  const { basis } = board[4]!;
  const { subject, reference } = race(
    RUNS,
    () => void calibrate(board),
    () => void forecast(basis),
  );
  return line(`calibrate.fit.${name}`, 'ms', subject, reference, RUNS, 'nine cells; reference: one forecast');
}

/** How much a board of nine cells teaches of cells that were not made. */
const taughtLines = (name: string, school: BoardSchool): PerfLine[] =>
  Object.entries(WORLDS).flatMap(([world, of]) =>
    judgeBoards(school, TRUTHS, of).map(({ reading, before, after, held }) =>
      line(
        `calibrate.taught.${name}.${world.replaceAll(' ', '-')}.${reading}`,
        'ln',
        after,
        before,
        TRUTHS,
        `the band holds ${Math.round(100 * held)} %; reference: on the tables`,
      ),
    ),
  );

export const calibrateLines: Readonly<Record<string, () => PerfLine | PerfLine[]>> = Object.fromEntries(
  schools.flatMap(([name, school]) => [
    [`calibrate.fit.${name}`, () => fitLine(name, school)],
    [`calibrate.taught.${name}`, () => taughtLines(name, school)],
  ]),
);
