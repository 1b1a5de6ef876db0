import { type FilmStep, isFilm, type PanelSize, type Step, workedArea } from '../plan';
import { toolOf } from '../tools';
import { SECONDS_PER_MINUTE } from '../units';

/** Paces of a working hand [m²/min]; assumed. */
export const PACE = { brush: 0.12, wipe: 0.15 } as const;

/**
 * Beside the brush on the wood [s]: fetching and pouring for a coat and washing the brush after it; a clean cloth,
 * fetching the piece for the rest; common practice.
 */
const AROUND = { film: 60, washing: 90, work: 60 } as const;
/** Cutting in along the rims [s/m]; common practice. */
const CUTTING_IN = 12;

/** How long the hands are at a step, with all that goes round it [s]: over the places it goes to. */
export function handsOn(step: Step, panel: PanelSize): number {
  return atPiece(step, panel) + AROUND.washing * (isFilm(step) ? coatsOf(step) : 0);
}

/** How long the hands are at the piece for a step, brushes washed elsewhere [s]. */
export function atPiece(step: Step, panel: PanelSize): number {
  if (step.kind === 'wait' || step.kind === 'companion') return working(step, panel);
  if (!isFilm(step)) return working(step, panel) + AROUND.work;
  const cuttingIn = CUTTING_IN * 4 * Math.sqrt(workedArea(step, panel));
  return working(step, panel) + coatsOf(step) * (AROUND.film + cuttingIn);
}

const coatsOf = (step: FilmStep): number => (step.kind === 'seal' ? step.coats : 1);

/** How long tool or brush are on the work [s]. */
export function working(step: Step, panel: PanelSize): number {
  const area = workedArea(step, panel);
  switch (step.kind) {
    case 'coat':
      return (area / PACE.brush) * SECONDS_PER_MINUTE * Math.max(0.3, step.cover.share);
    case 'seal':
      return (area / PACE.brush) * SECONDS_PER_MINUTE * step.coats * Math.max(0.3, step.cover.share);
    case 'resist':
      return (area / PACE.wipe) * SECONDS_PER_MINUTE * Math.max(0.1, step.share);
    case 'distress': {
      const { action, pace } = toolOf(step.tool);
      return action === 'soften'
        ? step.rounds * SECONDS_PER_MINUTE
        : (step.rounds * area * SECONDS_PER_MINUTE) / pace;
    }
    case 'wipe':
      return (area / PACE.wipe) * SECONDS_PER_MINUTE;
    case 'rewet':
      return (area / PACE.brush) * SECONDS_PER_MINUTE * 0.3;
    case 'heat':
      return step.duration;
    case 'wait':
      return 0;
    case 'companion':
      return step.hands;
  }
}

/** How long a step takes before the next may follow it "after" [s]; films count from when they are laid. */
export function lasts(step: Step, panel: PanelSize): number {
  if (isFilm(step)) return 0;
  if (step.kind === 'wait') return step.duration;
  return working(step, panel) + (step.kind === 'companion' ? step.rest : 0);
}
