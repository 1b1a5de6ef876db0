import { ZaffetError } from '@zaffet/contract';
import { InputError } from '@zaffet/core';
import { predict } from './predict';

export interface Output {
  out(text: string): void;
  err(text: string): void;
}

const USAGE = `usage: zaffet predict <plan file>
  prints the plan's forecast as JSON; see docs/predict.md
`;

/** The command was given a file it cannot use: exit code 2, with the reason on the error output. */
export const BAD_INPUT = 2;

/** Runs one command. @returns the exit code: 0 done, 2 bad call or bad file */
export async function run(args: readonly string[], output: Output): Promise<number> {
  const [command, file, ...rest] = args;
  if (command !== 'predict' || file === undefined || rest.length > 0) {
    output.err(USAGE);
    return BAD_INPUT;
  }
  try {
    output.out(`${JSON.stringify(await predict(file), null, 2)}\n`);
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
