import { type FieldInput, Growth, measureField } from '@zaffet/core/crack';
import { FILM, inputOf } from '../../packages/core/src/testing/fields';
import { line, type PerfLine, race } from './report';

/** One pass over as many cells as the drawn picture of a field has [1 cell per mm², 4 sums each]: what a plain sweep costs. */
function plainPass(cells: number): () => void {
  const values = new Float32Array(cells).fill(1);
  return () => {
    let sum = 0;
    for (let round = 0; round < 40; round++) {
      for (let i = 1; i < cells - 1; i++) sum += values[i - 1]! + values[i]! * 0.5 + values[i + 1]!;
    }
    if (sum < 0) throw new Error('impossible');
  };
}

function grown(input: FieldInput): { segments: number; rays: number; spacing: number } {
  const growth = new Growth(input);
  while (growth.step());
  const field = growth.result();
  return { segments: field.count, rays: field.rays, spacing: measureField(field).areaSpacingMm };
}

function fieldLine(name: string, input: FieldInput, runs: number): PerfLine {
  const cells = Math.round(input.widthMm * input.heightMm);
  const first = grown(input);
  const { subject, reference } = race(runs, () => void grown(input), plainPass(cells));
  // How the time grows with the panel: the same film on a quarter of the area.
  const quarter = { ...input, widthMm: input.widthMm / 2, heightMm: input.heightMm / 2 };
  grown(quarter);
  const small = race(
    runs,
    () => void grown(quarter),
    () => undefined,
  ).subject;
  const exponent = Math.log(subject / small) / Math.log(4);
  const memory = Math.round(process.memoryUsage().heapUsed / 1e6);
  const note = `${cells} cells (mm²), ${first.segments} segments, ${first.rays} rays, spacing ${first.spacing.toFixed(1)} mm, scaling exponent ${exponent.toFixed(2)}, heap ${memory} MB; reference: 40 plain passes over the cells`;
  return line(name, 'ms', subject, reference, runs, note);
}

const STROKED = { strokes: 'one-way', strokeContrast: 0.45 } as const;
const WEB = { ...FILM, stiffness: 2.1, toughness: 0.015 };

export const fieldLines: Record<string, () => PerfLine> = {
  'field.coarse': () =>
    fieldLine(
      'field.coarse',
      inputOf(FILM, { widthMm: 150, heightMm: 100, quality: 'coarse', ...STROKED }),
      9,
    ),
  'field.panel': () =>
    fieldLine('field.panel', inputOf(FILM, { widthMm: 600, heightMm: 400, ...STROKED }), 5),
  'field.board': () => fieldLine('field.board', inputOf(WEB, { widthMm: 100, heightMm: 100 }), 5),
};
