import {
  BACKUP_KINDS,
  type BackupCalibration,
  type BackupHead,
  type BackupItem,
  type BackupKind,
  fault,
  LIMITS,
  parseJson,
  plainText,
  type RestoreCount,
  type RestoreReport,
  type RestoreWay,
  ZaffetError,
} from '@zaffet/contract';
import { and, desc, eq, gte, lt, lte } from 'drizzle-orm';
import { DrizzleQueryError } from 'drizzle-orm/errors';
import { createHash } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { thinAgainFrom } from '../air/thin';
import { type Database } from '../db/client';
import { airReadings, calibrations, marks, photos, plans, runEvents, runs, shelfItems } from '../db/schema';
import { checkPhoto, checkScreen, keepPhoto, keepScreen, photosKept } from '../photos/queries';
import { read } from '../reading/reader';
import { takeEvents } from '../runs/queries';
import { CALIBRATIONS, isAir, SETTINGS, SHELF } from './layout';
import { Damaged, openBackup, type OpenBackup, unreadable } from './open';
import {
  airIn,
  type AirReading,
  calibrationsIn,
  eventsIn,
  idOf,
  itemsIn,
  type PlanInBackup,
  type Setting,
  settingsIn,
} from './read';

/** Names that are told of what is here otherwise. */
const MOST_TOLD = 40;
/** Rows of one statement. */
const BATCH = 1000;

type Standing = 'fresh' | 'same' | 'other';

/** What is found while a backup is looked through. */
class Tally {
  private readonly kinds = Object.fromEntries(
    BACKUP_KINDS.map((kind) => [kind, { fresh: 0, same: 0, other: 0, others: [] as string[] }]),
  ) as Record<BackupKind, { fresh: number; same: number; other: number; others: string[] }>;
  /** Entries that this Zaffet cannot read. */
  readonly unreadable = new Set<string>();

  count(kind: BackupKind, standing: Standing, name: string): void {
    const count = this.kinds[kind];
    count[standing] += 1;
    if (standing === 'other' && count.others.length < MOST_TOLD) count.others.push(name);
  }
  countOf(kind: BackupKind): number {
    const { fresh, same, other } = this.kinds[kind];
    return fresh + same + other;
  }
  report(done: boolean): RestoreReport {
    const kinds: Readonly<Record<BackupKind, RestoreCount>> = this.kinds;
    return { kinds, unreadable: [...this.unreadable].slice(0, MOST_TOLD), done };
  }
}

/** Of the copy that stands beside what is here: the same one each time, so that there is never a second. */
function copyId(id: string, content: unknown): string {
  const digits = createHash('sha256')
    .update(`${id} ${JSON.stringify(content)}`)
    .digest('hex');
  // RFC 9562's form for such ids (version 8).
  return [
    digits.slice(0, 8),
    digits.slice(8, 12),
    `8${digits.slice(13, 16)}`,
    `8${digits.slice(17, 20)}`,
    digits.slice(20, 32),
  ].join('-');
}

const under = (backup: OpenBackup, folder: 'plans' | 'runs'): string[] =>
  backup.names.filter((name) => name.startsWith(`${folder}/`));
const photosIn = (backup: OpenBackup): string[] =>
  backup.names.filter((name) => /^photos\/[0-9a-f]+$/.test(name));

/** Whether an error is no fault of the backup's: it has no room, Zaffet is busy, or the database failed. */
const isOurs = (error: unknown): boolean =>
  error instanceof DrizzleQueryError ||
  (error instanceof ZaffetError && ['photo.full', 'server.busy'].includes(error.fault.code));

/** Brings one backup in, or looks what it would change. */
class Restore {
  readonly tally = new Tally();

  /**
   * @param apply - false to look alone
   * @param leftOut - entries that a look found unreadable
   */
  constructor(
    private readonly db: Database,
    private readonly backup: OpenBackup,
    private readonly way: RestoreWay,
    private readonly apply: boolean,
    private readonly leftOut: ReadonlySet<string> = new Set(),
  ) {}

  async run(photosMost: number): Promise<void> {
    const { backup, db } = this;
    await this.photos(photosMost);
    // One after the other, each whole: nobody waits for all of it. What was cut off is brought in by the same again.
    for (const name of under(backup, 'plans')) await this.understood(name, () => this.plan(name));
    for (const name of under(backup, 'runs')) await this.understood(name, () => this.events(name));
    for await (const { item, putAt } of itemsIn(backup.pieces(SHELF)))
      await db.transaction((tx) => this.shelfItem(tx, item, new Date(putAt)));
    const newest = await this.newestLearned();
    for await (const learned of calibrationsIn(backup.pieces(CALIBRATIONS)))
      await db.transaction((tx) => this.learned(tx, learned, newest));
    const settings = settingsIn(parseJson(await backup.read(SETTINGS)));
    await db.transaction((tx) => this.settings(tx, settings));
    for (const name of backup.names.filter(isAir))
      for await (const rows of airIn(backup.pieces(name), BATCH)) await this.air(rows);
  }

