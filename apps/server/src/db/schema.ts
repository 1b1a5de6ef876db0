import { type Plan } from '@zaffet/contract';
import { integer, jsonb, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core';

/** Plans, each with the revision its next save must name. A removed plan keeps its row so that it can come back. */
export const plans = pgTable('plans', {
  id: uuid().primaryKey().defaultRandom(),
  name: text().notNull(),
  revision: integer().notNull().default(1),
  plan: jsonb().$type<Plan>().notNull(),
  savedAt: timestamp('saved_at', { withTimezone: true, mode: 'date' }).notNull().defaultNow(),
  removedAt: timestamp('removed_at', { withTimezone: true, mode: 'date' }),
});

/** Facts about this database itself, such as that the demo was loaded. */
export const marks = pgTable('marks', { key: text().primaryKey(), value: text().notNull() });
