import {
  BACKUP_FORMAT,
  BACKUP_VERSION,
  type BackupHead,
  fault,
  PHOTO_BYTES,
  ZaffetError,
} from '@zaffet/contract';
import { once } from 'node:events';
import { crc32 } from 'node:zlib';
import yauzl from 'yauzl';
import { HEAD, isKnown } from './layout';

/** Most entries, and most of one unpacked [bytes]: a small file may unpack to much. */
const MOST_ENTRIES = 500_000;
const MOST_TEXT = 64e6;

/** A zip that was looked through as far as its list of entries goes. */
export interface OpenBackup {
  readonly names: readonly string[];
  /** One entry, unpacked and checked. @throws ZaffetError `backup.unreadable` where it is damaged */
  read(name: string): Promise<Buffer>;
  close(): void;
}

const unreadable = (): ZaffetError => new ZaffetError(fault('backup.unreadable'));

const open = (path: string): Promise<yauzl.ZipFile> =>
  new Promise((resolve, reject) => {
    yauzl.open(
      path,
      { lazyEntries: true, autoClose: false, strictFileNames: true, validateEntrySizes: true },
      (error, zip) => (error || zip === undefined ? reject(error ?? new Error('no zip')) : resolve(zip)),
    );
  });

/** Every entry of a zip, none of them twice, all of names that Zaffet gives. */
async function entriesOf(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  if (zip.entryCount > MOST_ENTRIES) throw unreadable();
  const entries = new Map<string, yauzl.Entry>();
  await new Promise<void>((resolve, reject) => {
    zip.on('entry', (entry: yauzl.Entry) => {
      const { fileName: name, uncompressedSize: size } = entry;
      const most = name.startsWith('photos/') ? PHOTO_BYTES : MOST_TEXT;
      if (!isKnown(name) || entries.has(name) || size > most || entry.isEncrypted()) {
        reject(unreadable());
        return;
      }
      entries.set(name, entry);
      zip.readEntry();
    });
    zip.once('end', resolve);
    zip.once('error', reject);
    zip.readEntry();
  });
  return entries;
}

async function readEntry(zip: yauzl.ZipFile, entry: yauzl.Entry): Promise<Buffer> {
  const stream = await new Promise<NodeJS.ReadableStream>((resolve, reject) => {
    zip.openReadStream(entry, (error, found) =>
      error || found === undefined ? reject(error ?? new Error('no entry')) : resolve(found),
    );
  });
  const pieces: Buffer[] = [];
  stream.on('data', (piece: Buffer) => pieces.push(piece));
  await once(stream, 'end');
  const bytes = Buffer.concat(pieces);
  if (crc32(bytes) !== entry.crc32) throw unreadable();
  return bytes;
}

/**
 * Opens a backup's file: its names are known to be Zaffet's own, whatever is in them.
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
    const backup: OpenBackup = {
      names: [...entries.keys()],
      read: async (name) => {
        const entry = entries.get(name);
        if (entry === undefined) throw unreadable();
        try {
          return await readEntry(opened, entry);
        } catch {
          throw unreadable();
        }
      },
      close: () => opened.close(),
    };
    const head = JSON.parse((await backup.read(HEAD)).toString('utf8')) as Partial<BackupHead>;
    if (head.format !== BACKUP_FORMAT || typeof head.version !== 'number' || typeof head.counts !== 'object')
      throw unreadable();
    if (head.version > BACKUP_VERSION) throw new ZaffetError(fault('backup.too-new'));
    return { head: head as BackupHead, backup };
  } catch (error) {
    zip?.close();
    throw error instanceof ZaffetError ? error : unreadable();
  }
}