  /** Carries out what reads an entry; what this Zaffet does not understand is left out. @throws where it is damaged */
  private async understood(name: string, work: () => Promise<void>): Promise<void> {
    if (this.leftOut.has(name)) {
      this.tally.unreadable.add(name);
      return;
    }
    try {
      await work();
    } catch (error) {
      if (this.apply || error instanceof Damaged || isOurs(error)) throw error;
      this.tally.unreadable.add(name);
    }
  }

  private async photos(most: number): Promise<void> {
    let room = most - (await photosKept(this.db, most)).bytes;
    for (const name of photosIn(this.backup)) {
      const hash = idOf(name);
      const [known] = await this.db.select({ hash: photos.hash }).from(photos).where(eq(photos.hash, hash));
      this.tally.count('photos', known === undefined ? 'fresh' : 'same', hash);
      if (this.apply && known !== undefined) continue;
      const bytes = await this.backup.read(name);
      const screenName = `${name}.screen.jpg`;
      const screen = this.backup.names.includes(screenName) ? await this.backup.read(screenName) : null;
      if (this.apply) {
        await keepPhoto(this.db, hash, bytes, most);
        if (screen !== null) await keepScreen(this.db, hash, screen);
        continue;
      }
      await checkPhoto(hash, bytes);
      if (screen !== null) checkScreen(screen);
      if (known === undefined) room -= bytes.length + (screen?.length ?? 0);
      if (room < 0) throw new ZaffetError(fault('photo.full'));
    }
  }

  private async plan(name: string): Promise<void> {
    const found = await read('backupPlan', await this.backup.read(name));
    if (found.id !== idOf(name)) throw unreadable();
    await this.db.transaction((tx) => this.planRead(tx, found));
  }

  private async planRead(db: Database, found: PlanInBackup): Promise<void> {
    const { id, revision, savedAt, removedAt, plan } = found;
    const [here] = await db.select().from(plans).where(eq(plans.id, id));
    const standing: Standing =
      here === undefined
        ? 'fresh'
        : isDeepStrictEqual(here.plan, plan) && (here.removedAt === null) === (removedAt === null)
          ? 'same'
          : 'other';
    this.tally.count('plans', standing, found.name);
    if (!this.apply || standing === 'same') return;
    if (here === undefined)
      await db.insert(plans).values({ id, name: found.name, revision, savedAt, removedAt, plan });
    else if (this.way === 'theirs')
      await db
        .update(plans)
        .set({ name: found.name, revision: here.revision + 1, savedAt: new Date(), removedAt, plan })
        .where(eq(plans.id, id));
    else if (this.way === 'both') {
      const called = `${plainText(found.name, LIMITS.textLength.max - 20)}, from the backup`;
      const copy = { id: copyId(id, plan), name: called, plan: { ...plan, name: called } };
      await db.insert(plans).values(copy).onConflictDoNothing();
    }
  }

  /** A run only ever grows: what the backup knows of it and this shop does not is added, whatever the way. */
  private async events(name: string): Promise<void> {
    const { db, apply, tally } = this;
    const id = idOf(name);
    const [here] = await db.select({ name: runs.name }).from(runs).where(eq(runs.id, id));
    const known = new Set(
      (await db.select({ id: runEvents.id }).from(runEvents).where(eq(runEvents.run, id))).map(
        (row) => row.id,
      ),
    );
    let [isFirst, count] = [true, 0];
    for await (const batch of eventsIn(this.backup.pieces(name), id)) {
      // Without its plan a run is none.
      if (isFirst && here === undefined && !batch.some(({ kind }) => kind === 'run-begun'))
        throw unreadable();
      isFirst = false;
      const news = batch.filter((event) => !known.has(event.id));
      count += news.length;
      if (!apply || news.length === 0) continue;
      const { refused } = await takeEvents(db, id, news);
      if (refused.length > 0) tally.unreadable.add(`${name}: ${refused.length} events another run has`);
    }
    if (isFirst) throw unreadable();
    tally.count('runs', here === undefined ? 'fresh' : count === 0 ? 'same' : 'other', here?.name ?? name);
  }

  private async shelfItem(db: Database, item: BackupItem['item'], putAt: Date): Promise<void> {
    const [here] = await db.select().from(shelfItems).where(eq(shelfItems.id, item.id));
    const standing: Standing =
      here === undefined ? 'fresh' : isDeepStrictEqual(here.item, item) ? 'same' : 'other';
    this.tally.count('shelf', standing, item.name);
    if (!this.apply || standing === 'same') return;
    if (here === undefined) await db.insert(shelfItems).values({ id: item.id, item, putAt });
    else if (this.way === 'theirs')
      await db.update(shelfItems).set({ item }).where(eq(shelfItems.id, item.id));
    else if (this.way === 'both') {
      const id = copyId(item.id, item);
      await db
        .insert(shelfItems)
        .values({ id, item: { ...item, id } })
        .onConflictDoNothing();
    }
  }

