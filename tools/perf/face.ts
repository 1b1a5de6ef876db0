import { drawMode, FACE_MODES } from '@zaffet/core/face';
import { playedFace } from '../../packages/core/src/testing/faces';
import { SCENES } from '../../packages/core/src/testing/scenes';
import { line, type PerfLine, race } from './report';

/** The Face's picture on a screen of 1280 × 800. */
const COLUMNS = 570;

/** Mode changes of all scenes: what a person waits for after choosing another mode, the field being there. */
function faceDraw(): PerfLine {
  let worst = { ms: 0, reference: 0, name: '' };
  const all: number[] = [];
  let pixels = 0;
  for (const { name, plan, view } of SCENES) {
    const { result, panel } = playedFace(plan, view, COLUMNS, 1.4);
    pixels = panel.bits.length;
    for (const mode of FACE_MODES) {
      const { subject, reference } = race(
        5,
        () => void drawMode(result.scene, panel, mode, { raking: 0.5 }),
        () => void Uint8ClampedArray.from(panel.heightUm, (value) => value * 2),
      );
      all.push(subject);
      if (subject > worst.ms) worst = { ms: subject, reference, name: `${name}, ${mode}` };
    }
  }
  const median = [...all].sort((a, b) => a - b)[all.length >> 1]!;
  return line(
    'face.draw',
    'ms',
    worst.ms,
    worst.reference,
    5,
    `slowest of ${all.length} mode changes (${worst.name}), median of all ${median.toFixed(0)} ms, ${pixels} pixels; reference: one number a pixel turned into a byte`,
  );
}

export const faceLines: Record<string, () => PerfLine> = { 'face.draw': faceDraw };
