import { type Request } from 'express';

/** A body that is too large is read to its end, up to these limits: then the answer arrives. */
const TOO_LARGE_BYTES = 64e6;
const TOO_LARGE_WITHIN_MS = 20_000;

/** Reads the rest of a request and drops it. Resolves at its end, or at the limits above. */
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
