import { existsSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { CannotStart } from '../start/cannot';

/*
 * Who wants a data directory says so in a file of its own beside it, and only then looks at everybody else's. Of any
 * two, whoever looks later sees the other, so two can never both go on; a file of a process that died counts for
 * nothing, and nothing is taken over. Of those who ask at the same moment the one with the lowest number goes on: the
 * others wait until it has decided.
 */

/** Who holds a data directory or asks for it: process and when it started, since process numbers are used again. */
interface Holder {
  readonly pid: number;
  readonly started: string;
  readonly holds: boolean;
}

/** Another Zaffet has this data directory open. */
export class DirectoryInUse extends CannotStart {
  constructor(directory: string, pid: number) {
    super(
      `Data directory ${directory} is in use by process ${pid}. Stop that Zaffet first, or set ZAFFET_DATA to another directory.`,
    );
    this.name = 'DirectoryInUse';
  }
}

/** How long one waits for another to decide [ms], and between two looks. */
const PATIENCE = 2000;
const LOOK_EVERY = 10;

/** Start time of a process in clock ticks since boot, where the system tells it; '' otherwise. */
function startTime(pid: number): string {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    // The command may hold spaces and brackets; fields count from after its last bracket.
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? '';
  } catch {
    return '';
  }
}

function alive({ pid, started }: Holder): boolean {
  // 0 and negative numbers would ask after whole groups of processes, this one's among them.
  if (!Number.isInteger(pid) || pid <= 0) return false;
  try {
    process.kill(pid, 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return false;
  }
  return startTime(pid) === started;
}

function read(path: string): Holder | null {
  try {
    const { pid, started, holds } = JSON.parse(readFileSync(path, 'utf8')) as Partial<Holder>;
    // A lock written by an older Zaffet says nothing of asking: it holds.
    return { pid: Number(pid), started: String(started), holds: holds !== false };
  } catch {
    return null;
  }
}

/** Appears whole or not at all. */
function write(path: string, holder: Holder): void {
  const whole = `${path}.new`;
  try {
    writeFileSync(whole, JSON.stringify(holder));
    renameSync(whole, path);
  } catch (error) {
    rmSync(whole, { force: true });
    throw error;
  }
}

const wait = (ms: number): void => void Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, ms);

/**
 * Takes a data directory for this process, or throws `DirectoryInUse`. The embedded database does not refuse a second
 * process and would silently corrupt.
 * @param directory - as `onePath` gives it, so that each directory has one name; its parent must be there
 * @returns releases the lock
 */
export function lockDirectory(directory: string): () => void {
  const start = `${basename(directory)}.lock`;
  const me = { pid: process.pid, started: startTime(process.pid) };
  // No other process ever has this name, so what is seen to be dead stays so.
  const own = `${directory}.lock.${me.pid}-${me.started}`;
  const release = (): void => rmSync(own, { force: true });

  /** Those that live and have said they want it; files of the dead are cleared away. */
  const others = (): Holder[] =>
    readdirSync(dirname(directory))
      .filter((name) => name === start || (name.startsWith(`${start}.`) && !name.endsWith('.new')))
      .map((name) => join(dirname(directory), name))
      .filter((path) => path !== own)
      .flatMap((path) => {
        const holder = read(path);
        if (holder !== null && alive(holder)) return [holder];
        rmSync(path, { force: true });
        return [];
      });

  if (existsSync(own)) throw new DirectoryInUse(directory, process.pid);
  write(own, { ...me, holds: false });
  for (let waited = 0; ; waited += LOOK_EVERY) {
    const seen = others();
    const before = seen.find(({ holds, pid }) => holds || pid < process.pid || waited >= PATIENCE);
    if (before !== undefined) {
      release();
      throw new DirectoryInUse(directory, before.pid);
    }
    if (seen.length === 0) break;
    wait(LOOK_EVERY);
  }
  write(own, { ...me, holds: true });
  return release;
}
