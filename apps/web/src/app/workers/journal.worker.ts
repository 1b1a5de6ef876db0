import { expose } from 'comlink';
import { type JournalWorker } from './journal-messages';

let file: FileSystemSyncAccessHandle | null = null;
let end = 0;

const worker: JournalWorker = {
  async open(folder, name) {
    const root = await navigator.storage.getDirectory();
    const there = await root.getDirectoryHandle(folder, { create: true });
    file = await (await there.getFileHandle(name, { create: true })).createSyncAccessHandle();
    end = file.getSize();
  },
  append(lines) {
    const bytes = new TextEncoder().encode(lines.map((line) => `${line}\n`).join(''));
    if (file!.write(bytes, { at: end }) !== bytes.length) {
      file!.truncate(end);
      throw new Error('no room');
    }
    file!.flush();
    end += bytes.length;
  },
  clear() {
    end = 0;
    file!.truncate(end);
    file!.flush();
  },
};

expose(worker);
