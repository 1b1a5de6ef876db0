import { type ErrorCode, fault, PHOTO_BYTES } from '@zaffet/contract';
import { type Picture } from '@zaffet/core/photo';

/** Longest side a photograph is measured at [px]. */
const LONGEST = 4500;
/** Where a HEIC file says so, and as what. */
const HEIC = /^ftyp(heic|heix|hevc|mif1|msf1)/;

export interface Photograph {
  readonly picture: Picture;
  /** As for 35 mm film [mm]; null where the file does not say. */
  readonly focal35: number | null;
}

/** A file that is not opened, with why. */
export class PhotographRefused extends Error {
  constructor(code: ErrorCode) {
    super(fault(code).message);
  }
}

/**
 * Refuses what would take more memory than a picture is worth, by its head alone: a small file may unpack to much.
 * @throws PhotographRefused with what to do instead
 */
export async function checkPhotograph(file: File): Promise<void> {
  if (file.size > PHOTO_BYTES) throw new PhotographRefused('picture.too-large');
  const bytes = new Uint8Array(await file.arrayBuffer());
  const isHeic = HEIC.test(String.fromCharCode(...bytes.subarray(4, 12)));
  const { MOST_PIXELS, pictureHead } = await import('@zaffet/contract/photo');
  const head = pictureHead(bytes);
  if (head === null) throw new PhotographRefused(isHeic ? 'picture.heic' : 'picture.unreadable');
  if (head.width * head.height > MOST_PIXELS) throw new PhotographRefused('picture.too-many-pixels');
  if (isHeic && (await createImageBitmap(file).catch(() => null)) === null)
    throw new PhotographRefused('picture.heic');
}

/** What a file says of the lens (EXIF 2.3, FocalLengthIn35mmFilm); null where it says nothing. */
async function focalOf(file: File): Promise<number | null> {
  const { load } = await import('exifreader');
  try {
    const focal = (await load(file)).FocalLengthIn35mmFilm?.value;
    return typeof focal === 'number' && focal > 5 && focal < 500 ? focal : null;
  } catch {
    return null;
  }
}

/**
 * A photograph turned the right way up, no larger than it is measured at.
 * @throws PhotographRefused with what to do instead
 */
export async function openPhotograph(file: File): Promise<Photograph> {
  await checkPhotograph(file);
  const focal35 = await focalOf(file);
  try {
    const bitmap = await createImageBitmap(file);
    const scale = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
    const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
    const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
    context.drawImage(bitmap, 0, 0, width, height);
    bitmap.close();
    const { data } = context.getImageData(0, 0, width, height);
    return { picture: { data, width, height }, focal35 };
  } catch {
    throw new PhotographRefused('picture.unreadable');
  }
}
