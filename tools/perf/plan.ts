import { type Basis, onTables } from '@zaffet/core/basis';
import { forecast } from '@zaffet/core/forecast';
import { type MediumKey } from '@zaffet/core/media';
import { type Coat, type PanelPlan } from '@zaffet/core/plan';
import { Solver } from 'odex';
import { coat, FIRST, planOf, room, when } from '../../packages/core/src/testing/plans';
import { line, type PerfLine, race } from './report';

const HOURS = 5 * 24;
const STACK: readonly [MediumKey, number][] = [
  ['primer', 90],
  ['chalk', 80],
  ['crackle', 80],
  ['chalk', 90],
  ['latex', 90],
  ['pva', 110],
  ['latex', 100],
  ['clay', 80],
  ['crackle', 100],
  ['chalk', 110],
  ['craft', 60],
  ['hide', 80],
  ['chalk', 70],
  ['latex', 90],
  ['clay', 80],
];

/** Fifteen coats over five days whose air changes every hour. */
function heavyPlan(): PanelPlan {
  const coats = STACK.map(([medium, um], i): Coat =>
    coat(`c${i}`, medium, um, i === 0 ? FIRST : when('recoat', 3600)),
  );
  const air = Array.from({ length: HOURS }, (_, hour) => {
    const day = Math.sin((hour / 24) * 2 * Math.PI);
    return { from: hour * 3600, ...room(20 + 3 * day, 0.52 - 0.1 * day) };
  });
  return { ...planOf(coats), air };
}

const GROWTH_RUNS = 10_000;

/** What stays on the heap after many runs [MB], garbage collected before and after. */
function heapGrowth(basis: Basis, runs: number): number {
  const used = (): number => {
    globalThis.gc?.();
    return process.memoryUsage().heapUsed;
  };
  const before = used();
  for (let i = 0; i < runs; i++) forecast(basis);
  return (used() - before) / 1e6;
}

/** Reference: one coat dried by odex, an adaptive solver, to a relative tolerance of 1e-6. */
function odexCoat(): void {
  const s = 34.2;
  const free = 0.0279;
  const rate = (_t: number, [w]: number[]): number[] => {
    const total = w! + s;
    const diffusive = (((Math.PI ** 2 / 4) * 0.07 * Math.exp((20 * w!) / total)) / total ** 2) * (w! - 0.2);
    return [-(free * diffusive) / (free + diffusive)];
  };
  const solver = new Solver(1);
  solver.absoluteTolerance = 1e-6;
  solver.relativeTolerance = 1e-6;
  solver.solve(rate, 0, [55.8], 6000);
}

export const planLines: Record<string, () => PerfLine> = {
  'plan.closed-form': () => {
    const basis = onTables(heavyPlan());
    for (let i = 0; i < 60; i++) {
      forecast(basis);
      odexCoat();
    }
    const { subject, reference } = race(200, () => void forecast(basis), odexCoat);
    const grew = heapGrowth(basis, GROWTH_RUNS);
    const note = `15 coats, ${HOURS} h of hourly air, cracks, chips and shares of every coat; heap ${grew >= 0 ? '+' : ''}${grew.toFixed(1)} MB over ${GROWTH_RUNS} more runs; reference: one coat dried by odex at 1e-6`;
    return line('plan.closed-form', 'ms', subject, reference, 200, note);
  },
};
