import {
  type CompanionStep,
  type FilmPlanStep,
  isFilmStep,
  type PlanStep,
  tintOf,
  type UnitSystem,
} from '@zaffet/contract';
import { toolOf } from '@zaffet/core/tools';
import { type PartPlan } from '@zaffet/workshop';
import { duration, perCent, um } from './format';
import {
  BODY_NAMES,
  COVER_NAMES,
  MANNER_NAMES,
  mediumName,
  placedWords,
  PRINT_HOLDER_NAMES,
  SHEEN_NAMES,
  STROKE_NAMES,
  TASK_WORDS,
  WOOD_NAMES,
} from './names';

/** How a step is done on a part, clause by clause: what, how thick, how brushed, where. */
export function stepClauses(
  step: PlanStep,
  plan: Pick<PartPlan, 'media' | 'part'>,
  units: UnitSystem,
): string[] {
  const parts: string[] = [];
  if (isFilmStep(step)) {
    parts.push(mediumName(step.medium, plan.media), `${um(step.thicknessUm * 1e-6, units)} wet`);
    if (step.dilution > 0) parts.push(`thinned ${perCent(step.dilution)}`);
    if (step.dilution < 0) parts.push(`thickened by standing open, ${perCent(-step.dilution)} gone`);
    parts.push(...madeOf(step));
    parts.push(
      `${STROKE_NAMES[step.strokes].toLowerCase()}, ${step.passes} ${step.passes === 1 ? 'pass' : 'passes'}`,
    );
    if (step.cover.style !== 'full')
      parts.push(`${COVER_NAMES[step.cover.style].toLowerCase()}, ${perCent(step.cover.share)} covered`);
    if (step.kind === 'coat' && step.body !== null) parts.push(BODY_NAMES[step.body].toLowerCase());
    if (step.kind === 'seal' && step.coats > 1) parts.push(`${step.coats} coats`);
    if (step.kind === 'seal' && step.buffAfterMin !== null)
      parts.push(`buff after ${duration(step.buffAfterMin * 60)}`);
  } else if (step.kind === 'resist') parts.push(`on ${perCent(step.share)} of it`);
  else if (step.kind === 'heat') parts.push(`${step.durationS} s over each place, kept moving`);
  else if (step.kind === 'distress')
    parts.push(
      toolOf(step.tool).action === 'soften'
        ? `${step.rounds} min`
        : `${step.rounds} rounds, pressure ${step.pressure} of an ordinary hand`,
    );
  else if (step.kind === 'wait') parts.push(duration(step.durationMin * 60));
  else if (step.kind === 'rewet') parts.push(`${um(step.amountUm * 1e-6, units)} of water`);
  else if (step.kind === 'wipe')
    parts.push(step.degrease ? 'dry cloth, then grease-cutting wipes' : 'dry cloth');
  else parts.push(TASK_WORDS[step.task].how, `rests ${duration(step.restMin * 60)}`);
  const tint = tintOf(step);
  if (tint !== null) parts.push(`${tint.name || 'stain'} in the water`);
  parts.push(...placedWords(step));
  if (step.kind === 'companion') parts.push(...besideWords(step));
  if (step.id in plan.part.maps) parts.push('more here and less there, as on the map');
  if (step.note !== undefined && step.note !== '') parts.push(`remember: ${step.note}`);
  return parts;
}

export const stepDetail = (
  step: PlanStep,
  plan: Pick<PartPlan, 'media' | 'part'>,
  units: UnitSystem,
): string => stepClauses(step, plan, units).join('; ');

/** What belongs to one kind of work beside the layers alone. */
function besideWords({ wood, print }: CompanionStep): string[] {
  if (print !== null)
    return [`on ${print.on ?? 'all of the part'}, held by ${PRINT_HOLDER_NAMES[print.holds]}`];
  return wood === null ? [] : [`on ${WOOD_NAMES[wood].toLowerCase()}`];
}

/** What more goes into a film than its paint: colours beside each other, powder, a sheen of the tin. */
function madeOf(step: FilmPlanStep): readonly string[] {
  if (step.kind === 'seal') return step.sheen === null ? [] : [SHEEN_NAMES[step.sheen]];
  const { others, manner, texture } = step;
  const powder = texture === 0 ? [] : [`${perCent(texture)} of texture powder by volume`];
  if (others.length === 0) return powder;
  const named = others.map(({ name, colour, share }) => `${name || colour} ${perCent(share)}`);
  return [`with ${named.join(', ')}, ${MANNER_NAMES[manner].toLowerCase()}`, ...powder];
}
