import { photograph, PLAIN_SHOT, readBoard, SHOT_FOCAL } from '@zaffet/core/board';
import { measurePhoto, type Picture } from '@zaffet/core/photo';
import { drawnFace } from '../../packages/core/src/testing/faces';
import { overMedium } from '../../packages/core/src/testing/plans';
import { line, type PerfLine, race } from './report';

const RUNS = 5;
const SIDE = 2000;

/** A picture of so many pixels a side: a cell drawn once, laid side by side. */
function pictureOf(side: number): Picture {
  const { columns, rows, rgba } = drawnFace(overMedium(190, 150), 'close', 1000);
  const data = new Uint8ClampedArray(4 * side * side);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x += columns)
      data.set(
        rgba.subarray(4 * (y % rows) * columns, 4 * ((y % rows) * columns + Math.min(columns, side - x))),
        4 * (y * side + x),
      );
  return { width: side, height: side, data };
}

/** What a mean over three pixels takes: the plainest pass there is over as many values. */
function plainPass(values: Float32Array): void {
  const out = new Float32Array(values.length);
  for (let i = 1; i < values.length - 1; i++) out[i] = (values[i - 1]! + values[i]! + values[i + 1]!) / 3;
}

/** A cell of four million pixels, from the picture to its figures. */
function photoLine(): PerfLine {
  const picture = pictureOf(SIDE);
  const values = new Float32Array(SIDE * SIDE);
  const { subject, reference } = race(
    RUNS,
    () =>
      void measurePhoto(
        picture,
        [
          { x: 0, y: 0 },
          { x: SIDE, y: 0 },
          { x: SIDE, y: SIDE },
          { x: 0, y: SIDE },
        ],
        { width: 120, height: 120 },
      ),
    () => plainPass(values),
  );
  return line(
    'photo.cell',
    'ms',
    subject,
    reference,
    RUNS,
    'four million pixels; reference: a mean over three of each',
  );
}

/** A board of nine cells in its frame, twelve million pixels, from the picture to all figures. */
function boardLine(): PerfLine {
  const cell = drawnFace(overMedium(190, 150), 'close', 640, 1);
  const cells = Array.from({ length: 9 }, () => cell);
  const ground = [0.03, 0.08, 0.09] as const;
  const picture = photograph(cells, ground, PLAIN_SHOT);
  const values = new Float32Array(picture.width * picture.height);
  const ask = { cells: 9, thicknessMm: 0, focal35: SHOT_FOCAL, checkLineMm: 100, layers: [] };
  const { subject, reference } = race(
    RUNS,
    () => void readBoard(picture, ask),
    () => plainPass(values),
  );
  return line(
    'photo.board',
    'ms',
    subject,
    reference,
    RUNS,
    'nine cells of 12 million pixels; reference: a mean over three of each',
  );
}

export const photoLines: Readonly<Record<string, () => PerfLine>> = {
  'photo.cell': photoLine,
  'photo.board': boardLine,
};
