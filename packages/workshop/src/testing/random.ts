import { isFilmStep, isMapped, LIMITS, type Plan, type PlanStep } from '@zaffet/contract';
import { STROKES } from '@zaffet/core/crack';
import { SUBSTRATE_KEYS } from '@zaffet/core/media';
import { COVERS } from '@zaffet/core/plan';
import { usualWork } from '../calendar';
import { newPlan } from '../newPlan';
import { SCHOOL_KEYS } from '../schools';

/** A number from 0 to below 1, the same sequence for a seed (mulberry32, in the public domain). */
export function chance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** A valid plan of a way of working with all that a hand can set set otherwise, the same for a seed. */
export function randomPlan(seed: number): Plan {
  const random = chance(seed);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  const within = ({ min, max }: { min: number; max: number }, value: number): number =>
    Math.min(max, Math.max(min, Math.round(value * 1000) / 1000));
  const times = (value: number): number => value * Math.exp((random() - 0.5) * 1.6);

  const stepOf = (step: PlanStep): PlanStep => {
    const { start } = step;
    const moved =
      start.rule === 'after'
        ? { ...step, start: { ...start, waitMin: within(LIMITS.waitMin, times(start.waitMin)) } }
        : step;
    if (!isFilmStep(moved))
      return moved.kind === 'distress'
        ? { ...moved, pressure: within(LIMITS.pressure, times(moved.pressure)) }
        : moved;
    return {
      ...moved,
      thicknessUm: within(LIMITS.thicknessUm, times(moved.thicknessUm)),
      dilution: within(LIMITS.dilution, random() < 0.5 ? 0 : 0.4 * random()),
      passes: 1 + Math.floor(4 * random()),
      strokes: pick(STROKES),
      cover: random() < 0.8 ? moved.cover : { style: pick(COVERS), share: within(LIMITS.share, random()) },
    };
  };

  let next = 0;
  const plan = newPlan(pick(SCHOOL_KEYS), 'Random', seed, '2026-05-12T08:00:00.000Z', () => `id-${++next}`);
  const [part] = plan.piece.parts;
  const [finish] = plan.finishes;
  const steps = finish!.steps.map(stepOf);
  const mapped = steps.filter(isMapped).filter(() => random() < 0.15);
  const map = (): { columns: number; rows: number; percent: number[] } => ({
    columns: 6,
    rows: 4,
    percent: Array.from({ length: 24 }, () => 30 + Math.floor(70 * random())),
  });
  return {
    ...plan,
    air: {
      origin: 'told',
      temperatureC: within(LIMITS.temperatureC, 10 + 22 * random()),
      humidity: within(LIMITS.humidity, 0.25 + 0.6 * random()),
      draughtMS: within(LIMITS.draughtMS, times(0.12)),
      altitudeM: 0,
      later: [],
    },
    work: random() < 0.3 ? usualWork('+01:00') : null,
    piece: {
      ...plan.piece,
      parts: [
        {
          ...part!,
          widthMm: within(LIMITS.sideMm, times(500)),
          heightMm: within(LIMITS.sideMm, times(350)),
          substrate: pick(SUBSTRATE_KEYS),
          maps: Object.fromEntries(mapped.map(({ id }) => [id, map()])),
        },
      ],
    },
    finishes: [{ ...finish!, steps }],
  };
}
