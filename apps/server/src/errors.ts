import { ERRORS, type ErrorCode, fault, ZaffetError } from '@zaffet/contract';
import { type ErrorRequestHandler } from 'express';
import { type Logger } from 'pino';
import { StaleSave } from './plans/queries';

/** What Express and its body parser throw. */
interface HttpError {
  readonly type?: string;
}

function codeOf(error: unknown): ErrorCode {
  const type = (error as HttpError | null)?.type;
  if (type === 'entity.parse.failed' || type === 'encoding.unsupported' || type === 'charset.unsupported')
    return 'request.not-json';
  if (type === 'entity.too.large') return 'request.too-large';
  return 'server.failed';
}

/** Answers every error with its code, sentence and fields; what nobody foresaw is logged. */
export function errorAnswers(log: Logger): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    if (error instanceof ZaffetError) {
      const { status } = ERRORS[error.fault.code];
      response
        .status(status)
        .json(error instanceof StaleSave ? { ...error.fault, current: error.current } : error.fault);
      return;
    }
    const code = codeOf(error);
    if (code === 'server.failed') log.error({ err: error }, 'request failed');
    response.status(ERRORS[code].status).json(fault(code));
  };
}
