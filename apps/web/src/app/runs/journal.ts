import { type JournalWorker } from '../workers/journal-messages';
import { Thread } from '../workers/thread';

/** Where the files lie in the origin's own file system. */
const FOLDER = 'bench';
const lockOf = (name: string): string => `zaffet-journal-${name}`;

/** Browsers have such files, and locks, only where the connection is trusted. */
const has = (): boolean =>
  isSecureContext && 'locks' in navigator && typeof navigator.storage?.getDirectory === 'function';

/**
 * A file of lines that only grows, beside the browser's database: on a full disk it refuses a line and keeps what it has,
 * where the database was seen to lose everything. One file a tab; those of tabs that are gone are read by the next.
 */
export class Journal {
  private constructor(
    private readonly thread: Thread<JournalWorker>,
    private readonly release: () => void,
  ) {}

  /** @param name - of this tab @returns null where the browser has no such files */
  static async open(name: string): Promise<Journal | null> {
    if (!has()) return null;
    let release: () => void = () => undefined;
    const held = new Promise<void>((resolve) => (release = resolve));
    const thread = new Thread<JournalWorker>(
      () => new Worker(new URL('../workers/journal.worker', import.meta.url), { type: 'module' }),
    );
    // Held as long as the tab lives, however it ends: so others know whose file is left.
    await new Promise<void>((taken) => {
      void navigator.locks.request(lockOf(name), () => {
        taken();
        return held;
      });
    });
    try {
      await thread.ask((remote) => remote.open(FOLDER, name));
      return new Journal(thread, release);
    } catch {
      thread.stop();
      release();
      return null;
    }
  }

  /** @returns whether the disk has all of them */
  append(entries: readonly unknown[]): Promise<boolean> {
    const lines = entries.map((entry) => JSON.stringify(entry));
    return this.thread
      .ask((remote) => remote.append(lines))
      .then(
        () => true,
        () => false,
      );
  }

  /** All that is in it is safe elsewhere. */
  async clear(): Promise<void> {
    await this.thread.ask((remote) => remote.clear()).catch(() => undefined);
  }

  /** As the tab's end does. */
  close(): void {
    this.thread.stop();
    this.release();
  }
}

/** What a tab that is gone has left. */
export interface LeftJournal {
  readonly entries: readonly unknown[];
  /** Takes its file away, once they are safe elsewhere. */
  readonly drop: () => Promise<void>;
}

/** Entries of tabs that are gone, as far as they were written whole. */
export async function leftJournals(): Promise<LeftJournal[]> {
  if (!has()) return [];
  const root = await navigator.storage.getDirectory();
  const folder = await root.getDirectoryHandle(FOLDER, { create: true });
  const left: LeftJournal[] = [];
  for await (const [name, handle] of folder as unknown as AsyncIterable<[string, FileSystemFileHandle]>) {
    const gone = await navigator.locks.request(lockOf(name), { ifAvailable: true }, (lock) => lock !== null);
    if (!gone) continue;
    const text = await (await handle.getFile()).text();
    const entries = text.split('\n').flatMap((line): unknown[] => {
      try {
        return line === '' ? [] : [JSON.parse(line) as unknown];
      } catch {
        // A line that was cut off was never told as kept.
        return [];
      }
    });
    left.push({ entries, drop: () => folder.removeEntry(name).catch(() => undefined) });
  }
  return left;
}
