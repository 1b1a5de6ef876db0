import { type Request } from 'express';

/** After the answer, this much of a stranger's body is still read [bytes], for this long [ms]: then the answer arrives. */
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
