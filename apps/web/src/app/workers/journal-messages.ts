/** What the thread of a journal is asked: lines of one file, which only it holds open. */
export interface JournalWorker {
  /** @throws where the browser has no such file, or another holds it */
  open(folder: string, name: string): Promise<void>;
  /** Lines are whole and on the disk when it answers. @throws where there is no room, or the file is gone */
  append(lines: readonly string[]): Promise<void>;
  clear(): void;
}
