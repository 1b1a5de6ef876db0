import { type ErrorCode, ERRORS, fault, ZaffetError } from '@zaffet/contract';
import { DrizzleQueryError } from 'drizzle-orm/errors';
import { type ErrorRequestHandler } from 'express';
import { type Logger } from 'pino';
import { isDiskFull, logged } from '../db/failures';
import { readNoMore } from '../door/stranger';
import { readToEnd } from './drain';
import { StaleSave } from '../plans/queries';

/** What Express, its body parser and its file sender throw. */
interface HttpError {
  readonly type?: string;
  readonly status?: number;
}

const BY_TYPE: Readonly<Record<string, ErrorCode>> = {
  'entity.parse.failed': 'request.not-json',
  'encoding.unsupported': 'request.unreadable',
  'charset.unsupported': 'request.not-json',
  'entity.too.large': 'request.too-large',
};
const BY_STATUS: Readonly<Record<number, ErrorCode>> = {
  412: 'request.changed',
  413: 'request.too-large',
  416: 'request.range-refused',
};
function codeOf(error: unknown): ErrorCode {
  if (isDiskFull(error)) return 'server.disk-full';
  if (error instanceof URIError) return 'request.bad-address';
  const { type = '', status = 500 } = (error ?? {}) as HttpError;
  const known = BY_TYPE[type] ?? BY_STATUS[status];
  if (known !== undefined) return known;
  return status >= 400 && status < 500 ? 'request.unreadable' : 'server.failed';
}

/** Whoever sends too much hears of it only once it is sent. */
const TOO_LARGE = 413;

/** Answers every error with its code, sentence and fields; what nobody foresaw is logged, never what was sent. */
export function errorAnswers(log: Logger): ErrorRequestHandler {
  return async (error: unknown, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    if (error instanceof ZaffetError) {
      const { status } = ERRORS[error.fault.code];
      if (error.fault.code === 'session.needed') readNoMore(request);
      if (status === TOO_LARGE) await readToEnd(request);
      response
        .status(status)
        .json(error instanceof StaleSave ? { ...error.fault, current: error.current } : error.fault);
      return;
    }
    const code = codeOf(error);
    // What sends files has told of another type before it failed.
    response.type('json');
    if (error instanceof DrizzleQueryError) log.error(logged(error), 'query failed');
    else if (code === 'server.failed') log.error(logged(error), 'request failed');
    const { status } = ERRORS[code];
    if (status === TOO_LARGE) await readToEnd(request);
    response.status(status).json(fault(code));
  };
}
