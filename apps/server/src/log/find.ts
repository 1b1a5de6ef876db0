import {
  ALIKE_WITHIN,
  type LogAnswer,
  type LogEntry,
  type LogFound,
  type LogQuery,
  LOG_PAGE,
} from '@zaffet/contract';
import { differenceFrom } from '@zaffet/core/colour';
import { and, arrayContains, desc, eq, gte, inArray, lte, type SQL, sql } from 'drizzle-orm';
import { type Database } from '../db/client';
import { logEntries, logWords } from '../db/schema';

/** Words that are looked for; more say nothing more. */
const MOST_WORDS = 8;
/** Shorter words are too like others for a slip of the pen in them to be told. */
const LEAST_LETTERS = 4;
const DAY = 86_400_000;

const wordsOf = (told: string): string[] =>
  (told.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []).slice(0, MOST_WORDS);

/** A word of which somebody wrote the beginning, or another form. */
const written = (word: string): SQL =>
  sql`(to_tsquery('english', ${`${word}:*`}) || to_tsquery('simple', ${`${word}:*`}))`;

/** Of the letters of two words by threes so many are the same where one is the other with a slip of the pen. */
const SLIP = 0.3;
/** So many words are tried for one that nobody wrote. */
const TRIED = 4;

/** What is looked for: each word as it is written, or where nobody wrote it those that are most like it. */
async function meant(db: Database, words: readonly string[]): Promise<SQL | null> {
  const all: SQL[] = [];
  for (const word of words) {
    const [known] = await db
      .select({ run: logEntries.run })
      .from(logEntries)
      .where(sql`${logEntries.search} @@ ${written(word)}`)
      .limit(1);
    if (known !== undefined) {
      all.push(written(word));
      continue;
    }
    if (word.length < LEAST_LETTERS) return null;
    const near = await db
      .select({ word: logWords.word })
      .from(logWords)
      .where(sql`${logWords.word} % ${word} and similarity(${logWords.word}, ${word}) >= ${SLIP}`)
      .orderBy(sql`similarity(${logWords.word}, ${word}) desc`, logWords.word)
      .limit(TRIED);
    if (near.length === 0) return null;
    all.push(
      sql`(${sql.join(
        near.map((one) => written(one.word)),
        sql` || `,
      )})`,
    );
  }
  return all.length === 0 ? null : sql`(${sql.join(all, sql` && `)})`;
}

const dayOf = (day: string): Date => new Date(`${day}T00:00:00.000Z`);

function conditions(query: LogQuery, said: SQL | null): SQL | undefined {
  const { school, medium, verdict, from, until } = query;
  const atLeast = (column: typeof logEntries.chipped, value: number | undefined): SQL | undefined =>
    value === undefined ? undefined : gte(column, value);
  const atMost = (column: typeof logEntries.chipped, value: number | undefined): SQL | undefined =>
    value === undefined ? undefined : lte(column, value);
  const { spacingMm, chipped, humidity } = logEntries as unknown as Record<string, typeof logEntries.chipped>;
  return and(
    said === null ? undefined : sql`${logEntries.search} @@ ${said}`,
    school === undefined ? undefined : arrayContains(logEntries.schools, [school]),
    medium === undefined ? undefined : arrayContains(logEntries.media, [medium]),
    verdict === undefined ? undefined : eq(logEntries.verdict, verdict),
    from === undefined ? undefined : gte(logEntries.doneAt, dayOf(from)),
    until === undefined ? undefined : lte(logEntries.doneAt, new Date(dayOf(until).getTime() + DAY)),
    atLeast(spacingMm!, query.spacingFromMm),
    atMost(spacingMm!, query.spacingToMm),
    atLeast(chipped!, query.chippedFrom),
    atMost(chipped!, query.chippedTo),
    atLeast(humidity!, query.humidityFrom),
    atMost(humidity!, query.humidityTo),
  );
}

/** All of the log, the newest first. */
export async function allEntries(db: Database): Promise<LogEntry[]> {
  const rows = await db
    .select({ entry: logEntries.entry })
    .from(logEntries)
    .orderBy(desc(logEntries.doneAt), logEntries.run);
  return rows.map(({ entry }) => entry);
}

/** Entries of the log that are meant: those first that fit best, then the newest. */
export async function findInLog(db: Database, query: LogQuery): Promise<Omit<LogAnswer, 'behind'>> {
  const words = wordsOf(query.words ?? '');
  const skip = query.skip ?? 0;
  const said = words.length === 0 ? null : await meant(db, words);
  if (words.length > 0 && said === null) return { found: [], count: 0 };
  const where = conditions(query, said);
  const order = [
    ...(said === null ? [] : [sql`ts_rank(${logEntries.search}, ${said}) desc`]),
    desc(logEntries.doneAt),
    logEntries.run,
  ];
  const page = await (query.colour === undefined
    ? byOrder()
    : byColour(query.colour, query.within ?? ALIKE_WITHIN));
  return { found: await told(page.rows), count: page.count };

  async function byOrder(): Promise<Page> {
    const rows = await db
      .select({ run: logEntries.run, count: sql<number>`(count(*) over ())::int` })
      .from(logEntries)
      .where(where)
      .orderBy(...order)
      .limit(LOG_PAGE)
      .offset(skip);
    return { rows: rows.map(({ run }) => ({ run, off: null })), count: rows[0]?.count ?? 0 };
  }
  async function byColour(hex: string, within: number): Promise<Page> {
    const rows = await db
      .select({ run: logEntries.run, colours: sql<string>`array_to_string(${logEntries.colours}, ',')` })
      .from(logEntries)
      .where(where);
    const off = differenceFrom(hex);
    const near = rows
      .map(({ run, colours }) => ({
        run,
        // Where nothing was painted nothing is like it.
        off: Math.min(...colours.split(',').map((one) => (one === '' ? Infinity : off(one)))),
      }))
      .filter(({ off }) => off <= within)
      .sort((a, b) => a.off - b.off);
    return { rows: near.slice(skip, skip + LOG_PAGE), count: near.length };
  }
  async function told(rows: Page['rows']): Promise<LogFound[]> {
    if (rows.length === 0) return [];
    const all = words.join(' ');
    const entries = await db
      .select({
        run: logEntries.run,
        entry: logEntries.entry,
        line:
          words.length === 0
            ? sql<string>`''`
            : sql<string>`(select line from unnest(string_to_array(${logEntries.words}, chr(10))) line order by word_similarity(${all}, line) desc, length(line) limit 1)`,
      })
      .from(logEntries)
      .where(
        inArray(
          logEntries.run,
          rows.map(({ run }) => run),
        ),
      );
    const by = new Map(entries.map((one) => [one.run, one]));
    return rows.flatMap(({ run, off }) => {
      const one = by.get(run);
      return one === undefined ? [] : [{ ...one.entry, where: one.line, off }];
    });
  }
}

interface Page {
  readonly rows: readonly { readonly run: string; readonly off: number | null }[];
  readonly count: number;
}
