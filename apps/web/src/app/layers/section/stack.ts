import { type FilmPlanStep, isFilmStep, LIMITS, type PlanStep, type UnitSystem } from '@zaffet/contract';
import { type CoatForecast, type Forecast } from '@zaffet/core/forecast';
import { isClear } from '@zaffet/core/media';
import {
  COVER_NAMES,
  perCent,
  placedWords,
  ROUND_NAMES,
  SHEEN_NAMES,
  stepTitle,
  STROKE_NAMES,
  substrateName,
  um,
} from '@zaffet/words';
import { type PartPlan } from '@zaffet/workshop';

/** One film as the Section draws it, heights in µm above the panel. */
export interface Slab {
  readonly id: string;
  readonly title: string;
  readonly detail: string;
  readonly note: string;
  readonly colour: string;
  readonly clear: boolean;
  readonly bottomUm: number;
  readonly topUm: number;
  readonly wetTopUm: number;
  readonly wetUm: number;
  readonly dryUm: number;
  /** Wet per dry thickness: how far the wet surface moves when the dry one is dragged. */
  readonly wetPerDry: number;
  /** Share of the width it covers, as drawn. */
  readonly share: number;
  /** Cracked open, as seen cut through; null where it is not. */
  readonly cracked: { readonly openShare: number } | null;
}

/** What is done to the stack between two films, drawn at the surface it is done to. */
export interface Mark {
  readonly id: string;
  readonly kind: PlanStep['kind'];
  readonly title: string;
  readonly note: string;
  readonly atUm: number;
  /** Share of the width it reaches, for resists. */
  readonly share: number;
}

export interface Stack {
  readonly slabs: readonly Slab[];
  readonly marks: readonly Mark[];
  readonly substrate: string;
  readonly totalUm: number;
}

function noteOf(step: FilmPlanStep, clear: boolean): string {
  const words: string[] = [...placedWords(step)];
  if (step.cover.share < 0.995)
    words.push(`${COVER_NAMES[step.cover.style].toLowerCase()} ${perCent(step.cover.share)}`);
  else if (step.kind === 'coat') words.push(STROKE_NAMES[step.strokes].toLowerCase());
  if (step.kind === 'coat' && !clear) words.push(`${step.passes} ${step.passes === 1 ? 'pass' : 'passes'}`);
  if (step.dilution > 0) words.push(`${perCent(step.dilution)} water`);
  if (step.dilution < 0) words.push(`${perCent(-step.dilution)} water gone`);
  if (step.kind === 'coat' && step.others.length > 0) words.push(`${step.others.length + 1} colours`);
  if (step.kind === 'seal' && step.sheen !== null) words.push(SHEEN_NAMES[step.sheen]);
  if (step.kind === 'seal' && step.coats > 1) words.push(`${step.coats} coats`);
  if (step.kind === 'seal' && step.buffAfterMin !== null) words.push(`buffed`);
  return words.join(', ');
}

/** What a step that lays no film does, in few words. */
export const markNote = (step: PlanStep, units: UnitSystem): string =>
  [doneSo(step, units), ...placedWords(step)].join(', ');

function doneSo(step: PlanStep, units: UnitSystem): string {
  switch (step.kind) {
    case 'resist':
      return `${perCent(step.share)} covered`;
    case 'heat':
      return `${step.durationS} s, kept moving`;
    case 'rewet':
      return `${um(step.amountUm * 1e-6, units)} of water`;
    case 'distress':
      return `${step.rounds} ${ROUND_NAMES[step.tool].toLowerCase()}`;
    case 'wipe':
      return step.degrease ? 'cloth, then grease-cutting wipes' : 'dry cloth';
    case 'wait':
      return `${step.durationMin} min`;
    case 'companion':
      return `${step.handsMin} min of work`;
    case 'coat':
    case 'seal':
      return '';
  }
}

/** The stack cut through, from the ground up. */
export function stackOf(plan: PartPlan, forecast: Forecast, units: UnitSystem): Stack {
  let height = 0;
  const films = new Map(forecast.coats.map((coat, i) => [coat.coat.id, { coat, i }]));
  const slabs: Slab[] = [];
  const marks: Mark[] = [];
  for (const step of plan.steps) {
    const film = films.get(step.id);
    if (isFilmStep(step) && film !== undefined) {
      const slab = slabOf(plan, step, film.coat, forecast.crackedCoat === film.i, height, units);
      slabs.push(slab);
      height = slab.topUm;
    } else {
      marks.push({
        id: step.id,
        kind: step.kind,
        title: stepTitle(step, plan.media),
        note: markNote(step, units),
        atUm: height,
        share: step.kind === 'resist' ? step.share : 1,
      });
    }
  }
  return { slabs, marks, substrate: substrateName(plan.part.substrate), totalUm: height };
}

function slabOf(
  plan: PartPlan,
  step: FilmPlanStep,
  coat: CoatForecast,
  cracked: boolean,
  bottomUm: number,
  units: UnitSystem,
): Slab {
  const dryUm = coat.dryThickness * 1e6;
  const clear = isClear(coat.medium);
  return {
    id: step.id,
    title: stepTitle(step, plan.media),
    detail: `${um(step.thicknessUm / 1e6, units).split(' ')[0]} wet → ${um(coat.dryThickness, units).split(' ')[0]} dry`,
    note: noteOf(step, clear),
    colour: step.colour,
    clear,
    bottomUm,
    topUm: bottomUm + dryUm,
    wetTopUm: bottomUm + step.thicknessUm,
    wetUm: step.thicknessUm,
    dryUm,
    wetPerDry: step.thicknessUm / Math.max(dryUm, LIMITS.thicknessUm.min / 100),
    share: step.cover.share,
    cracked: cracked && coat.crack ? { openShare: coat.crack.openArea } : null,
  };
}
