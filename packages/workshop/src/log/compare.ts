import { type RunEvent, unfilePlan } from '@zaffet/contract';
import { type Basis } from '@zaffet/core/basis';
import { forecast } from '@zaffet/core/forecast';
import { coloursOf } from '@zaffet/core/outcome';
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

/** On how much of a part a colour was to be seen and was, as shares; null where it is not predicted, or nobody said. */
export interface ComparedColour {
  /** The step that put it on; `panel` is the bare surface. */
  readonly id: string;
  readonly planned: number | null;
  readonly done: number | null;
  readonly today: number | null;
  readonly measured: number | null;
}

export interface ComparedPart {
  readonly partId: string;
  readonly name: string;
  readonly figures: readonly ComparedFigure[];
  /** From the lowest; empty where nobody said how much of any is seen. */
  readonly colours: readonly ComparedColour[];
}

/** How much of a part each colour is seen on, from the lowest. */
function sharesOf(basis: Basis): ReadonlyMap<string, number> {
  return new Map(coloursOf(forecast(basis)).map(({ id, share }) => [id, share]));
}

/** The colours somebody said something of, beside what was predicted of them. */
function comparedColours(
  seen: Readonly<Record<string, number>> | undefined,
  planned: Basis,
  done: Basis | null,
  today: Basis | null,
): ComparedColour[] {
  if (seen === undefined) return [];
  const [was, came, now] = [planned, done, today].map((basis) => (basis === null ? null : sharesOf(basis)));
  return [...new Set([...was!.keys(), ...Object.keys(seen)])].map((id) => ({
    id,
    planned: was!.get(id) ?? null,
    done: came?.get(id) ?? null,
    today: now?.get(id) ?? null,
    measured: seen[id] ?? null,
  }));
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
    const basis = basisOf(partPlan(meant, id, null, circumstances));
    const worked = lastDone(run, id) === null ? null : carriedOutAtEnd(run, id);
    const [basisDone, basisToday] = [run.learned, learned].map(
      (factors) => worked?.basis(factors) ?? null,
    ) as [Basis | null, Basis | null];
    const planned = figuresOf(basis);
    const done = basisDone === null ? null : figuresOf(basisDone);
    const today = basisToday === null ? null : figuresOf(basisToday);
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
      colours: comparedColours(run.outcomes[id]?.shares, basis, basisDone, basisToday),
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
