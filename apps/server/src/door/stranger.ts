import { type Request } from 'express';

/** What of a stranger's body is read after the answer, so that the answer arrives, and how long it may take. */
const MOST_BYTES = 65_536;
const WITHIN_MS = 10_000;

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
