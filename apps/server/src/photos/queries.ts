import {
  fault,
  type PhotosKept,
  type PhotosRoom,
  type PhotoType,
  SCREEN_SIDE,
  ZaffetError,
} from '@zaffet/contract';
import { MOST_PIXELS, pictureHead } from '@zaffet/contract/photo';
import { takenBack } from '@zaffet/workshop';
import { and, eq, inArray, lt, notExists, sql } from 'drizzle-orm';
import { type Database } from '../db/client';
import { photoPieces, photos, runEvents, shelfItems } from '../db/schema';

/** Bytes of a piece: the embedded database takes some 50 ms for one. */
const PIECE = 524_288;
/** Pieces of a photograph that never came to its end are of no use after [ms]. */
const STRAY_AFTER = 86_400_000;

const screenSize = sql<number | null>`coalesce(${photos.screenSize}, length(${photos.screen}))`;
const ROOM = {
  count: sql<number>`count(*)::int`,
  bytes: sql<number>`coalesce(sum(${photos.size}::bigint + coalesce(${screenSize}, 0)), 0)::float8`,
};

/** How much photographs take. @param most - [bytes] */
export async function photosKept(db: Database, most: number): Promise<PhotosKept> {
  const [row] = await db.select(ROOM).from(photos);
  return { ...row!, most };
}

/**
 * Photographs that were taken back wherever they were told of, and that are on no tin: by their hashes. One that nobody
 * told of yet is none of them, for its run may be on its way.
 */
async function unshown(db: Pick<Database, 'select'>): Promise<string[]> {
  const told = await db
    .select({ run: runEvents.run, event: runEvents.event })
    .from(runEvents)
    .where(sql`${runEvents.event}->>'kind' in ('photo', 'taken-back')`);
  const gone = takenBack(told.map(({ event }) => event));
  const shown = new Set<string>();
  const hidden = new Set<string>();
  for (const { event } of told)
    if (event.kind === 'photo') (gone.has(event.id) ? hidden : shown).add(event.hash);
  for (const { item } of await db.select({ item: shelfItems.item }).from(shelfItems))
    if (item.kind === 'tin' && item.photo) shown.add(item.photo);
  return [...hidden].filter((hash) => !shown.has(hash));
}

/** The room that photographs take which nothing shows any more. */
export async function unshownRoom(db: Pick<Database, 'select'>): Promise<PhotosRoom> {
  const [row] = await db
    .select(ROOM)
    .from(photos)
    .where(inArray(photos.hash, await unshown(db)));
  return row!;
}

/** Deletes photographs that nothing shows any more. @returns the room they took */
export function clearUnshown(db: Database): Promise<PhotosRoom> {
  return db.transaction(async (tx) => {
    const room = await unshownRoom(tx);
    const gone = await unshown(tx);
    await tx.delete(photos).where(inArray(photos.hash, gone));
    await tx.delete(photoPieces).where(inArray(photoPieces.hash, gone));
    return room;
  });
}

/** Deletes pieces of photographs that never came to their end. */
export async function clearStrayPieces(db: Database): Promise<void> {
  const whole = db.select({ hash: photos.hash }).from(photos).where(eq(photos.hash, photoPieces.hash));
  await db
    .delete(photoPieces)
    .where(and(notExists(whole), lt(photoPieces.putAt, new Date(Date.now() - STRAY_AFTER))));
}

const piecesOf = (size: number): number => Math.ceil(size / PIECE);

async function putPieces(db: Database, hash: string, screen: boolean, bytes: Uint8Array): Promise<void> {
  for (let n = 0; n < piecesOf(bytes.length); n++)
    await db
      .insert(photoPieces)
      .values({ hash, screen, n, bytes: bytes.subarray(n * PIECE, (n + 1) * PIECE) })
      .onConflictDoNothing();
}

interface Head {
  readonly type: PhotoType;
  readonly width: number;
  readonly height: number;
}

/** @throws ZaffetError `photo.invalid` if it is no picture that is kept, `picture.too-many-pixels` */
function headOf(bytes: Uint8Array): Head {
  const head = pictureHead(bytes);
  if (head?.type == null) throw new ZaffetError(fault('photo.invalid'));
  const { type, width, height } = head;
  if (width * height > MOST_PIXELS) throw new ZaffetError(fault('picture.too-many-pixels'));
  return { type, width, height };
}

