import { type Request } from 'express';

/** What of a stranger's body is read after the answer, so that the answer arrives, and how long it may take. */
const MOST_BYTES = 65_536;
const WITHIN_MS = 10_000;

/** What is too large is read to its end, so that the answer arrives: so much of it, and for so long. */
const TOO_LARGE_BYTES = 64e6;
const TOO_LARGE_WITHIN_MS = 20_000;

/** Reads what a request still sends and nobody wants. Resolves at its end, or where it is given up. */
export function readToEnd(request: Request): Promise<void> {
  if (request.complete || request.destroyed) return Promise.resolve();
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, TOO_LARGE_WITHIN_MS);
    let left = TOO_LARGE_BYTES;
    request.on('data', (piece: Buffer) => {
      left -= piece.length;
      if (left < 0) resolve();
    });
    for (const over of ['end', 'close', 'error'])
      request.once(over, () => {
        clearTimeout(timer);
        resolve();
      });
    request.resume();
  });
}

/** Reads no more than a little of what a request still sends, and ends its connection where there is more. */
export function readNoMore(request: Request, within = WITHIN_MS): void {
  if (request.complete) return;
  const end = (): void => void request.socket.destroy();
  const timer = setTimeout(end, within);
  timer.unref();
  let left = MOST_BYTES;
  request.on('data', (piece: Buffer) => {
    left -= piece.length;
    if (left < 0) end();
  });
  request.once('close', () => clearTimeout(timer));
  request.once('end', () => clearTimeout(timer));
}
