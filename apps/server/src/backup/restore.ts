import {
  BACKUP_KINDS,
  type BackupCalibration,
  type BackupItem,
  type BackupKind,
  type BackupPlan,
  type BackupRun,
  fault,
  filePlan,
  isInstant,
  LIMITS,
  plainText,
  type PlanFile,
  type RestoreCount,
  type RestoreReport,
  type RestoreWay,
  ZaffetError,
} from '@zaffet/contract';
import { parseCalibration } from '@zaffet/contract/calibration';
import { parseEvents } from '@zaffet/contract/runs';
import { parseMeasures, parsePlan, parseShelfItem, parseShop } from '@zaffet/contract/schemas';
import { and, desc, eq, gte, lte } from 'drizzle-orm';
import Papa from 'papaparse';
import { createHash } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { type Database } from '../db/client';
import { airReadings, calibrations, marks, photos, plans, runEvents, runs, shelfItems } from '../db/schema';
import { keepPhoto, keepScreen } from '../photos/queries';
import { takeEvents } from '../runs/queries';
import { AIR, type AirRow, CALIBRATIONS, SETTING_KEYS, type SettingKey, SETTINGS, SHELF } from './layout';
import { openBackup, type OpenBackup } from './open';

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
  readonly unreadable: string[] = [];

  count(kind: BackupKind, standing: Standing, name: string): void {
    const count = this.kinds[kind];
    count[standing] += 1;
    if (standing === 'other' && count.others.length < MOST_TOLD) count.others.push(name);
  }
  cannotRead(name: string): void {
    this.unreadable.push(name);
  }
  report(done: boolean): RestoreReport {
    const kinds: Readonly<Record<BackupKind, RestoreCount>> = this.kinds;
    return { kinds, unreadable: this.unreadable.slice(0, MOST_TOLD), done };
  }
}

const parsed = (bytes: Buffer): unknown => JSON.parse(bytes.toString('utf8'));
const dateOf = (told: unknown): Date => {
  if (typeof told !== 'string' || !isInstant(told)) throw new ZaffetError(fault('backup.unreadable'));
  return new Date(told);
};
const listOf = <T>(told: unknown): readonly T[] => {
  if (!Array.isArray(told)) throw new ZaffetError(fault('backup.unreadable'));
  return told as T[];
};

interface ReadPlan {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly savedAt: Date;
  readonly removedAt: Date | null;
  readonly plan: PlanFile;
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
const idOf = (name: string): string => /^\w+\/([^.]+)/.exec(name)![1]!;

function planIn(name: string, bytes: Buffer): ReadPlan {
  const told = parsed(bytes) as BackupPlan;
  const plan = filePlan(parsePlan(told.plan));
  if (told.id !== idOf(name) || !Number.isInteger(told.revision) || told.revision < 1)
    throw new ZaffetError(fault('backup.unreadable'));
  return {
    id: told.id,
    name: plan.name,
    revision: Math.min(told.revision, LIMITS.revision.max),
    savedAt: dateOf(told.savedAt),
    removedAt: told.removedAt === null ? null : dateOf(told.removedAt),
    plan,
  };
}

function runIn(name: string, bytes: Buffer): { readonly id: string; readonly events: BackupRun['events'] } {
  const told = parsed(bytes) as BackupRun;
  const kept = listOf<BackupRun['events'][number]>(told.events);
  if (told.id !== idOf(name) || kept.some(({ seq }, i) => seq !== i + 1))
    throw new ZaffetError(fault('backup.unreadable'));
  const events: BackupRun['events'][number][] = [];
  for (let at = 0; at < kept.length; at += LIMITS.events.max)
    events.push(
      ...parseEvents({ events: kept.slice(at, at + LIMITS.events.max).map(({ event }) => event) }).events.map(
        (event, i) => ({ seq: at + i + 1, event }),
      ),
    );
  return { id: told.id, events };
}

function airIn(bytes: Buffer): (typeof airReadings.$inferInsert)[] {
  const { data } = Papa.parse<AirRow>(bytes.toString('utf8'), { header: true, skipEmptyLines: true });
  return data.map(({ source, time, temperature_c: temperature, humidity }) => {
    const [temperatureC, share] = [Number(temperature), Number(humidity)];
    const { temperatureC: degrees, humidity: shares } = LIMITS;
    const plain =
      plainText(String(source ?? '')) !== '' &&
      temperatureC >= degrees.min - 1 &&
      temperatureC <= degrees.max + 1 &&
      share >= shares.min - 0.01 &&
      share <= shares.max + 0.01;
    if (!plain) throw new ZaffetError(fault('backup.unreadable'));
    return { source: plainText(source), at: dateOf(time), temperatureC, humidity: share };
  });
}

const SETTING_READERS: Readonly<Record<SettingKey, (value: unknown) => unknown>> = {
  measures: parseMeasures,
  shop: parseShop,
};

/** All that is short enough to be held at once. */
interface Short {
  readonly items: readonly BackupItem[];
  readonly learned: readonly BackupCalibration[];
  readonly settings: readonly { readonly key: SettingKey; readonly value: string }[];
  readonly air: readonly (typeof airReadings.$inferInsert)[];
}

async function shortOf(backup: OpenBackup): Promise<Short> {
  const items = listOf<BackupItem>(parsed(await backup.read(SHELF)));
  const learned = listOf<BackupCalibration>(parsed(await backup.read(CALIBRATIONS)));
  const settings = parsed(await backup.read(SETTINGS)) as Record<string, unknown>;
  return {
    items: items.map(({ putAt, item }) => ({
      putAt: dateOf(putAt).toISOString(),
      item: parseShelfItem(item),
    })),
    learned: learned.map(({ at, file }) => ({ at: dateOf(at).toISOString(), file: parseCalibration(file) })),
    settings: SETTING_KEYS.flatMap((key) =>
      Object.hasOwn(settings, key)
        ? [{ key, value: JSON.stringify(SETTING_READERS[key](settings[key])) }]
        : [],
    ),
    air: airIn(await backup.read(AIR)),
  };
}

const under = (backup: OpenBackup, folder: 'plans' | 'runs'): string[] =>
  backup.names.filter((name) => name.startsWith(`${folder}/`));
const photosIn = (backup: OpenBackup): string[] =>
  backup.names.filter((name) => /^photos\/[0-9a-f]+$/.test(name));

/** Brings one backup in, or looks what it would change. */
class Restore {
  private readonly tally = new Tally();

