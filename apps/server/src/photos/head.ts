import { fault, type PhotoType, ZaffetError } from '@zaffet/contract';
import { imageSize } from 'image-size';

/** More than any camera's, and than a browser opens. */
const MOST_PIXELS = 50e6;
/** The size of a picture is within its first bytes; the rest is never looked at. */
const HEAD_BYTES = 262_144;
/** A camera's JPEG has a few dozen segments before its frame. */
const MOST_SEGMENTS = 1024;

interface Size {
  readonly width: number;
  readonly height: number;
}

export interface Head extends Size {
  readonly type: PhotoType;
}

/** First bytes of the formats that are kept: ITU-T T.81 B.1.1.3; ISO/IEC 15948 5.2; RFC 9649 2.4. */
const MAGIC: readonly (readonly [PhotoType, (head: Buffer) => boolean])[] = [
  ['image/jpeg', (head) => head.length > 3 && head.readUIntBE(0, 3) === 0xffd8ff],
  ['image/png', (head) => head.toString('latin1', 0, 8) === '\x89PNG\r\n\x1a\n'],
  [
    'image/webp',
    (head) => head.toString('latin1', 0, 4) === 'RIFF' && head.toString('latin1', 8, 12) === 'WEBP',
  ],
];

const isFrame = (marker: number): boolean =>
  marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;

/**
 * The size in a JPEG's frame header (ITU-T T.81, B.2.2), segment by segment: a portrait's depth map may put megabytes
 * before it. Null if there is no frame among the first segments.
 */
function jpegSize(bytes: Buffer): Size | null {
  let at = 2;
  for (let i = 0; i < MOST_SEGMENTS && at + 9 <= bytes.length && bytes[at] === 0xff; i++) {
    const length = bytes.readUInt16BE(at + 2);
    if (isFrame(bytes[at + 1]!))
      return { height: bytes.readUInt16BE(at + 5), width: bytes.readUInt16BE(at + 7) };
    if (length < 2) return null;
    at += 2 + length;
  }
  return null;
}

function sizeOf(type: PhotoType, bytes: Buffer): Size | null {
  if (type === 'image/jpeg') return jpegSize(bytes);
  try {
    return imageSize(bytes.subarray(0, HEAD_BYTES));
  } catch {
    return null;
  }
}

/**
 * Type and size of a picture, from its head alone, whatever it was sent as.
 * @throws ZaffetError `photo.invalid` if it is none of the types that are kept, `picture.too-many-pixels`
 */
export function headOf(bytes: Uint8Array): Head {
  const all = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const type = MAGIC.find(([, fits]) => fits(all))?.[0];
  const size = type === undefined ? null : sizeOf(type, all);
  if (type === undefined || size === null || !(size.width > 0 && size.height > 0))
    throw new ZaffetError(fault('photo.invalid'));
  const { width, height } = size;
  if (width * height > MOST_PIXELS) throw new ZaffetError(fault('picture.too-many-pixels'));
  return { type, width, height };
}