  private async newestLearned(): Promise<number> {
    const [row] = await this.db
      .select({ at: calibrations.at })
      .from(calibrations)
      .orderBy(desc(calibrations.at), desc(calibrations.id))
      .limit(1);
    return row?.at.getTime() ?? Infinity;
  }

  /**
   * What the shop goes by stays what it is: only what it once went by is added, unless theirs is wanted.
   * @param newest - moment of what the shop went by before
   */
  private async learned(db: Database, { at, file }: BackupCalibration, newest: number): Promise<void> {
    const moment = new Date(at);
    // A database counts microseconds, a backup milliseconds.
    const here = await db
      .select({ file: calibrations.file })
      .from(calibrations)
      .where(and(gte(calibrations.at, moment), lt(calibrations.at, new Date(moment.getTime() + 1))));
    const known = here.some((row) => isDeepStrictEqual(row.file, file));
    const later = moment.getTime() > newest;
    this.tally.count('calibrations', known ? 'same' : later ? 'other' : 'fresh', at);
    if (this.apply && !known && (!later || this.way === 'theirs'))
      await db.insert(calibrations).values({ at: moment, file });
  }

  private async settings(db: Database, settings: readonly Setting[]): Promise<void> {
    for (const { key, value } of settings) {
      const [here] = await db.select().from(marks).where(eq(marks.key, key));
      const standing: Standing =
        here === undefined
          ? 'fresh'
          : isDeepStrictEqual(JSON.parse(here.value), JSON.parse(value))
            ? 'same'
            : 'other';
      this.tally.count('settings', standing, key);
      if (this.apply && (standing === 'fresh' || (standing === 'other' && this.way === 'theirs')))
        await db
          .insert(marks)
          .values({ key, value })
          .onConflictDoUpdate({ target: marks.key, set: { value } });
    }
  }

  /** @param rows - in order of time */
  private async air(rows: readonly AirReading[]): Promise<void> {
    const { db } = this;
    const [first, last] = [rows[0]!.at, rows.at(-1)!.at];
    const here = await db
      .select({ source: airReadings.source, at: airReadings.at })
      .from(airReadings)
      .where(and(gte(airReadings.at, first), lte(airReadings.at, last)));
    const known = new Set(here.map(({ source, at }) => `${at.getTime()} ${source}`));
    const isNew = ({ source, at }: AirReading): boolean => !known.has(`${at.getTime()} ${source}`);
    for (const row of rows) this.tally.count('air', isNew(row) ? 'fresh' : 'same', row.source);
    const news = rows.filter(isNew);
    if (!this.apply || news.length === 0) return;
    await db.insert(airReadings).values(news).onConflictDoNothing();
    await thinAgainFrom(db, first);
  }
}

/** Looks a backup through to its end. @throws ZaffetError where anything in it is damaged, missing, or has no room */
async function looked(
  restore: Restore,
  { counts }: BackupHead,
  backup: OpenBackup,
  most: number,
): Promise<void> {
  const listed: Partial<Record<BackupKind, number>> = {
    plans: under(backup, 'plans').length,
    runs: under(backup, 'runs').length,
    photos: photosIn(backup).length,
  };
  const isMissing = (kind: string, count: number): boolean => counts[kind as BackupKind] !== count;
  // What is missing from a backup was cut out of it.
  if (Object.entries(listed).some(([kind, count]) => isMissing(kind, count))) throw unreadable();
  try {
    await restore.run(most);
  } catch (error) {
    throw isOurs(error) ? error : unreadable();
  }
  const streamed: readonly BackupKind[] = ['shelf', 'calibrations', 'air'];
  if (streamed.some((kind) => isMissing(kind, restore.tally.countOf(kind)))) throw unreadable();
}

/**
 * Brings a backup in, or looks what it would change. What is here stays unless `way` says otherwise.
 * @param path - of the zip file
 * @param apply - false to look alone
 * @throws ZaffetError `backup.unreadable`, `backup.too-new` or `photo.full`, with nothing changed
 */
export async function restore(
  db: Database,
  path: string,
  way: RestoreWay,
  apply: boolean,
  photosMost: number,
): Promise<RestoreReport> {
  const { head, backup } = await openBackup(path);
  try {
    // Read to its end before anything is changed.
    const look = new Restore(db, backup, way, false);
    await looked(look, head, backup, photosMost);
    if (!apply) return look.tally.report(false);
    const done = new Restore(db, backup, way, true, look.tally.unreadable);
    await done.run(photosMost);
    return done.tally.report(true);
  } finally {
    backup.close();
  }
}
