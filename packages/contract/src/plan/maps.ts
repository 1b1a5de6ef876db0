import { type PanelMap } from '@zaffet/core/plan';
import { LIMITS } from './limits';
import { isFilmStep, type MappedStep, type StepMap } from './steps.types';

/** What a map of a step may hold, and what it holds where nothing was done about it. */
export interface MapRange {
  readonly min: number;
  readonly max: number;
  /** Per cent that the eraser goes back to. */
  readonly plain: number;
}

/**
 * A film may be left out or lie four times as thick; a resist covers no more than all; a place is worked harder or not
 * at all; hot air, water and a cloth go over it or not. */
export function mapRange(step: MappedStep): MapRange {
  if (isFilmStep(step)) {
    const { min, max } = LIMITS.filmMapPercent;
    return { min, max, plain: 100 };
  }
  if (step.kind !== 'resist' && step.kind !== 'distress') return { min: 0, max: 100, plain: 100 };
  const { min, max } = LIMITS.mapPercent;
  return step.kind === 'resist' ? { min, max: 100, plain: 0 } : { min, max, plain: 100 };
}

/** The first cell that is no whole number within a range; -1 where all are. */
export function badCell(cells: readonly unknown[], { min, max }: Pick<MapRange, 'min' | 'max'>): number {
  for (let i = 0; i < cells.length; i++) {
    const cell = cells[i];
    if (typeof cell !== 'number' || !Number.isInteger(cell) || cell < min || cell > max) return i;
  }
  return -1;
}

/** A map as it is filed: whole per cent, within what the step allows. */
export function filedMap(map: PanelMap, { min, max }: MapRange): StepMap {
  return {
    columns: map.columns,
    rows: map.rows,
    percent: map.values.map((value) => Math.min(max, Math.max(min, Math.round(value * 100)))),
  };
}
