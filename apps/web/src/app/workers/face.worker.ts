import {
  type CrackField,
  faceTexture,
  type FaceTexture,
  fieldInput,
  figureValues,
  forecast,
  Growth,
  measureField,
  rasterise,
  shade,
} from '@zaffet/core';
import { expose, transfer } from 'comlink';
import { type FaceAnswer, type FaceRequest, type FaceWorker, type MomentsRequest } from './messages';

/** Grows and draws faces off the page's thread. A newer request overtakes an older one between two slices of growth. */

/** Growth is paused this often [ms] to hear of newer requests. */
const SLICE = 14;

let newest = 0;
let grown: { key: string; field: CrackField } | null = null;
let textured: { key: string; texture: FaceTexture } | null = null;

const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

async function fieldFor(
  request: FaceRequest,
  mine: number,
  onProgress: ((share: number) => void) | null,
): Promise<CrackField | null | 'overtaken'> {
  if (request.law === null) return null;
  const { view, seed, strokes, quality } = request;
  const input = fieldInput(request.law, {
    widthMm: view.widthMm,
    heightMm: view.heightMm,
    edges: view.edges,
    seed,
    strokes,
    quality,
  });
  const key = JSON.stringify(input);
  if (grown?.key === key) return grown.field;
  const growth = new Growth(input);
  let sliceEnd = performance.now() + SLICE;
  let told = 0;
  while (growth.step()) {
    if (performance.now() < sliceEnd) continue;
    if (onProgress !== null && growth.progress > told + 0.04) {
      told = growth.progress;
      onProgress(told);
    }
    await pause();
    if (mine !== newest) return 'overtaken';
    sliceEnd = performance.now() + SLICE;
  }
  const field = growth.result();
  grown = { key, field };
  return field;
}

function textureFor(request: FaceRequest): FaceTexture {
  const { columns, rows, view, finish } = request;
  const pitch = view.widthMm / columns;
  const key = [columns, rows, pitch, finish.strokes, finish.seed].join(' ');
  if (textured?.key !== key) textured = { key, texture: faceTexture(columns, rows, pitch, finish) };
  return textured.texture;
}

const worker: FaceWorker = {
  async draw(request, onProgress): Promise<FaceAnswer> {
    const mine = ++newest;
    const field = await fieldFor(request, mine, onProgress);
    if (field === 'overtaken') return { outcome: 'overtaken' };
    const { columns, rows, view, law } = request;
    const texture = textureFor(request);
    const empty = new Float32Array(columns * rows);
    const pitchMm = view.widthMm / columns;
    const firstBirth = field === null || field.count === 0 ? 1 : field.birth[0]!;
    const raster =
      field === null || request.openingShare === null
        ? { columns, rows, pitchMm, open: empty, widthMm: empty }
        : rasterise(field, {
            columns,
            rows,
            pitchMm,
            load: firstBirth + (1 - firstBirth) * request.openingShare,
            fill: law?.fillLeft ?? 1,
            torn: texture.torn,
          });
    const rgba = shade(raster, request.finish, texture);
    const answer: FaceAnswer = {
      outcome: 'done',
      rgba,
      columns,
      rows,
      quality: request.quality,
      figures: field === null ? null : measureField(field),
      fingerprint: field?.fingerprint ?? 0,
    };
    return transfer(answer, [rgba.buffer]);
  },

  async moments({ plan, stepIndex, waits }: MomentsRequest): Promise<number[]> {
    await pause();
    return waits.map((wait) => {
      const steps = plan.steps.map((step, i) =>
        i === stepIndex ? { ...step, start: { rule: 'after' as const, wait } } : step,
      );
      return figureValues(forecast({ ...plan, steps })).strength ?? 0;
    });
  },
};

expose(worker);
