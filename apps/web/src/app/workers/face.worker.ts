import { type CrackField, Growth, measureField, type Strokes } from '@zaffet/core/crack';
import {
  brushRelief,
  type CrackedLayer,
  drawMode,
  type PanelField,
  patternInput,
  runScene,
} from '@zaffet/core/face';
import { forecast } from '@zaffet/core/forecast';
import { marksOf, measurePanel, type Naturalness, naturalness } from '@zaffet/core/measure';
import { figureValues } from '@zaffet/core/readout';
import { expose, transfer } from 'comlink';
import { type FaceAnswer, type FaceRequest, type FaceWorker, type MomentsRequest } from './messages';
import { Turns } from './thread';

/** Grows and draws faces off the page's thread. A newer request overtakes an older one between two slices of growth. */

/** Growth is paused this often [ms] to hear of newer requests. */
const SLICE = 14;
/** Grown patterns, brush reliefs and panels kept for the next request. */
const KEPT = 6;

const turns = new Turns();
const grown = new Map<string, CrackField>();
const reliefs = new Map<string, Float32Array>();
let last: { key: string; panel: PanelField } | null = null;

const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

/** Remembers a value and forgets the oldest beyond a few. */
function keep<T>(known: Map<string, T>, key: string, value: T): T {
  known.set(key, value);
  for (const oldest of known.keys()) {
    if (known.size <= KEPT) break;
    known.delete(oldest);
  }
  return value;
}

/** Grows every pattern of the scene; progress runs over all of them. */
async function patternsOf(
  request: FaceRequest,
  stillMine: () => boolean,
  onProgress: ((share: number) => void) | null,
): Promise<CrackedLayer[] | 'overtaken'> {
  const { view, scene, quality } = request;
  const cracked: CrackedLayer[] = [];
  let told = 0;
  for (const [k, network] of scene.networks.entries()) {
    const { key: of } = network;
    const input = patternInput(scene, network, view, quality);
    const key = JSON.stringify(input);
    const before = grown.get(key);
    if (before !== undefined) {
      cracked.push({ key: of, field: before });
      continue;
    }
    const growth = new Growth(input);
    let sliceEnd = performance.now() + SLICE;
    while (growth.step()) {
      if (performance.now() < sliceEnd) continue;
      const share = (k + growth.progress) / scene.networks.length;
      if (onProgress !== null && share > told + 0.04) {
        told = share;
        onProgress(told);
      }
      await pause();
      if (!stillMine()) return 'overtaken';
      sliceEnd = performance.now() + SLICE;
    }
    cracked.push({ key: of, field: keep(grown, key, growth.result()) });
  }
  return cracked;
}

function panelOf(request: FaceRequest, cracked: readonly CrackedLayer[]): PanelField {
  const { scene, view, columns, rows } = request;
  const pitchMm = view.widthMm / columns;
  const key = JSON.stringify([
    scene,
    view,
    columns,
    rows,
    request.quality,
    request.openingShare,
    request.until,
  ]);
  if (last?.key === key) return last.panel;
  const relief = (strokes: Strokes, layer: number): Float32Array => {
    // Two hands' work is enough to tell layers apart, and is worked out once a view.
    const seed = scene.seed ^ (layer & 1 ? 0x7f : 0);
    const name = [columns, rows, pitchMm, strokes, seed].join(' ');
    return reliefs.get(name) ?? keep(reliefs, name, brushRelief(columns, rows, pitchMm, strokes, seed));
  };
  const window = {
    columns,
    rows,
    pitchMm,
    leftMm: view.leftMm,
    topMm: view.topMm,
    opening: request.openingShare,
    until: request.until,
  };
  const panel = runScene(scene, window, cracked, relief);
  last = { key, panel };
  return panel;
}

const worker: FaceWorker = {
  async draw(request, onProgress): Promise<FaceAnswer> {
    const stillMine = turns.take();
    const cracked = await patternsOf(request, stillMine, onProgress);
    if (cracked === 'overtaken') return { outcome: 'overtaken' };
    const panel = panelOf(request, cracked);
    const { rgba, columns, rows, scale } = drawMode(request.scene, panel, request.mode, {
      raking: request.raking,
    });
    const measured = cracked.find(({ key }) => key === request.measured)?.field ?? null;
    const answer: FaceAnswer = {
      outcome: 'done',
      rgba,
      columns,
      rows,
      scale,
      quality: request.quality,
      figures: measured === null ? null : measureField(measured),
      shares: measurePanel(request.scene, panel),
      fingerprint: fingerprintOf(rgba),
    };
    return transfer(answer, [rgba.buffer]);
  },

  async natural(request): Promise<Naturalness | null> {
    const stillMine = turns.take();
    const cracked = await patternsOf(request, stillMine, null);
    if (cracked === 'overtaken') return null;
    return naturalness(marksOf(request.scene, panelOf(request, cracked)));
  },

  async moments({ basis, stepIndex, waits }: MomentsRequest): Promise<number[]> {
    await pause();
    return waits.map((wait) => {
      const steps = basis.plan.steps.map((step, i) =>
        i === stepIndex ? { ...step, start: { rule: 'after' as const, wait } } : step,
      );
      return figureValues(forecast({ ...basis, plan: { ...basis.plan, steps } })).strength ?? 0;
    });
  },
};

/** FNV-1a over a part of the picture: tells two pictures apart. */
function fingerprintOf(rgba: Uint8ClampedArray): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < rgba.length; i += 7) hash = Math.imul(hash ^ rgba[i]!, 0x01000193);
  return hash >>> 0;
}

expose(worker);
