import { type Response } from 'express';

/**
 * Begins a stream of events with its first line.
 * @returns whether it goes on: whoever asks for its headers alone has all there is
 */
export function beginStream(response: Response, first: string): boolean {
  response.writeHead(200, {
    'content-type': 'text/event-stream',
    // Packed, a line would wait for those after it.
    'cache-control': 'no-store, no-transform',
  });
  if (response.req.method === 'HEAD') {
    response.end();
    return false;
  }
  response.write(first);
  return true;
}
