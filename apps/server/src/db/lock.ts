import { closeSync, constants, openSync, readdirSync, readFileSync, readSync, writeSync } from 'node:fs';
import { createRequire } from 'node:module';
import { hostname } from 'node:os';
import { randomUUID } from 'node:crypto';
import { basename, dirname, join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { CannotStart } from '../start/cannot';

/*
 * The holder of a data directory has an operating system lock on a file inside it: an open file description lock on
 * Linux (fcntl(2), F_OFD_SETLK), flock(2) on macOS, LockFileEx on Windows. The kernel releases it when the process ends,
 * however it ends, and containers that share the directory share the lock. Process numbers prove nothing: two
 * containers may use the same one.
 *
 * Some network file systems lock within one machine only. So the holder also writes a heartbeat into the file, with its
 * machine and boot. Whoever gets the lock while another boot's heartbeat is in the file waits: a heartbeat that changes
 * is a living Zaffet. The file is never deleted.
 */

/** Inside the data directory. */
export const LOCK_FILE = 'zaffet.lock';
/** The file is read and written whole [bytes]. */
const FILE_BYTES = 512;

/** What the lock file says of the process that wrote it. */
interface Holder {
  readonly id: string;
  readonly pid: number;
  readonly host: string;
  readonly boot: string;
  /** Counts up while the process lives. */
  readonly beat: number;
}

/** Another Zaffet has this data directory open. */
export class DirectoryInUse extends CannotStart {
  constructor(directory: string, holder: Pick<Holder, 'pid' | 'host'> | null) {
    const who = holder === null ? '' : ` (process ${holder.pid} on ${holder.host})`;
    super(
      `Data directory ${directory} is in use by another Zaffet${who}. Stop that Zaffet first, or set ZAFFET_DATA to another directory.`,
    );
    this.name = 'DirectoryInUse';
  }
}

export interface LockOptions {
  /** Called when another Zaffet has taken the directory over, because this machine slept. Must end the process. */
  readonly lost: (sentence: string) => never;
  /** Prints a line while the start waits. */
  readonly say?: (line: string) => void;
  /** Takes the lock of an open file without waiting: false if another process has it, null if the system has no locks. */
  readonly tryLock?: (file: number) => boolean | null;
  readonly host?: string;
  /** Names one boot of one machine; '' if the system does not tell. */
  readonly boot?: string;
  /** Between two heartbeats [ms]. */
  readonly beatEvery?: number;
}

/** A heartbeat that has not changed during this many intervals has stopped. */
const STOPPED_AFTER = 3;
const BEAT_EVERY = 5000;

function systemLock(file: number): boolean | null {
  let native: { tryLock(file: number): boolean };
  try {
    native = createRequire(import.meta.url)('fs-native-extensions') as typeof native;
  } catch {
    return null;
  }
  return native.tryLock(file);
}

/** Linux, random(4): a new value at each boot, the same in all containers. */
function bootId(): string {
  try {
    return readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim();
  } catch {
    return '';
  }
}

function holderIn(file: number): Holder | null {
  const bytes = Buffer.alloc(FILE_BYTES);
  const length = readSync(file, bytes, 0, FILE_BYTES, 0);
  try {
    const { id, pid, host, boot, beat } = JSON.parse(bytes.toString('utf8', 0, length)) as Partial<Holder>;
    return typeof id === 'string' && typeof beat === 'number'
      ? { id, pid: Number(pid), host: String(host), boot: String(boot), beat }
      : null;
  } catch {
    return null;
  }
}

function write(file: number, holder: Holder | null): void {
  try {
    // Always the same length: once the file has its block, a full disk cannot refuse it.
    writeSync(file, (holder === null ? '' : JSON.stringify(holder)).padEnd(FILE_BYTES), 0, 'utf8');
  } catch (error) {
    // A new file on a full disk stays empty: the system's lock alone holds then.
    if (!['ENOSPC', 'EDQUOT'].includes((error as NodeJS.ErrnoException).code ?? '')) throw error;
  }
}

/**
 * Takes a data directory for this process. The embedded database does not refuse a second process and would corrupt.
 * @param directory - as `onePath` gives it, so that each directory has one name; it exists
 * @returns releases the lock
 * @throws DirectoryInUse if another Zaffet has it; the file system's errors
 */
export async function lockDirectory(directory: string, options: LockOptions): Promise<() => void> {
  const {
    lost,
    say = () => undefined,
    tryLock = systemLock,
    host = hostname(),
    boot = bootId(),
    beatEvery = BEAT_EVERY,
  } = options;
  const earlier = earlierHolder(directory);
  if (earlier !== null) throw new DirectoryInUse(directory, { pid: earlier, host });
  const file = openSync(join(directory, LOCK_FILE), constants.O_RDWR | constants.O_CREAT, 0o600);
  try {
    const locked = tryLock(file);
    const before = holderIn(file);
    if (locked === false) throw new DirectoryInUse(directory, before);
    // A lock of this boot's kernel proves that its holder is dead; any other holder may live where the lock is not seen.
    if (before !== null && !(locked && before.boot === boot && boot !== '')) {
      say(
        `Data directory ${directory} was not closed by ${before.host}. Waiting until it is sure that no Zaffet uses it …`,
      );
      for (let i = 0; i < STOPPED_AFTER; i++) {
        await wait(beatEvery);
        const now = holderIn(file);
        if (now?.id !== before.id || now.beat !== before.beat)
          throw new DirectoryInUse(directory, now ?? before);
      }
    }
    const id = randomUUID();
    let beat = 0;
    const show = (): void => write(file, { id, pid: process.pid, host, boot, beat });
    show();
    if (locked === null) {
      // Without locks, of two that start at once the later writer wins.
      await wait(beatEvery);
      const now = holderIn(file);
      if (now?.id !== id) throw new DirectoryInUse(directory, now);
    }
    const timer = setInterval(() => {
      const now = holderIn(file);
      if (now !== null && now.id !== id)
        lost(
          `Another Zaffet on ${now.host} has taken over data directory ${directory}. This one stops; everything it acknowledged is kept.`,
        );
      beat += 1;
      show();
    }, beatEvery);
    timer.unref();
    return () => {
      clearInterval(timer);
      write(file, null);
      closeSync(file);
    };
  } catch (error) {
    closeSync(file);
    throw error;
  }
}

/** The process of a Zaffet before version 0.2 that still runs: it keeps a file beside the directory. Null if there is none. */
function earlierHolder(directory: string): number | null {
  const start = `${basename(directory)}.lock`;
  for (const name of readdirSync(dirname(directory))) {
    if (name !== start && !(name.startsWith(`${start}.`) && !name.endsWith('.new'))) continue;
    try {
      const { pid, started } = JSON.parse(readFileSync(join(dirname(directory), name), 'utf8')) as {
        readonly pid: number;
        readonly started: string;
      };
      if (startTime(pid) === started) return pid;
    } catch {
      // No such process, or no such file.
    }
  }
  return null;
}

/** Start time of a process in clock ticks since boot (Linux, proc(5)). @throws where there is no such process */
function startTime(pid: number): string | undefined {
  const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
  // The command may hold spaces and brackets; fields count from after its last bracket.
  return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19];
}
