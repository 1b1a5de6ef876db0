import { ZaffetError } from '@zaffet/contract';
import { InputError } from '@zaffet/core/errors';
import { parseArgs } from 'node:util';
import { calibrateFiles } from './calibrate';
import { type Asked, explainFigure, predict } from './predict';
import { type MeasureAsked, measureFile } from './measure';
import { FORMATS, scheduleText } from './schedule';

export interface Output {
  out(text: string): void;
  err(text: string): void;
}

const USAGE = `usage: zaffet predict <plan file> ...
         prints the forecast of each plan's first part as JSON: of one file laid
         out to be read, of several one line each
       zaffet explain <plan file> <figure> [zone]
         prints which knobs move one figure, or how much of one layer is seen,
         on the whole panel or in one zone: field, edge, corner
       zaffet schedule <plan file>
         prints what is done when, over all parts
       zaffet calibrate <run file> ...
         prints what measured runs teach of the shop's own paints, as JSON: a
         calibration, each reading beside what was foretold of it
       zaffet measure <photograph>
         prints the cracks of a sample board in its printed frame as JSON, cell by
         cell; PNG or JPEG
       zaffet restore <backup file> <new folder>
         brings a backup into a data directory of its own
       --cells 1 to 9, --line what the frame's line of 100 mm measures, --thick how
         much the board stands above its frame [mm]
       --corners "x,y x,y x,y x,y" [px] and --size WIDTHxHEIGHT [mm] measure one
         rectangle instead
       --knowing <calibration file> predicts and times by what a shop learned
       --as json, csv or ics (a calendar) lays a timetable out
       --part <name or id> takes another part of the piece
       --at <RFC 3339> begins the plan at another instant
see docs/predict.md
`;

/** The command was given a file it cannot use: exit code 2, with the reason on the error output. */
export const BAD_INPUT = 2;

/** The words of a call, and what it asks for; a call that cannot be read has no words. */
function told(args: readonly string[]): {
  words: readonly string[];
  asked: Asked & MeasureAsked & { as?: string };
} {
  try {
    const { positionals, values } = parseArgs({
      args: [...args],
      options: {
        part: { type: 'string' },
        at: { type: 'string' },
        as: { type: 'string' },
        knowing: { type: 'string' },
        cells: { type: 'string' },
        line: { type: 'string' },
        thick: { type: 'string' },
        corners: { type: 'string' },
        size: { type: 'string' },
      },
      allowPositionals: true,
    });
    return { words: positionals, asked: values };
  } catch {
    return { words: [], asked: {} };
  }
}

/** Prints what comes of a file. @returns whether it could be used */
async function printed(file: string, work: () => Promise<string>, { out, err }: Output): Promise<boolean> {
  try {
    out(await work());
    return true;
  } catch (error) {
    if (error instanceof ZaffetError) {
      err(`${file}: ${error.fault.message}\n`);
      for (const field of error.fault.fields) err(`  ${field.message}\n`);
      return false;
    }
    if (error instanceof InputError) {
      err(`${file}: ${error.message}\n`);
      return false;
    }
    throw error;
  }
}

const READABLE = 2;
const json = (value: unknown, indent: number): string => `${JSON.stringify(value, null, indent)}\n`;

/** Runs one command. @returns the exit code: 0 done, 2 bad call or bad file */
export async function run(args: readonly string[], output: Output): Promise<number> {
  const { words, asked } = told(args);
  const [command, ...rest] = words;
  const [first, figure, zone] = rest;
  if (command === 'predict' && rest.length > 0) {
    let good = true;
    // One after the other: lines come in the order of the files, and a bad one keeps none of the others back.
    for (const file of rest)
      good =
        (await printed(
          file,
          async () => json(await predict(file, asked), rest.length > 1 ? 0 : READABLE),
          output,
        )) && good;
    return good ? 0 : BAD_INPUT;
  }
  if (command === 'explain' && first !== undefined && figure !== undefined && rest.length <= 3) {
    const work = async (): Promise<string> => json(await explainFigure(first, figure, zone, asked), READABLE);
    return (await printed(first, work, output)) ? 0 : BAD_INPUT;
  }
  if (command === 'calibrate' && first !== undefined) {
    const work = async (): Promise<string> => json(await calibrateFiles(rest), READABLE);
    return (await printed(rest.join(', '), work, output)) ? 0 : BAD_INPUT;
  }
  if (command === 'measure' && first !== undefined && rest.length === 1) {
    const work = async (): Promise<string> => json(await measureFile(first, asked), READABLE);
    return (await printed(first, work, output)) ? 0 : BAD_INPUT;
  }
  const format = FORMATS.find((known) => known === (asked.as ?? 'json'));
  if (command === 'schedule' && first !== undefined && rest.length === 1 && format !== undefined) {
    const work = (): Promise<string> => scheduleText(first, asked, format, Date.now());
    return (await printed(first, work, output)) ? 0 : BAD_INPUT;
  }
  output.err(USAGE);
  return BAD_INPUT;
}
