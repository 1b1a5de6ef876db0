import { type RunEvent, unfilePlan } from '@zaffet/contract';
import { type Basis } from '@zaffet/core/basis';
import { forecast } from '@zaffet/core/forecast';
import { type Learned } from '@zaffet/core/media';
import { bandedFigures, type Figure } from '@zaffet/core/readout';
import { mmToMetres } from '@zaffet/core/units';
import { basisOf } from '../basis';
import { carriedOutAtEnd, lastDone } from '../boards/photo';
import { partPlan, shopKnowing } from '../partPlan';
import { timetable } from '../timetable';
import { foldRun, type Run } from '../runs/fold';
import { schoolOf } from './likeness';

/** Figures that a ruler, an eye or a photograph can tell. */
export const MEASURED_FIGURES = ['spacing', 'opening', 'chips', 'worn'] as const;
export type MeasuredFigure = (typeof MEASURED_FIGURES)[number];

/** What was foretold of a part and what came out; lengths in m, shares 0 … 1; null where it is not foretold, or nobody measured. */
export interface ComparedFigure {
  readonly key: MeasuredFigure;
  /** As it was planned when the run began, by what the shop knew then. */
  readonly planned: Figure | null;
  /** As it was carried out, by what the shop knew then; and by what it knows today. */
  readonly done: Figure | null;
  readonly today: Figure | null;
  readonly measured: number | null;
}

export interface ComparedPart {
  readonly partId: string;
  readonly name: string;
  readonly figures: readonly ComparedFigure[];
}

function figuresOf(basis: Basis): (key: MeasuredFigure) => Figure | null {
  const all = bandedFigures(basis, forecast(basis));
  return (key) => {
    const figure = all.find((one) => one.key === key);
    return figure === undefined || figure.value === null ? null : figure;
  };
}

function measuredOf(run: Run, partId: string, key: MeasuredFigure): number | null {
  const told = run.outcomes[partId];
  if (told === undefined) return null;
  const length = (mm: number | null): number | null => (mm === null ? null : mmToMetres(mm));
  return {
    spacing: length(told.spacingMm),
    opening: length(told.openingMm),
    chips: told.chipped,
    worn: told.worn,
  }[key];
}

/**
 * What was planned, what was done, what the tables say of it today and what was measured, part by part.
 * @param learned - what the shop knows today
 * @throws InputError as `forecast`
 */
export function compareRun(events: readonly RunEvent[], learned: Learned | null): ComparedPart[] {
  const run = foldRun(events);
  const begun = events.find(({ kind }) => kind === 'run-begun');
  if (run === null || begun?.kind !== 'run-begun') return [];
  const meant = unfilePlan(begun.plan);
  const { circumstances } = timetable(meant, { shop: shopKnowing(run.learned) });
  return run.plan.piece.parts.map(({ id, name }) => {
    const planned = figuresOf(basisOf(partPlan(meant, id, null, circumstances)));
    const worked = lastDone(run, id) === null ? null : carriedOutAtEnd(run, id);
    const done = worked === null ? null : figuresOf(worked.basis(run.learned));
    const today = worked === null ? null : figuresOf(worked.basis(learned));
    return {
      partId: id,
      name,
      figures: MEASURED_FIGURES.map((key) => ({
        key,
        planned: planned(key),
        done: done?.(key) ?? null,
        today: today?.(key) ?? null,
        measured: measuredOf(run, id, key),
      })),
    };
  });
}

/** A figure that was foretold of a part as it was carried out, and then measured. */
export interface Kept {
  readonly key: MeasuredFigure;
  readonly runId: string;
  readonly name: string;
  readonly part: string;
  readonly school: string | null;
  /** When it was done [ms since 1970]. */
  readonly at: number;
  readonly measured: number;
  readonly foretold: Figure;
  /** Inside the band in which 8 of 10 should be. */
  readonly inside: boolean;
}

/** How what was foretold of a run, by what the shop knew then, came out. @throws InputError as `forecast` */
export function keptOf(runId: string, events: readonly RunEvent[]): Kept[] {
  const run = foldRun(events);
  if (run === null || Object.keys(run.outcomes).length === 0) return [];
  return run.plan.piece.parts.flatMap(({ id, name, finish }): Kept[] => {
    if (run.outcomes[id] === undefined || lastDone(run, id) === null) return [];
    const figures = figuresOf(carriedOutAtEnd(run, id).basis(run.learned));
    const steps = run.plan.finishes.find((one) => one.id === finish)!.steps;
    return MEASURED_FIGURES.flatMap((key): Kept[] => {
      const [measured, foretold] = [measuredOf(run, id, key), figures(key)];
      if (measured === null || foretold === null || foretold.low === null || foretold.high === null)
        return [];
      return [
        {
          key,
          runId,
          name: run.plan.name,
          part: name,
          school: schoolOf(steps, run.plan.media),
          at: run.finishedAt ?? run.begunAt,
          measured,
          foretold,
          inside: measured >= foretold.low && measured <= foretold.high,
        },
      ];
    });
  });
}
