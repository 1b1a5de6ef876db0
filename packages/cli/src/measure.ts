import { fault, ZaffetError } from '@zaffet/contract';
import { CELL, CELLS, readBoard } from '@zaffet/core/board';
import { InputError } from '@zaffet/core/errors';
import { measurePhoto, type PhotoReading, type Picture, type Quad, type Spot } from '@zaffet/core/photo';
import ExifReader from 'exifreader';
import jpeg from 'jpeg-js';
import { readFile } from 'node:fs/promises';
import { PNG } from 'pngjs';

/** Pictures of more pixels than this are not opened [millions], and the memory one may take [MB]. */
const MOST_MEGAPIXELS = 50;
const MOST_MB = 1024;

/** What is told of a photograph on the command line. */
export interface MeasureAsked {
  readonly cells?: string;
  readonly line?: string;
  readonly thick?: string;
  readonly corners?: string;
  readonly size?: string;
}

/** A photograph as its file holds it. @throws ZaffetError where it cannot be opened */
async function opened(path: string): Promise<{ picture: Picture; focal35: number | null }> {
  let bytes: Buffer;
  try {
    bytes = await readFile(path);
  } catch {
    throw new ZaffetError(fault('picture.unreadable'));
  }
  try {
    if (bytes.readUInt32BE(0) === 0x89504e47) {
      if (bytes.readUInt32BE(16) * bytes.readUInt32BE(20) > 1e6 * MOST_MEGAPIXELS)
        throw new ZaffetError(fault('picture.too-many-pixels'));
      const { width, height, data } = PNG.sync.read(bytes);
      return { picture: { width, height, data }, focal35: null };
    }
    const { width, height, data } = jpeg.decode(bytes, {
      useTArray: true,
      maxResolutionInMP: MOST_MEGAPIXELS,
      maxMemoryUsageInMB: MOST_MB,
    });
    return { picture: { width, height, data }, focal35: focalOf(bytes) };
  } catch (error) {
    if (error instanceof ZaffetError) throw error;
    const large = error instanceof Error && /maxResolutionInMP|maxMemoryUsage/.test(error.message);
    throw new ZaffetError(fault(large ? 'picture.too-many-pixels' : 'picture.unreadable'));
  }
}

/** What a picture says of its lens (EXIF 2.3, FocalLengthIn35mmFilm) [mm]; null where it says nothing. */
function focalOf(bytes: Buffer): number | null {
  try {
    const focal = ExifReader.load(bytes).FocalLengthIn35mmFilm?.value;
    return typeof focal === 'number' ? focal : null;
  } catch {
    return null;
  }
}

/** A number that was told. @throws InputError where it is none */
function number(field: string, text: string | undefined, usual: number): number {
  if (text === undefined) return usual;
  const value = Number(text);
  if (!Number.isFinite(value) || text.trim() === '')
    throw new InputError({ code: 'photo.told', field, value: text, allowed: 'a number' });
  return value;
}

/** Four corners, `x,y` each, apart by spaces. @throws InputError where they are not four */
function cornersIn(text: string): Quad {
  const spots = text
    .trim()
    .split(/\s+/)
    .map((pair): Spot => {
      const [x = NaN, y = NaN] = pair.split(',').map(Number);
      return { x, y };
    });
  if (spots.length !== 4 || spots.some(({ x, y }) => !Number.isFinite(x + y)))
    throw new InputError({
      code: 'photo.told',
      field: '--corners',
      value: text,
      allowed: 'four places "x,y x,y x,y x,y" in pixels, from the upper left with the clock',
    });
  return spots as unknown as Quad;
}

/** Figures alone: what was taken for crack is a picture, and no text. */
const withoutPictures = ({ cracks: _, ...reading }: PhotoReading): object => {
  const { seen: __, ...rest } = reading as typeof reading & { readonly seen?: Picture };
  return rest;
};

/**
 * What a photograph tells: of a board in its printed frame each cell, of a rectangle between four corners itself.
 * @throws ZaffetError where the file is no picture
 * @throws InputError where it cannot be read, or what was told is wrong
 */
export async function measureFile(path: string, asked: MeasureAsked): Promise<unknown> {
  const { picture, focal35 } = await opened(path);
  if (asked.corners !== undefined) {
    const [width = NaN, height = NaN] = (asked.size ?? `${CELL.side}x${CELL.side}`).split('x').map(Number);
    return withoutPictures(measurePhoto(picture, cornersIn(asked.corners), { width, height }));
  }
  const { cells, ...board } = readBoard(picture, {
    cells: number('--cells', asked.cells, CELLS),
    checkLineMm: number('--line', asked.line, 100),
    thicknessMm: number('--thick', asked.thick, 0),
    focal35,
    layers: [],
  });
  return { ...board, cells: cells.map(withoutPictures) };
}