/** By a thread of the pool. */
async function sha256(bytes: Uint8Array): Promise<string> {
  return Buffer.from(await crypto.subtle.digest('SHA-256', bytes as Uint8Array<ArrayBuffer>)).toString('hex');
}

/**
 * Checks a photograph before anything of it is kept.
 * @throws ZaffetError `photo.other` where the bytes are not those, `photo.invalid`, `picture.too-many-pixels`
 */
export async function checkPhoto(hash: string, bytes: Uint8Array): Promise<Head> {
  const head = headOf(bytes);
  if ((await sha256(bytes)) !== hash) throw new ZaffetError(fault('photo.other'));
  return head;
}

/** Checks a photograph for the screen. @throws ZaffetError `photo.invalid` */
export function checkScreen(bytes: Uint8Array): void {
  const { type, width, height } = headOf(bytes);
  if (type !== 'image/jpeg' || Math.max(width, height) > SCREEN_SIDE)
    throw new ZaffetError(fault('photo.invalid'));
}

/**
 * Keeps a photograph under the hash of its bytes, piece by piece, its row last; one that is kept already stays as it is.
 * @throws ZaffetError as `checkPhoto`, and `photo.full`
 */
export async function keepPhoto(db: Database, hash: string, bytes: Uint8Array, most: number): Promise<void> {
  const { type } = await checkPhoto(hash, bytes);
  const [known] = await db.select({ hash: photos.hash }).from(photos).where(eq(photos.hash, hash));
  if (known !== undefined) return;
  const kept = await photosKept(db, most);
  if (kept.bytes + bytes.length > most) throw new ZaffetError(fault('photo.full'));
  await putPieces(db, hash, false, bytes);
  await db.insert(photos).values({ hash, type, size: bytes.length }).onConflictDoNothing();
}

/** Keeps what a photograph is shown as on a screen. @throws ZaffetError `photo.not-found` while itself is not here */
export async function keepScreen(db: Database, hash: string, bytes: Uint8Array): Promise<void> {
  checkScreen(bytes);
  await db.transaction(async (tx) => {
    const rows = await tx
      .update(photos)
      .set({ screen: null, screenSize: bytes.length })
      .where(eq(photos.hash, hash))
      .returning({ hash: photos.hash });
    if (rows.length === 0) throw new ZaffetError(fault('photo.not-found'));
    await tx.delete(photoPieces).where(and(eq(photoPieces.hash, hash), eq(photoPieces.screen, true)));
    await putPieces(tx, hash, true, bytes);
  });
}

/** A photograph that is there. */
export interface KeptPhoto {
  readonly type: PhotoType;
  /** [bytes] */
  readonly size: number;
  /** Its bytes, as they are asked for. */
  pieces(): AsyncGenerator<Buffer>;
}

/** A photograph, or the one for the screen where there is one. @throws ZaffetError `photo.not-found` */
export async function readPhoto(db: Database, hash: string, screen: boolean): Promise<KeptPhoto> {
  const [row] = await db
    .select({ type: photos.type, size: photos.size, screenSize })
    .from(photos)
    .where(eq(photos.hash, hash));
  if (row === undefined) throw new ZaffetError(fault('photo.not-found'));
  const small = screen && row.screenSize !== null;
  const size = small ? row.screenSize! : row.size;
  return {
    type: small ? 'image/jpeg' : row.type,
    size,
    pieces: async function* () {
      for (let n = 0; n < piecesOf(size); n++) yield await readPiece(db, hash, small, n);
    },
  };
}

async function readPiece(db: Database, hash: string, screen: boolean, n: number): Promise<Buffer> {
  const piece = db
    .select({ bytes: photoPieces.bytes })
    .from(photoPieces)
    .where(and(eq(photoPieces.hash, hash), eq(photoPieces.screen, screen), eq(photoPieces.n, n)));
  const whole = screen ? photos.screen : photos.bytes;
  const [row] = await db
    .select({
      text: sql<
        string | null
      >`encode(coalesce(${piece}, substring(${whole} from ${n * PIECE + 1}::int for ${PIECE}::int)), 'base64')`,
    })
    .from(photos)
    .where(eq(photos.hash, hash));
  if (row?.text == null) throw new ZaffetError(fault('photo.not-found'));
  return Buffer.from(row.text, 'base64');
}
