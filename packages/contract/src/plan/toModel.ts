import {
  type AirSample,
  celsiusToKelvin,
  type Coat,
  minutesToSeconds,
  mmToMetres,
  type PanelPlan,
  umToMetres,
} from '@zaffet/core';
import { type CoatStep, type Plan } from './types';

const secondsBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 1000;

function coatOf(step: CoatStep, startsAt: string): Coat {
  const { start } = step;
  return {
    id: step.id,
    medium: step.medium,
    thickness: umToMetres(step.thicknessUm),
    dilution: step.dilution,
    passes: step.passes,
    strokes: step.strokes,
    start:
      start.rule === 'at'
        ? { rule: 'at', moment: Math.max(0, secondsBetween(startsAt, start.at)) }
        : start.rule === 'after'
          ? { rule: 'after', wait: minutesToSeconds(start.waitMin) }
          : { rule: 'state', state: start.state, wait: minutesToSeconds(start.waitMin) },
  };
}

/** A plan in the core's terms: SI, moments in seconds from its start. */
export function toModel(plan: Plan): PanelPlan {
  const part = plan.piece.parts[0];
  const constant = { speed: plan.air.draughtMS, altitude: plan.air.altitudeM };
  const first: AirSample = {
    from: 0,
    temperature: celsiusToKelvin(plan.air.temperatureC),
    humidity: plan.air.humidity,
    ...constant,
  };
  const later = plan.air.later
    .map((sample) => ({
      from: secondsBetween(plan.startsAt, sample.at),
      temperature: celsiusToKelvin(sample.temperatureC),
      humidity: sample.humidity,
      ...constant,
    }))
    .filter((sample) => sample.from > 0);
  return {
    panel: {
      width: mmToMetres(part.widthMm),
      height: mmToMetres(part.heightMm),
      substrate: part.substrate,
      history: part.history,
    },
    coats: plan.steps.map((step) => coatOf(step, plan.startsAt)),
    air: [first, ...later],
    seed: plan.seed,
  };
}
