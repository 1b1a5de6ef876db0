import { linkSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

/** Who holds a data directory: process and when it started, since process numbers are used again. */
interface Holder {
  readonly pid: number;
  readonly started: string;
}

/** Another Zaffet has this data directory open. */
export class DirectoryInUse extends Error {
  constructor(directory: string, pid: number) {
    super(
      `Data directory ${directory} is in use by process ${pid}. Stop that Zaffet first, or set ZAFFET_DATA to another directory.`,
    );
    this.name = 'DirectoryInUse';
  }
}

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

function alive(holder: Holder): boolean {
  try {
    process.kill(holder.pid, 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return false;
  }
  return startTime(holder.pid) === holder.started;
}

function read(path: string): Holder | null {
  try {
    return JSON.parse(readFileSync(path, 'utf8')) as Holder;
  } catch {
    return null;
  }
}

function exists(error: unknown): boolean {
  return (error as NodeJS.ErrnoException).code === 'EEXIST';
}

/**
 * Takes a data directory for this process, or throws `DirectoryInUse`. The embedded database does not refuse a second
 * process and would silently corrupt. A lock left by a process that died is taken over.
 *
 * The lock appears whole or not at all (a link to a written file). A take-over is guarded by a second lock, so that
 * of two starters who both find a dead holder only one removes it.
 * @returns releases the lock
 */
export function lockDirectory(directory: string): () => void {
  mkdirSync(dirname(directory), { recursive: true });
  const path = `${directory}.lock`;
  const own = `${path}.${process.pid}`;
  const me: Holder = { pid: process.pid, started: startTime(process.pid) };
  writeFileSync(own, JSON.stringify(me));
  try {
    take(path, own, directory);
  } finally {
    rmSync(own, { force: true });
  }
  return () => {
    if (read(path)?.pid === process.pid) rmSync(path, { force: true });
  };
}

function take(path: string, own: string, directory: string): void {
  try {
    linkSync(own, path);
    return;
  } catch (error) {
    if (!exists(error)) throw error;
  }
  const guard = `${path}.takeover`;
  try {
    linkSync(own, guard);
  } catch (error) {
    if (!exists(error)) throw error;
    const other = read(guard);
    if (other === null || alive(other)) throw new DirectoryInUse(directory, other?.pid ?? 0);
    // The process taking over died in the middle of it: its guard goes, the lock is looked at again.
    rmSync(guard, { force: true });
    take(path, own, directory);
    return;
  }
  try {
    const holder = read(path);
    if (holder !== null && alive(holder)) throw new DirectoryInUse(directory, holder.pid);
    const mine = `${own}.take`;
    linkSync(own, mine);
    renameSync(mine, path);
  } finally {
    rmSync(guard, { force: true });
  }
}
