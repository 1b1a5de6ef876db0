import {
  fault,
  PHOTO_TYPES,
  type PhotosKept,
  type PhotosRoom,
  type PhotoType,
  SCREEN_SIDE,
  ZaffetError,
} from '@zaffet/contract';
import { takenBack } from '@zaffet/workshop';
import { eq, inArray, sql } from 'drizzle-orm';
import { imageSize } from 'image-size';
import { createHash } from 'node:crypto';
import { type Database } from '../db/client';
import { photos, runEvents, shelfItems } from '../db/schema';

/** More than any camera's, and than a browser opens. */
const MOST_PIXELS = 50e6;
/** As the head of a picture names itself. */
const HEADS: Readonly<Record<string, PhotoType>> = {
  jpg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
};

interface Head {
  readonly type: PhotoType;
  readonly width: number;
  readonly height: number;
}

/** What the head of a picture says, whatever it was sent as. @throws ZaffetError where it is none, or too large */
function headOf(bytes: Uint8Array): Head {
  let told: ReturnType<typeof imageSize>;
  try {
    told = imageSize(bytes);
  } catch {
    throw new ZaffetError(fault('photo.invalid'));
  }
  const type = HEADS[told.type ?? ''];
  if (type === undefined || !(PHOTO_TYPES as readonly string[]).includes(type))
    throw new ZaffetError(fault('photo.invalid'));
  if (told.width * told.height > MOST_PIXELS) throw new ZaffetError(fault('picture.too-many-pixels'));
  return { type, width: told.width, height: told.height };
}

const ROOM = {
  count: sql<number>`count(*)::int`,
  bytes: sql<number>`coalesce(sum(${photos.size}::bigint + coalesce(length(${photos.screen}), 0)), 0)::float8`,
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

/** Takes photographs away for good which nothing shows any more. @returns what room they took */
export function clearUnshown(db: Database): Promise<PhotosRoom> {
  return db.transaction(async (tx) => {
    const room = await unshownRoom(tx);
    await tx.delete(photos).where(inArray(photos.hash, await unshown(tx)));
    return room;
  });
}

/**
 * Keeps a photograph under the hash of its bytes; one that is kept already stays as it is.
 * @throws ZaffetError `photo.other` where the bytes are not those, `photo.invalid`, `photo.full`
 */
export async function keepPhoto(db: Database, hash: string, bytes: Uint8Array, most: number): Promise<void> {
  const { type } = headOf(bytes);
  if (createHash('sha256').update(bytes).digest('hex') !== hash) throw new ZaffetError(fault('photo.other'));
  const kept = await photosKept(db, most);
  if (kept.bytes + bytes.length > most) throw new ZaffetError(fault('photo.full'));
  await db.insert(photos).values({ hash, type, size: bytes.length, bytes }).onConflictDoNothing();
}

/** Keeps what a photograph is shown as on a screen. @throws ZaffetError `photo.not-found` while itself is not here */
export async function keepScreen(db: Database, hash: string, bytes: Uint8Array): Promise<void> {
  const { type, width, height } = headOf(bytes);
  if (type !== 'image/jpeg' || Math.max(width, height) > SCREEN_SIDE)
    throw new ZaffetError(fault('photo.invalid'));
  const kept = await db
    .update(photos)
    .set({ screen: bytes })
    .where(eq(photos.hash, hash))
    .returning({ hash: photos.hash });
  if (kept.length === 0) throw new ZaffetError(fault('photo.not-found'));
}

/** A photograph's bytes with what they are. @throws ZaffetError `photo.not-found` */
export async function readPhoto(
  db: Database,
  hash: string,
  screen: boolean,
): Promise<{ readonly type: PhotoType; readonly bytes: Buffer }> {
  const bytes = screen ? sql`coalesce(${photos.screen}, ${photos.bytes})` : sql`${photos.bytes}`;
  const type = screen
    ? sql<PhotoType>`case when ${photos.screen} is null then ${photos.type} else 'image/jpeg' end`
    : photos.type;
  const [row] = await db
    .select({ type, text: sql<string>`encode(${bytes}, 'base64')` })
    .from(photos)
    .where(eq(photos.hash, hash));
  if (row === undefined) throw new ZaffetError(fault('photo.not-found'));
  return { type: row.type, bytes: Buffer.from(row.text, 'base64') };
}
