import {
  BACKUP_FORMAT,
  BACKUP_VERSION,
  type BackupHead,
  fault,
  parseJson,
  ZaffetError,
} from '@zaffet/contract';
import { crc32 } from 'node:zlib';
import yauzl from 'yauzl';
import { HEAD, limitOf } from './layout';

const MOST_ENTRIES = 500_000;

/** A zip that was looked through as far as its list of entries goes. */
export interface OpenBackup {
  readonly names: readonly string[];
  /** One entry, unpacked piece by piece; that it is whole is known at its end. @throws ZaffetError `backup.unreadable` */
  pieces(name: string): AsyncGenerator<Buffer>;
  /** One entry, unpacked and checked. @throws ZaffetError `backup.unreadable` where it is damaged */
  read(name: string): Promise<Buffer>;
  close(): void;
}

/** Bytes that are not those that were written: nothing of such a backup is brought in. */
export class Damaged extends ZaffetError {
  constructor() {
    super(fault('backup.unreadable'));
  }
}

export const unreadable = (): ZaffetError => new ZaffetError(fault('backup.unreadable'));

const open = (path: string): Promise<yauzl.ZipFile> =>
  new Promise((resolve, reject) => {
    yauzl.open(
      path,
      { lazyEntries: true, autoClose: false, strictFileNames: true, validateEntrySizes: true },
      (error, zip) => (error || zip === undefined ? reject(error ?? new Error('no zip')) : resolve(zip)),
    );
  });

/** Every entry of a zip, none of them twice. */
async function entriesOf(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  if (zip.entryCount > MOST_ENTRIES) throw unreadable();
  const entries = new Map<string, yauzl.Entry>();
  await new Promise<void>((resolve, reject) => {
    zip.on('entry', (entry: yauzl.Entry) => {
      if (entries.has(entry.fileName) || entry.isEncrypted()) {
        reject(unreadable());
        return;
      }
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.once('end', resolve);
    zip.once('error', reject);
    zip.readEntry();
  });
  return entries;
}

async function* unpacked(zip: yauzl.ZipFile, entry: yauzl.Entry): AsyncGenerator<Buffer> {
  const stream = await new Promise<NodeJS.ReadableStream>((resolve, reject) => {
    zip.openReadStream(entry, (error, found) =>
      error || found === undefined ? reject(error ?? new Error('no entry')) : resolve(found),
    );
  });
  let sum = 0;
  for await (const piece of stream as AsyncIterable<Buffer>) {
    sum = crc32(piece, sum);
    yield piece;
  }
  if (sum !== entry.crc32) throw unreadable();
}

/** What a backup says of itself. @throws ZaffetError `backup.unreadable`, or `backup.too-new` */
async function headOf(backup: OpenBackup): Promise<BackupHead> {
  const head = parseJson(await backup.read(HEAD)) as Partial<BackupHead> | null;
  if (head?.format !== BACKUP_FORMAT || typeof head.version !== 'number' || typeof head.counts !== 'object')
    throw unreadable();
  if (head.version > BACKUP_VERSION) throw new ZaffetError(fault('backup.too-new'));
  return head as BackupHead;
}

/**
 * Opens a backup's file: its names are Zaffet's own, and none is larger than Zaffet writes, whatever is in them.
 * @throws ZaffetError `backup.unreadable`, or `backup.too-new`
 */
export async function openBackup(
  path: string,
): Promise<{ readonly head: BackupHead; readonly backup: OpenBackup }> {
  let zip: yauzl.ZipFile | null = null;
  try {
    const opened = await open(path);
    zip = opened;
    const entries = await entriesOf(opened);
    const isAllowed = (name: string): boolean => entries.get(name)!.uncompressedSize <= (limitOf(name) ?? -1);
    async function* pieces(name: string): AsyncGenerator<Buffer> {
      const entry = entries.get(name);
      if (entry === undefined || !isAllowed(name)) throw new Damaged();
      try {
        yield* unpacked(opened, entry);
      } catch {
        throw new Damaged();
      }
    }
    const backup: OpenBackup = {
      names: [...entries.keys()],
      pieces,
      read: async (name) => {
        const all: Buffer[] = [];
        for await (const piece of pieces(name)) all.push(piece);
        return Buffer.concat(all);
      },
      close: () => opened.close(),
    };
    const head = await headOf(backup);
    if (!backup.names.every(isAllowed)) throw unreadable();
    return { head, backup };
  } catch (error) {
    zip?.close();
    throw error instanceof ZaffetError && error.fault.code.startsWith('backup.') ? error : unreadable();
  }
}
