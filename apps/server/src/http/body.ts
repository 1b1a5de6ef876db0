import { JsonMeter, parseJson } from '@zaffet/contract';
import { type RequestHandler } from 'express';
import { bodyOf, rawJson } from '../reading/reader';

/**
 * Reads JSON bodies up to a size, counted before anything is made of them; one that was taken as bytes already stays so.
 * Packed ones are refused: a few kB may unpack to much.
 * @param limit - [bytes]
 */
export function jsonBody(limit: number): RequestHandler {
  const take = rawJson(limit);
  return (request, response, next) => {
    if (Buffer.isBuffer(request.body)) {
      next();
      return;
    }
    take(request, response, (error?: unknown) => {
      try {
        if (error !== undefined) throw error;
        if (Buffer.isBuffer(request.body)) {
          const bytes = bodyOf(request);
          new JsonMeter().take(bytes);
          request.body = parseJson(bytes);
        }
        next();
      } catch (trouble) {
        next(trouble);
      }
    });
  };
}
