import { imageSize } from 'image-size';
import { type PhotoType } from '../runs/types';

/** More than any camera's, and than a browser opens. */
export const MOST_PIXELS = 50e6;
/** The size of a picture is within its first bytes; the rest is never looked at. */
const HEAD_BYTES = 262_144;
/** A camera's JPEG has a few dozen segments before its frame. */
const MOST_SEGMENTS = 1024;

/** What the head of a picture says. */
export interface PictureHead {
  /** Null for a format that is not kept. */
  readonly type: PhotoType | null;
  /** [px] */
  readonly width: number;
  readonly height: number;
}

const hasText = (bytes: Uint8Array, at: number, text: string): boolean =>
  [...text].every((letter, i) => bytes[at + i] === letter.charCodeAt(0));

/** First bytes of the formats that are kept: ITU-T T.81 B.1.1.3; ISO/IEC 15948 5.2; RFC 9649 2.4. */
const MAGIC: Readonly<Record<PhotoType, (bytes: Uint8Array) => boolean>> = {
  'image/jpeg': (bytes) => hasText(bytes, 0, '\xff\xd8\xff'),
  'image/png': (bytes) => hasText(bytes, 0, '\x89PNG\r\n\x1a\n'),
  'image/webp': (bytes) => hasText(bytes, 0, 'RIFF') && hasText(bytes, 8, 'WEBP'),
};

const isFrame = (marker: number): boolean =>
  marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;

type Size = Pick<PictureHead, 'width' | 'height'>;

/**
 * The size in a JPEG's frame header (ITU-T T.81, B.2.2), segment by segment: a portrait's depth map may put megabytes
 * before it. Null if there is no frame among the first segments.
 */
function jpegSize(bytes: Uint8Array): Size | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 2;
  for (let i = 0; i < MOST_SEGMENTS && at + 9 <= bytes.length && bytes[at] === 0xff; i++) {
    if (isFrame(bytes[at + 1]!)) return { height: view.getUint16(at + 5), width: view.getUint16(at + 7) };
    const length = view.getUint16(at + 2);
    if (length < 2) return null;
    at += 2 + length;
  }
  return null;
}

function sizeOf(bytes: Uint8Array): Size | null {
  try {
    return imageSize(bytes.subarray(0, HEAD_BYTES));
  } catch {
    return null;
  }
}

/** Format and size of a picture, from its head alone, whatever it was sent as. Null for what is no picture. */
export function pictureHead(bytes: Uint8Array): PictureHead | null {
  const type = (Object.keys(MAGIC) as PhotoType[]).find((format) => MAGIC[format](bytes)) ?? null;
  const size = type === 'image/jpeg' ? jpegSize(bytes) : sizeOf(bytes);
  if (size === null || !(size.width > 0 && size.height > 0)) return null;
  return { type, width: size.width, height: size.height };
}
