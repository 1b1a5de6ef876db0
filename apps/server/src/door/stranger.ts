import { type Request } from 'express';

/** A device that is not signed in may send this much more after its answer [bytes], for this long [ms]. */
const MOST_BYTES = 65_536;
const WITHIN_MS = 10_000;

/** Reads a little more of a request and drops it. If more comes, ends the connection. */
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