  constructor(
    private readonly db: Database,
    private readonly backup: OpenBackup,
    private readonly way: RestoreWay,
    private readonly apply: boolean,
  ) {}

  async run(counts: Readonly<Record<string, unknown>>, photosMost: number): Promise<RestoreReport> {
    const short = await this.shortChecked(counts);
    await this.photos(photosMost);
    // One after the other, each whole: nobody waits for all of it. What was cut off is brought in by the same again.
    for (const name of under(this.backup, 'plans')) await this.plan(name);
    for (const name of under(this.backup, 'runs')) await this.run1(name);
    for (const { item, putAt } of short.items)
      await this.db.transaction((tx) => this.shelfItem(tx, item, new Date(putAt)));
    await this.db.transaction((tx) => this.learned(tx, short.learned));
    await this.db.transaction((tx) => this.settings(tx, short.settings));
    await this.air(short.air);
    return this.tally.report(this.apply);
  }

  /** What is missing from a backup was cut out of it. @throws ZaffetError `backup.unreadable` */
  private async shortChecked(counts: Readonly<Record<string, unknown>>): Promise<Short> {
    const short = await shortOf(this.backup).catch(() => {
      throw new ZaffetError(fault('backup.unreadable'));
    });
    const are = {
      plans: under(this.backup, 'plans').length,
      runs: under(this.backup, 'runs').length,
      photos: photosIn(this.backup).length,
      shelf: short.items.length,
      calibrations: short.learned.length,
      air: short.air.length,
    };
    if (Object.entries(are).some(([kind, count]) => counts[kind] !== count))
      throw new ZaffetError(fault('backup.unreadable'));
    return short;
  }

  /** An entry as it is read; what is damaged is an error, what this Zaffet does not understand is left out. */
  private async understood<T>(name: string, read: (name: string, bytes: Buffer) => T): Promise<T | null> {
    const bytes = await this.backup.read(name);
    try {
      return read(name, bytes);
    } catch {
      this.tally.cannotRead(name);
      return null;
    }
  }

  private async photos(most: number): Promise<void> {
    for (const name of photosIn(this.backup)) {
      const hash = idOf(name);
      const [known] = await this.db.select({ hash: photos.hash }).from(photos).where(eq(photos.hash, hash));
      this.tally.count('photos', known === undefined ? 'fresh' : 'same', hash);
      // Read all the same: a backup that is damaged anywhere changes nothing.
      const bytes = await this.backup.read(name);
      if (!this.apply || known !== undefined) continue;
      await keepPhoto(this.db, hash, bytes, most);
      const screen = `${name}.screen.jpg`;
      if (this.backup.names.includes(screen)) await keepScreen(this.db, hash, await this.backup.read(screen));
    }
  }

  private async plan(name: string): Promise<void> {
    const told = await this.understood(name, planIn);
    if (told !== null) await this.db.transaction((tx) => this.planRead(tx, told));
  }

