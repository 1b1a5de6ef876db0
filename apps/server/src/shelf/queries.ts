import {
  fault,
  type ItemChanges,
  LIMITS,
  type MeasuresFile,
  type Shelf,
  type ShelfItem,
  USUAL_MEASURES,
  ZaffetError,
} from '@zaffet/contract';
import { parseMeasures, parseShelfItem } from '@zaffet/contract/schemas';
import { asc, count, eq } from 'drizzle-orm';
import { type Database } from '../db/client';
import { marks, shelfItems } from '../db/schema';

const MEASURES = 'measures';

/** What a row holds, or null where it cannot be read: it stays where it is and takes nothing else down. */
function readable<T>(read: () => T): T | null {
  try {
    return read();
  } catch {
    return null;
  }
}

/** Everything on the shelf that can be read, in the order it was put there. */
export async function readShelf(db: Database): Promise<Shelf> {
  const rows = await db.select().from(shelfItems).orderBy(asc(shelfItems.putAt), asc(shelfItems.id));
  const [measures] = await db.select().from(marks).where(eq(marks.key, MEASURES));
  return {
    items: rows.flatMap(({ item }) => readable(() => parseShelfItem(item)) ?? []),
    measures: (measures && readable(() => parseMeasures(JSON.parse(measures.value)))) ?? USUAL_MEASURES,
  };
}

/** A tin whose price is another than it was remembers from when on. */
function priced(item: ShelfItem, before: ShelfItem | null): ShelfItem {
  if (item.kind !== 'tin' || item.pricePerL === null) return item;
  if (before?.kind === 'tin' && before.pricePerL === item.pricePerL) return item;
  const known = item.prices ?? [];
  // What the tin cost before anybody remembered prices is worth remembering as well.
  const first =
    known.length === 0 && before?.kind === 'tin' && before.pricePerL !== null
      ? [{ on: (before.openedAt ?? new Date().toISOString()).slice(0, 10), pricePerL: before.pricePerL }]
      : [];
  const now = { on: new Date().toISOString().slice(0, 10), pricePerL: item.pricePerL };
  const prices = [...first, ...known.filter(({ on }) => on !== now.on), now];
  return { ...item, prices: prices.slice(-LIMITS.tinPrices.max) };
}

/**
 * Puts something on the shelf, or in the place of what stands there under its id.
 * @throws ZaffetError `shelf.full`
 */
export async function putItem(db: Database, item: ShelfItem): Promise<ShelfItem> {
  const [known] = await db.select({ id: shelfItems.id }).from(shelfItems).where(eq(shelfItems.id, item.id));
  if (known === undefined) {
    const [all] = await db.select({ number: count() }).from(shelfItems);
    if ((all?.number ?? 0) >= LIMITS.shelfItems.max) throw new ZaffetError(fault('shelf.full'));
  }
  await db
    .insert(shelfItems)
    .values({ id: item.id, item })
    .onConflictDoUpdate({ target: shelfItems.id, set: { item } });
  return item;
}

/**
 * Changes the fields that are named and leaves the others as they are, so that two windows which change one thing do
 * not undo each other.
 * @returns the thing as it stands now
 * @throws ZaffetError `shelf.not-found`, or `shelf.invalid` where it cannot be so
 */
export function changeItem(db: Database, id: string, changes: ItemChanges): Promise<ShelfItem> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(shelfItems).where(eq(shelfItems.id, id)).for('update');
    if (row === undefined) throw new ZaffetError(fault('shelf.not-found'));
    const item = priced(parseShelfItem({ ...row.item, ...changes }), row.item);
    await tx.update(shelfItems).set({ item }).where(eq(shelfItems.id, id));
    return item;
  });
}

/** Takes something off the shelf; what is not there is gone already. */
export async function takeItem(db: Database, id: string): Promise<void> {
  await db.delete(shelfItems).where(eq(shelfItems.id, id));
}

export async function putMeasures(db: Database, measures: MeasuresFile): Promise<MeasuresFile> {
  const value = JSON.stringify(measures);
  await db
    .insert(marks)
    .values({ key: MEASURES, value })
    .onConflictDoUpdate({ target: marks.key, set: { value } });
  return measures;
}
