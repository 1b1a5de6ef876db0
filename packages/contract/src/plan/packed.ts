import { fromByteArray, toByteArray } from 'base64-js';

/*
 * A map is thousands of whole numbers from 0 to 250, mostly the same ones side by side. In a file and on the wire its
 * bytes are packed by PackBits (TIFF 6.0, section 9: runs and literals told by a length byte) and written in base64.
 */

const LONGEST = 128;

/** How long the run of equal bytes is that begins at an index, at most `LONGEST`. */
function runAt(bytes: Uint8Array, at: number): number {
  let end = at + 1;
  while (end < bytes.length && end - at < LONGEST && bytes[end] === bytes[at]) end++;
  return end - at;
}

const threeAt = (bytes: Uint8Array, at: number): boolean =>
  bytes[at] === bytes[at + 1] && bytes[at] === bytes[at + 2];

/** Packs bytes by PackBits. */
export function packBits(bytes: Uint8Array): Uint8Array {
  const packed = new Uint8Array(bytes.length + Math.ceil(bytes.length / LONGEST));
  let to = 0;
  let at = 0;
  while (at < bytes.length) {
    const run = runAt(bytes, at);
    if (run >= 2) {
      packed[to++] = 257 - run;
      packed[to++] = bytes[at]!;
      at += run;
      continue;
    }
    let end = at + 1;
    // A run of two inside literals costs as much as two of them; three are worth a run of their own.
    while (end < bytes.length && end - at < LONGEST && !threeAt(bytes, end)) end++;
    packed[to++] = end - at - 1;
    packed.set(bytes.subarray(at, end), to);
    to += end - at;
    at = end;
  }
  return packed.slice(0, to);
}

/** Unpacks PackBits. @returns just `size` bytes, or null when the packed ones hold more, fewer or end too soon */
export function unpackBits(packed: Uint8Array, size: number): Uint8Array | null {
  const bytes = new Uint8Array(size);
  let to = 0;
  let at = 0;
  while (at < packed.length) {
    const head = packed[at++]!;
    if (head === 128) continue;
    const length = head < 128 ? head + 1 : 257 - head;
    const used = head < 128 ? length : 1;
    if (to + length > size || at + used > packed.length) return null;
    if (head < 128) bytes.set(packed.subarray(at, at + length), to);
    else bytes.fill(packed[at]!, to, to + length);
    at += used;
    to += length;
  }
  return to === size ? bytes : null;
}

/** Between the bytes of a map and, where any cell is above 255 %, their second bytes. */
const ABOVE = '.';

/** Whole per cent, 0 to 65 535 each, as they are filed. */
export function packPercent(percent: readonly number[]): string {
  const low = fromByteArray(packBits(Uint8Array.from(percent, (cell) => cell & 255)));
  if (percent.every((cell) => cell < 256)) return low;
  return `${low}${ABOVE}${fromByteArray(packBits(Uint8Array.from(percent, (cell) => cell >> 8)))}`;
}

/** The per cent of so many cells out of a file; null where the text is not that. */
export function unpackPercent(text: string, cells: number): number[] | null {
  const planes = text.split(ABOVE).map((plane) => unpackPlane(plane, cells));
  const [low, high] = planes;
  if (!low || planes.length > 2 || high === null) return null;
  // Counted through: a plan may hold millions of cells, and ways over an iterator take five times as long.
  const percent = new Array<number>(cells);
  for (let i = 0; i < cells; i++) percent[i] = low[i]! + (high === undefined ? 0 : 256 * high[i]!);
  return percent;
}

function unpackPlane(text: string, cells: number): Uint8Array | null {
  try {
    return unpackBits(toByteArray(text), cells);
  } catch {
    return null;
  }
}
