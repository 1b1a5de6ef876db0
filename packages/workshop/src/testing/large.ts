import { isMapped, LIMITS, type Part, type Plan, type PlanStep, type StepMap } from '@zaffet/contract';
import { newFinish, newPart } from '../newPlan';
import { SCHOOL_KEYS, SCHOOL_STEPS } from '../schools';
import { samplePlan } from './plan';

/** A map as a hand paints one: a few soft strokes across, more here and less there. */
function paintedMap(side: number, seed: number): StepMap {
  const strokes = [1, 2, 3, 4].map((i) => ({
    at: (Math.imul(seed + i, 2654435761) >>> 0) / 2 ** 32,
    lean: ((seed * 7 + i * 3) % 11) / 11 - 0.5,
    does: i % 2 === 0 ? 50 : -40,
  }));
  const percent = Array.from({ length: side * side }, (_, cell) => {
    const x = (cell % side) / side;
    const y = Math.floor(cell / side) / side;
    const by = strokes.map(({ at, lean, does }) => does * Math.exp(-(((x - at - lean * y) / 0.12) ** 2)));
    return 60 + Math.round(by.reduce((sum, one) => sum + one, 0) / 5) * 5;
  }).map((cell) => Math.min(100, Math.max(25, cell)));
  return { columns: side, rows: side, percent };
}

/** So many steps, of one school after the other. */
function longFinish(count: number, from: number, nextId: () => string): PlanStep[] {
  const steps: PlanStep[] = [];
  for (let at = from; steps.length < count; at++) {
    const school = SCHOOL_STEPS[SCHOOL_KEYS[at % SCHOOL_KEYS.length]!];
    steps.push(...school(nextId, { rule: 'after', waitMin: 60 }));
  }
  return steps.slice(0, count);
}

/**
 * A plan as large as one may be: as many parts and finishes as there may be, each of so many steps, each part with so
 * many maps.
 */
export function largePlan(steps: number, maps: number, side: number): Plan {
  let next = 0;
  const nextId = (): string => `id-${++next}`;
  const finishes = Array.from({ length: LIMITS.finishes.max }, (_, i) =>
    newFinish(nextId(), `Finish ${i + 1}`, longFinish(steps, i, nextId)),
  );
  const parts = Array.from({ length: LIMITS.parts.max }, (_, i): Part => {
    const finish = finishes[i % finishes.length]!;
    const part = newPart(nextId(), `Part ${i + 1}`, { widthMm: 500, heightMm: 500 }, finish.id);
    const mapped = finish.steps.filter(isMapped).slice(0, maps);
    return {
      ...part,
      maps: Object.fromEntries(mapped.map(({ id }, m) => [id, paintedMap(side, 31 * i + m)])),
    };
  });
  return { ...samplePlan(), name: 'Large', finishes, piece: { name: 'Large', bodies: [], parts } };
}
