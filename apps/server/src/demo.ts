import { LIMITS } from '@zaffet/contract';
import { parseEvents } from '@zaffet/contract/runs';
import { parseShelf } from '@zaffet/contract/schemas';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Database } from './db/client';
import { marks } from './db/schema';
import { keepPhoto } from './photos/queries';
import { createPlan } from './plans/queries';
import { carryOut } from './reading/tasks';
import { takeEvents } from './runs/queries';
import { putItem, putMeasures } from './shelf/queries';

const LOADED = 'demo-loaded';

const jsonIn = (directory: string): string[] =>
  readdirSync(directory)
    .filter((name) => name.endsWith('.json'))
    .sort();

/**
 * Loads the demo plans, shelf, runs and photographs into a new database, once and whole or not at all.
 * @returns how many plans were loaded
 */
export function loadDemo(db: Database, directory: string): Promise<number> {
  return db.transaction(async (tx) => {
    const claimed = await tx
      .insert(marks)
      .values({ key: LOADED, value: new Date().toISOString() })
      .onConflictDoNothing()
      .returning();
    if (claimed.length === 0) return 0;
    const files = jsonIn(directory).reverse();
    for (const file of files) await createPlan(tx, carryOut('plan', readFileSync(join(directory, file))));
    const shelf = parseShelf(JSON.parse(readFileSync(join(directory, '..', 'shelf.json'), 'utf8')));
    for (const item of shelf.items) await putItem(tx, item);
    await putMeasures(tx, shelf.measures);
    const photos = join(directory, '..', 'photos');
    for (const file of readdirSync(photos))
      await keepPhoto(tx, file.replace(/\.\w+$/, ''), readFileSync(join(photos, file)), Infinity);
    const runs = join(directory, '..', 'runs');
    for (const file of jsonIn(runs)) {
      const { events } = JSON.parse(readFileSync(join(runs, file), 'utf8')) as { events: unknown[] };
      for (let at = 0; at < events.length; at += LIMITS.events.max)
        await takeEvents(
          tx,
          file.replace('.json', ''),
          parseEvents({ events: events.slice(at, at + LIMITS.events.max) }).events,
        );
    }
    return files.length;
  });
}
