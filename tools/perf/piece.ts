import { type FieldInput, Growth } from '@zaffet/core/crack';
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { FILM, inputOf } from '../../packages/core/src/testing/fields';
import { line, type PerfLine } from './report';

/** Ten panels of a chest of drawers: sides, top and fronts. */
const SIZES: readonly (readonly [number, number])[] = [
  [600, 400],
  [600, 400],
  [800, 450],
  [700, 180],
  [700, 180],
  [700, 220],
  [700, 220],
  [340, 150],
  [340, 150],
  [800, 90],
];
const PANELS: readonly FieldInput[] = SIZES.map(([widthMm, heightMm], i) =>
  inputOf(FILM, { widthMm, heightMm, seed: 20 + i, strokes: 'one-way', strokeContrast: 0.45 }),
);

/** Hands the panels out to the workers, the next to whoever is free; s until the last is grown. */
async function pooled(workers: readonly Worker[]): Promise<{ ms: number; segments: number }> {
  const start = performance.now();
  let next = 0;
  let segments = 0;
  await Promise.all(
    workers.map(
      (worker) =>
        new Promise<void>((resolve) => {
          const hand = (): void => {
            const panel = PANELS[next++];
            if (panel === undefined) {
              worker.off('message', done);
              resolve();
            } else worker.postMessage(panel);
          };
          const done = (count: number): void => {
            segments += count;
            hand();
          };
          worker.on('message', done);
          hand();
        }),
    ),
  );
  return { ms: performance.now() - start, segments };
}

function oneByOne(): number {
  const start = performance.now();
  for (const panel of PANELS) {
    const growth = new Growth(panel);
    while (growth.step());
  }
  return performance.now() - start;
}

async function fieldPiece(): Promise<PerfLine> {
  const workers = Array.from(
    { length: Math.min(4, availableParallelism()) },
    () => new Worker(new URL('./piece-worker.js', import.meta.url)),
  );
  await pooled(workers);
  const times: number[] = [];
  const alone: number[] = [];
  let segments = 0;
  for (let run = 0; run < 3; run++) {
    const { ms, segments: grown } = await pooled(workers);
    times.push(ms);
    segments = grown;
    alone.push(oneByOne());
  }
  await Promise.all(workers.map((worker) => worker.terminate()));
  const mid = (values: number[]): number => [...values].sort((a, b) => a - b)[1]!;
  const cells = SIZES.reduce((sum, [width, height]) => sum + width * height, 0);
  return line(
    'field.piece',
    'ms',
    mid(times),
    mid(alone),
    3,
    `ten panels, ${cells} cells (mm²), ${segments} segments, ${workers.length} workers; reference: the same one after another on one thread`,
  );
}

export const pieceLines: Record<string, () => Promise<PerfLine>> = { 'field.piece': fieldPiece };
