import { LIMITS } from '@zaffet/contract';
import { parseEvents } from '@zaffet/contract/runs';
import { parseShelf } from '@zaffet/contract/schemas';
import { onClock, onWall } from '@zaffet/workshop';
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

/** Where the demo was written. */
const WRITTEN_IN = 'Europe/Lisbon';
const INSTANT = /^\d{4}-\d\d-\d\dT[\d:.]+Z$/;

/** A file of the demo as if it had been written in another time zone: every clock in it reads the same there. */
export function intoZone(json: unknown, zone: string): unknown {
  if (typeof json === 'string') {
    if (json === WRITTEN_IN) return zone;
    if (!INSTANT.test(json)) return json;
    const wall = onWall(Date.parse(json), WRITTEN_IN).toISOString().slice(0, 19);
    return new Date(onClock(wall, zone)).toISOString();
  }
  if (Array.isArray(json)) return json.map((entry) => intoZone(entry, zone));
  if (typeof json !== 'object' || json === null) return json;
  return Object.fromEntries(Object.entries(json).map(([key, value]) => [key, intoZone(value, zone)]));
}

/**
 * Loads the demo plans, shelf, runs and photographs into a new database, once and whole or not at all.
 * @param zone - time zone that the demo's workshop is in; this machine's when left out
 * @returns how many plans were loaded
 */
export function loadDemo(
  db: Database,
  directory: string,
  zone = Intl.DateTimeFormat().resolvedOptions().timeZone,
): Promise<number> {
  const read = (file: string): unknown => intoZone(JSON.parse(readFileSync(file, 'utf8')), zone);
  return db.transaction(async (tx) => {
    const claimed = await tx
      .insert(marks)
      .values({ key: LOADED, value: new Date().toISOString() })
      .onConflictDoNothing()
      .returning();
    if (claimed.length === 0) return 0;
    const files = jsonIn(directory).reverse();
    for (const file of files) {
      const plan = JSON.stringify(read(join(directory, file)));
      await createPlan(tx, carryOut('plan', Buffer.from(plan)));
    }
    const shelf = parseShelf(read(join(directory, '..', 'shelf.json')));
    for (const item of shelf.items) await putItem(tx, item);
    await putMeasures(tx, shelf.measures);
    const photos = join(directory, '..', 'photos');
    for (const file of readdirSync(photos))
      await keepPhoto(tx, file.replace(/\.\w+$/, ''), readFileSync(join(photos, file)), Infinity);
    const runs = join(directory, '..', 'runs');
    for (const file of jsonIn(runs)) {
      const { events } = read(join(runs, file)) as { events: unknown[] };
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