  private async planRead(db: Database, told: ReadPlan): Promise<void> {
    const { id, revision, savedAt, removedAt, plan } = told;
    const [here] = await db.select().from(plans).where(eq(plans.id, id));
    const standing: Standing =
      here === undefined
        ? 'fresh'
        : isDeepStrictEqual(here.plan, plan) && (here.removedAt === null) === (removedAt === null)
          ? 'same'
          : 'other';
    this.tally.count('plans', standing, told.name);
    if (!this.apply || standing === 'same') return;
    if (here === undefined)
      await db.insert(plans).values({ id, name: told.name, revision, savedAt, removedAt, plan });
    else if (this.way === 'theirs')
      await db
        .update(plans)
        .set({ name: told.name, revision: here.revision + 1, savedAt: new Date(), removedAt, plan })
        .where(eq(plans.id, id));
    else if (this.way === 'both') {
      const called = `${plainText(told.name, LIMITS.textLength.max - 20)}, from the backup`;
      const copy = { id: copyId(id, plan), name: called, plan: { ...plan, name: called } };
      await db.insert(plans).values(copy).onConflictDoNothing();
    }
  }

  /** A run only ever grows: what the backup knows of it and this shop does not is added, whatever the way. */
  private async run1(name: string): Promise<void> {
    const { db } = this;
    const told = await this.understood(name, runIn);
    if (told === null) return;
    const [here] = await db.select({ name: runs.name }).from(runs).where(eq(runs.id, told.id));
    const known = new Set(
      (await db.select({ id: runEvents.id }).from(runEvents).where(eq(runEvents.run, told.id))).map(
        ({ id }) => id,
      ),
    );
    const news = told.events.filter(({ event }) => !known.has(event.id)).map(({ event }) => event);
    const standing: Standing = here === undefined ? 'fresh' : news.length === 0 ? 'same' : 'other';
    this.tally.count('runs', standing, here?.name ?? name);
    if (!this.apply) return;
    for (let at = 0; at < news.length; at += LIMITS.events.max) {
      const { refused } = await takeEvents(db, told.id, news.slice(at, at + LIMITS.events.max));
      if (refused.length > 0) this.tally.cannotRead(`${name}: ${refused.length} events another run has`);
    }
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

  /** What the shop goes by stays what it is: only what it once went by is added, unless theirs is wanted. */
  private async learned(db: Database, learned: readonly BackupCalibration[]): Promise<void> {
    const here = await db.select().from(calibrations).orderBy(desc(calibrations.at), desc(calibrations.id));
    const newest = here[0]?.at.getTime() ?? Infinity;
    for (const { at, file } of learned) {
      const moment = new Date(at);
      const known = here.some(
        (one) => one.at.getTime() === moment.getTime() && isDeepStrictEqual(one.file, file),
      );
      const later = moment.getTime() > newest;
      this.tally.count('calibrations', known ? 'same' : later ? 'other' : 'fresh', at);
      if (this.apply && !known && (!later || this.way === 'theirs'))
        await db.insert(calibrations).values({ at: moment, file });
    }
  }

  private async settings(db: Database, settings: Short['settings']): Promise<void> {
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

  private async air(rows: Short['air']): Promise<void> {
    if (rows.length === 0) return;
    const { db } = this;
    const [first, last] = [rows[0]!.at, rows.at(-1)!.at];
    const here = await db
      .select({ source: airReadings.source, at: airReadings.at })
      .from(airReadings)
      .where(and(gte(airReadings.at, first), lte(airReadings.at, last)));
    const known = new Set(here.map(({ source, at }) => `${at.getTime()} ${source}`));
    const isNew = ({ source, at }: Short['air'][number]): boolean => !known.has(`${at.getTime()} ${source}`);
    for (const row of rows) this.tally.count('air', isNew(row) ? 'fresh' : 'same', row.source);
    const news = rows.filter(isNew);
    if (!this.apply) return;
    for (let at = 0; at < news.length; at += BATCH)
      await db
        .insert(airReadings)
        .values(news.slice(at, at + BATCH))
        .onConflictDoNothing();
  }
}

/**
 * Brings a backup in, or looks what it would change. What is here stays unless `way` says otherwise.
 * @param path - of the zip file
 * @param apply - false to look alone
 * @throws ZaffetError `backup.unreadable` or `backup.too-new`, with nothing changed; `photo.full`
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
    const look = (really: boolean): Promise<RestoreReport> =>
      new Restore(db, backup, way, really).run(head.counts, photosMost);
    // Read to its end before anything is changed.
    const found = await look(false);
    return apply ? await look(true) : found;
  } finally {
    backup.close();
  }
}
