import { DrizzleQueryError } from 'drizzle-orm/errors';

/** PostgreSQL's own codes for a disk that is full, and for a database that is only read because of that. */
const DISK_FULL: readonly string[] = ['53100', '25006'];

const codeOf = (error: DrizzleQueryError): string =>
  String((error.cause as { code?: unknown } | undefined)?.code ?? '');

/** Whether a query failed because nothing can be written. */
export const isDiskFull = (error: unknown): boolean =>
  error instanceof DrizzleQueryError && DISK_FULL.includes(codeOf(error));

/** What is logged of an error: of a query never what was sent with it. */
export const logged = (error: unknown): object =>
  error instanceof DrizzleQueryError
    ? { code: codeOf(error), cause: error.cause?.message, query: error.query }
    : { err: error };
