import { fingerprint } from '../../numeric/hash';
import { smoothWidths, taperFreeTip } from './finish';
import { SEGMENT_STRIDE, type Segments } from './segments';
import { type Tip } from './tip';
import { type CrackField, type FieldInput } from './types';

/** A field as grown so far, packed: its own arrays, widths smoothed and run out at the free tips. */
export function grownField(
  input: FieldInput,
  segments: Segments,
  tips: readonly Tip[],
  stepMm: number,
  counted: Pick<CrackField, 'crackCount' | 'joinedTips' | 'junctionAngles'>,
): CrackField {
  const n = segments.count;
  const x0 = new Float32Array(n);
  const y0 = new Float32Array(n);
  const x1 = new Float32Array(n);
  const y1 = new Float32Array(n);
  const crack = new Int32Array(n);
  for (let i = 0; i < n; i++) {
    const at = i * SEGMENT_STRIDE;
    x0[i] = segments.data[at]!;
    y0[i] = segments.data[at + 1]!;
    x1[i] = segments.data[at]! + segments.data[at + 2]!;
    y1[i] = segments.data[at + 1]! + segments.data[at + 3]!;
    crack[i] = segments.data[at + 4]!;
  }
  const previous = segments.previous.slice(0, n);
  const width = segments.width.slice(0, n);
  smoothWidths(width, previous);
  for (const tip of tips) {
    if (tip.state === 'done' || tip.last < 0) continue;
    taperFreeTip(tip.last, width, previous, stepMm, input.pullLengthMm);
  }
  return {
    ...counted,
    input,
    count: n,
    x0,
    y0,
    x1,
    y1,
    width,
    birth: segments.birth.slice(0, n),
    previous,
    crack,
    freeTips: tips.filter((tip) => tip.state !== 'done').length,
    rays: segments.rays,
    fingerprint: (fingerprint(x1, n) ^ fingerprint(y1, n)) >>> 0,
  };
}
