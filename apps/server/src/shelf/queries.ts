import {
  fault,
  LIMITS,
  type MeasuresFile,
  type Shelf,
  type ShelfItem,
  USUAL_MEASURES,
  ZaffetError,
} from '@zaffet/contract';
import { asc, count, eq } from 'drizzle-orm';
import { type Database } from '../db/client';
import { marks, shelfItems } from '../db/schema';

const MEASURES = 'measures';

/** Everything on the shelf, in the order it was put there. */
export async function readShelf(db: Database): Promise<Shelf> {
  const rows = await db.select().from(shelfItems).orderBy(asc(shelfItems.putAt), asc(shelfItems.id));
  const [measures] = await db.select().from(marks).where(eq(marks.key, MEASURES));
  return {
    items: rows.map(({ item }) => item),
    measures: measures === undefined ? USUAL_MEASURES : (JSON.parse(measures.value) as MeasuresFile),
  };
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
