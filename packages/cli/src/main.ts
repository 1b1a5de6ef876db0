import { ZaffetError } from '@zaffet/contract';
import { InputError } from '@zaffet/core';
import { parseArgs } from 'node:util';
import { explainFigure, predict } from './predict';

export interface Output {
  out(text: string): void;
  err(text: string): void;
}

const USAGE = `usage: zaffet predict <plan file>
         prints the forecast of the plan's first part as JSON
       zaffet explain <plan file> <figure> [zone]
         prints which knobs move one figure, or how much of one layer is seen,
         on the whole panel or in one zone: field, edge, corner
       --part <name or id> takes another part of the piece
see docs/predict.md
`;

/** The command was given a file it cannot use: exit code 2, with the reason on the error output. */
export const BAD_INPUT = 2;

/** The words of a call, and the part it names; a call that cannot be read has no words. */
function told(args: readonly string[]): { words: readonly string[]; part?: string } {
  try {
    const { positionals, values } = parseArgs({
      args: [...args],
      options: { part: { type: 'string' } },
      allowPositionals: true,
    });
    return { words: positionals, ...values };
  } catch {
    return { words: [] };
  }
}

/** Runs one command. @returns the exit code: 0 done, 2 bad call or bad file */
export async function run(args: readonly string[], output: Output): Promise<number> {
  const { words, part } = told(args);
  const [command, file, figure, zone, ...rest] = words;
  const asked =
    file === undefined || rest.length > 0
      ? null
      : command === 'predict' && figure === undefined
        ? (): Promise<unknown> => predict(file, part)
        : command === 'explain' && figure !== undefined
          ? (): Promise<unknown> => explainFigure(file, figure, zone, part)
          : null;
  if (asked === null) {
    output.err(USAGE);
    return BAD_INPUT;
  }
  try {
    output.out(`${JSON.stringify(await asked(), null, 2)}\n`);
    return 0;
  } catch (error) {
    if (error instanceof ZaffetError) {
      output.err(`${file}: ${error.fault.message}\n`);
      for (const field of error.fault.fields) output.err(`  ${field.message}\n`);
      return BAD_INPUT;
    }
    if (error instanceof InputError) {
      output.err(`${file}: ${error.message}\n`);
      return BAD_INPUT;
    }
    throw error;
  }
}
