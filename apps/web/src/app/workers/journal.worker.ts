import { expose } from 'comlink';
import { type JournalWorker } from './journal-messages';

let folder: FileSystemDirectoryHandle | null = null;
let name = '';
let file: FileSystemSyncAccessHandle | null = null;
let end = 0;

const worker: JournalWorker = {
  async open(where, called) {
    const root = await navigator.storage.getDirectory();
    name = called;
    folder = await root.getDirectoryHandle(where, { create: true });
    file = await (await folder.getFileHandle(name, { create: true })).createSyncAccessHandle();
    end = file.getSize();
  },
  async append(lines) {
    const bytes = new TextEncoder().encode(lines.map((line) => `${line}\n`).join(''));
    if (file!.write(bytes, { at: end }) !== bytes.length) {
      file!.truncate(end);
      throw new Error('no room');
    }
    file!.flush();
    end += bytes.length;
    // A full disk may have taken the file away under the hand that writes to it.
    await folder!.getFileHandle(name);
  },
  clear() {
    end = 0;
    file!.truncate(end);
    file!.flush();
  },
};

expose(worker);
