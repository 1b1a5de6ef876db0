import { API, type Shop, USUAL_SHOP } from '@zaffet/contract';
import { parseShop } from '@zaffet/contract/schemas';
import { eq } from 'drizzle-orm';
import { Router } from 'express';
import { type Database } from '../db/client';
import { marks } from '../db/schema';

const SHOP = 'shop';

/** The shop as it was last told; one that cannot be read stays where it is, and the usual one is told. */
export async function readShop(db: Database): Promise<Shop> {
  const [row] = await db.select().from(marks).where(eq(marks.key, SHOP));
  if (row === undefined) return USUAL_SHOP;
  try {
    return parseShop(JSON.parse(row.value));
  } catch {
    return USUAL_SHOP;
  }
}

/** The shop: its week, its people, its air; one for all plans. */
export function shopRoutes(db: Database): Router {
  const router = Router();
  router.get(API.shop, async (_request, response) => {
    response.json(await readShop(db));
  });
  router.put(API.shop, async (request, response) => {
    const shop = parseShop(request.body);
    const value = JSON.stringify(shop);
    await db
      .insert(marks)
      .values({ key: SHOP, value })
      .onConflictDoUpdate({ target: marks.key, set: { value } });
    response.json(shop);
  });
  return router;
}
