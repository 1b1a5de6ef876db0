import { filePlan, type LogQuery, type Plan } from '@zaffet/contract';
import { newPlan, SCHOOL_KEYS } from '@zaffet/workshop';
import { sql } from 'drizzle-orm';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { createWriteStream } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { pino } from 'pino';
import { backupOf } from '../../apps/server/src/backup/write';
import { type Database, openEmbedded } from '../../apps/server/src/db/client';
import { photos, runEvents, runs } from '../../apps/server/src/db/schema';
import { findInLog, LogReader } from '../../apps/server/src/log';
import { readPhoto } from '../../apps/server/src/photos/queries';
import { chance } from '../../packages/workshop/src/testing/random';
import { line, type PerfLine } from './report';

/*
 * The log of a shop of many years: searched, and taken out whole. Run by `children.ts` in a process of its own, whose memory
 * is measured.
 */

const ENTRIES = 5000;
const PHOTO_KB = 60;
const RUNS = 15;
const SEED = 20261129;

const WORDS =
  'crack glue hinge wax shellac tacky flaked museum corner brush thicker thinner damp stove rim edge'.split(
    ' ',
  );

/** A run of a few things that were said, with a photograph. */
function runOf(
  n: number,
  random: ReturnType<typeof chance>,
): { plan: Plan; events: object[]; hash: string; bytes: Buffer } {
  let id = 0;
  const school = SCHOOL_KEYS[n % SCHOOL_KEYS.length]!;
  const at = new Date(Date.UTC(2015, 0, 1) + n * 19 * 3_600_000).toISOString();
  const made = newPlan(school, `Piece ${n}`, n + 1, at, () => `r${n}-${++id}`);
  const hex = (): string =>
    `#${Math.floor(random() * 0xffffff)
      .toString(16)
      .padStart(6, '0')}`;
  const plan: Plan = {
    ...made,
    finishes: made.finishes.map((finish) => ({
      ...finish,
      steps: finish.steps.map((step) => ('colour' in step ? { ...step, colour: hex() } : step)),
    })),
  };
  const bytes = Buffer.alloc(PHOTO_KB * 1000, String(n));
  for (let i = 0; i < bytes.length; i += 4) bytes.writeUInt32LE(Math.floor(random() * 2 ** 32), i);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const text = Array.from({ length: 12 }, () => WORDS[Math.floor(random() * WORDS.length)]).join(' ');
  const partId = plan.piece.parts[0]!.id;
  const events = [
    { kind: 'run-begun', planId: null, plan: filePlan(plan) },
    { kind: 'note', partId: null, text: n === 17 ? `${text} barnacles` : text },
    { kind: 'photo', partId: null, stepId: null, when: 'dry', hash, text: '' },
    { kind: 'outcome', partId, spacingMm: 1 + random() * 12, openingMm: 0.5, chipped: random(), worn: null },
    { kind: 'verdict', when: 'at-once', verdict: 'good', text: 'the same again' },
    { kind: 'finished' },
  ].map((body, i) => ({ id: `r${n}-e${i}`, device: `d${n}`, n: i + 1, at, offsetMs: 0, ...body }));
  return { plan, events, hash, bytes };
}

async function fill(db: Database): Promise<void> {
  const random = chance(SEED);
  const BATCH = 100;
  for (let at = 0; at < ENTRIES; at += BATCH) {
    const all = Array.from({ length: BATCH }, (_, i) => runOf(at + i, random));
    await db.insert(runs).values(
      all.map(({ plan, events }, i) => ({
        id: `run-${at + i}`,
        name: plan.name,
        begunAt: new Date(plan.startsAt),
        events: events.length,
      })),
    );
    await db.insert(runEvents).values(
      all.flatMap(({ events }, i) =>
        events.map((event, k) => {
          const { id, device, n } = event as unknown as { id: string; device: string; n: number };
          return { run: `run-${at + i}`, seq: k + 1, id, device, n, event: event as never };
        }),
      ),
    );
    await db
      .insert(photos)
      .values(
        all.map(({ hash, bytes }) => ({ hash, type: 'image/jpeg' as const, size: bytes.length, bytes })),
      );
  }
}

const median = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1]!;

async function timed(work: () => Promise<unknown>): Promise<number> {
  const from = performance.now();
  await work();
  return performance.now() - from;
}

async function searchLines(db: Database): Promise<PerfLine[]> {
  const queries: Readonly<Record<string, LogQuery>> = {
    word: { words: 'barnacles' },
    'common-words': { words: 'shellac hinge' },
    slip: { words: 'barnalces' },
    colour: { colour: '#5d6b4b' },
    figures: { spacingFromMm: 5, spacingToMm: 6, school: 'wet-glue' },
    all: {},
  };
  const lines: PerfLine[] = [];
  for (const [name, query] of Object.entries(queries)) {
    const [own, plain]: [number[], number[]] = [[], []];
    let count = 0;
    for (let i = 0; i < RUNS; i++) {
      own.push(await timed(async () => (count = (await findInLog(db, query)).count)));
      plain.push(await timed(() => db.execute(sql`select entry from log_entries limit 60`)));
    }
    const note = `${count} of ${ENTRIES} found; reference: sixty entries without looking for anything`;
    lines.push(line(`log.search.${name}`, 'ms', median(own), median(plain), RUNS, note));
  }
  return lines;
}

async function backupLines(db: Database, folder: string): Promise<PerfLine[]> {
  const path = join(folder, 'backup.zip');
  const hashes = await db.select({ hash: photos.hash }).from(photos);
  const read = await timed(async () => {
    for (const { hash } of hashes) await readPhoto(db, hash, false);
  });
  globalThis.gc?.();
  const before = process.memoryUsage().rss;
  let peak = before;
  const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 20);
  const took = await timed(async () => pipeline(await backupOf(db), createWriteStream(path)));
  clearInterval(watch);
  const mb = statSync(path).size / 1e6;
  return [
    line(
      'backup.speed',
      'MB/s',
      (1000 * mb) / took,
      (1000 * mb) / read,
      1,
      `${Math.round(mb)} MB; reference: reading its photographs alone`,
    ),
    line(
      'backup.memory',
      'MB',
      (peak - before) / 1e6,
      mb,
      1,
      'grown while it is written; reference: its size',
    ),
  ];
}

const folder = mkdtempSync(join(tmpdir(), 'zaffet-perf-log-'));
const database = await openEmbedded(join(folder, 'data'), (sentence) => {
  throw new Error(sentence);
});
try {
  await fill(database.db);
  const reader = new LogReader(database.db, pino({ level: 'silent' }));
  const reading = await timed(async () => {
    while ((await reader.catchUp(600_000)) > 0);
  });
  const wanted = process.argv[2] ?? '';
  const lines = [
    line('log.read', 'ms', reading / ENTRIES, 1, 1, 'a run read into the log; reference: 1 ms'),
    ...(wanted.startsWith('backup') ? [] : await searchLines(database.db)),
    ...(wanted.startsWith('log') ? [] : await backupLines(database.db, folder)),
  ];
  process.stdout.write(`${JSON.stringify(lines)}\n`);
} finally {
  await database.close();
  rmSync(folder, { recursive: true, force: true });
}
