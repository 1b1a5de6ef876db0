import { restoreInto } from './backup/into';
import { CannotStart } from './start/cannot';

const USAGE = `usage: zaffet restore <backup file> <new folder>
         brings a backup into a data directory of its own
see docs/formats.md
`;
/** The command was given something it cannot use. */
const BAD_INPUT = 2;

/** `zaffet restore`: exit code 0, or 2 with the reason on the error output. */
export async function restoreCommand(args: readonly string[]): Promise<number> {
  const [file, folder] = args;
  if (file === undefined || folder === undefined || args.length > 2) {
    process.stderr.write(USAGE);
    return BAD_INPUT;
  }
  try {
    process.stdout.write(`${await restoreInto(file, folder)}\n`);
    return 0;
  } catch (error) {
    if (!(error instanceof CannotStart)) throw error;
    process.stderr.write(`${error.message}\n`);
    return BAD_INPUT;
  }
}
