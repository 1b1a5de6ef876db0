import {
  COVER_NAMES,
  duration,
  FIGURE_WORDS,
  figureText,
  findingWords,
  HAZARD_DEFERENCE,
  hazardWords,
  isFilmStep,
  layerWord,
  mediumName,
  perCent,
  type PartPlan,
  partPlan,
  type Plan,
  type PlanStep,
  stepTitle,
  STROKE_NAMES,
  toModel,
  um,
  volume,
} from '@zaffet/contract';
import { forecast, handsOn, hazards, type Quantity, quantities, readout } from '@zaffet/core';

/** What a job sheet says, section by section, before it is laid out. */
export interface JobSheet {
  readonly title: string;
  readonly subtitle: string;
  readonly steps: readonly {
    readonly number: number;
    readonly at: string;
    readonly title: string;
    readonly detail: string;
    readonly lookFor: string;
    readonly colour: string | null;
  }[];
  readonly mixes: readonly { readonly title: string; readonly amount: string; readonly detail: string }[];
  readonly figures: readonly { readonly name: string; readonly value: string; readonly band: string }[];
  readonly layers: readonly { readonly name: string; readonly share: string }[];
  readonly notes: readonly { readonly title: string; readonly text: string }[];
  readonly cautions: readonly {
    readonly title: string;
    readonly steps: string;
    readonly lines: readonly string[];
  }[];
  readonly deference: string;
}

const SEEN = 0.004;

/** Moments as the shop's clock shows them; an unknown zone is taken as UTC. */
function clockIn(zone: string): (moment: number) => string {
  const options = {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  } as const;
  try {
    const format = new Intl.DateTimeFormat('en-GB', { ...options, timeZone: zone });
    return (moment) => format.format(moment);
  } catch {
    const format = new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' });
    return (moment) => `${format.format(moment)} UTC`;
  }
}

/**
 * Everything a painter takes to the bench for a plan: what when, how thick, what to mix, what to beware of.
 * @param zone - the shop's time zone, an IANA name such as `Europe/Lisbon`
 */
export function jobSheet(filed: Plan, zone: string): JobSheet {
  const plan = partPlan(filed);
  const model = toModel(plan);
  const result = forecast(model);
  const told = readout(model, result).panel;
  const start = Date.parse(plan.startsAt);
  const format = clockIn(zone);
  const clock = (moment: number): string => format(start + moment * 1000);
  const { part } = plan;
  const used = quantities(model, plan.prices);
  return {
    title: plan.name,
    subtitle: `${part.name}, ${part.widthMm} × ${part.heightMm} mm. Begins ${clock(0)}, done ${
      result.readyAt === null ? 'never in this air' : clock(result.readyAt)
    }; ${duration(model.steps.reduce((sum, step) => sum + handsOn(step, model.panel.width * model.panel.height), 0))} with the hands. Shop ${plan.air.temperatureC}\u00a0°C, ${perCent(plan.air.humidity)} relative humidity.`,
    steps: plan.steps.map((step, i) => {
      const times = result.times[i]!;
      const coat = result.coats.find(({ coat: laid }) => laid.id === step.id);
      const window = coat?.window;
      return {
        number: i + 1,
        at: clock(times.from),
        title: stepTitle(step, plan.media),
        detail: detailOf(step, plan),
        lookFor:
          window == null
            ? ''
            : `takes the next coat from ${clock(window.opensAt)}${
                window.closesAt === null ? '' : ` until ${clock(window.closesAt)} at the latest`
              }`,
        colour: isFilmStep(step) ? step.colour : null,
      };
    }),
    mixes: used.map((item) => ({
      title: stepTitle(
        plan.steps.find(({ id }) => id === item.stepId)!,
        plan.media,
      ),
      amount: volume(item.volume),
      detail: mixOf(item, plan),
    })),
    figures: told.figures
      .filter(({ key, value }) => value !== null && (value > SEEN || key === 'gloss'))
      .map(({ key, value, low, high }) => {
        const text = (amount: number): string => {
          const { number, unit } = figureText(key, amount);
          return `${number} ${unit}`.trim();
        };
        return {
          name: FIGURE_WORDS[key].name,
          value: text(value!),
          band: low === null || high === null ? '' : `${text(low)} to ${text(high)}`,
        };
      }),
    layers: result.layers
      .filter(({ share }) => share > SEEN)
      .map(({ id, share }) => ({
        name: id === 'panel' ? 'the panel itself' : layerWord(plan.steps, id, plan.media),
        share: perCent(share),
      })),
    notes: result.findings
      .filter(({ level }) => level === 'stop' || level === 'warn')
      .map((finding) => {
        const { title, text, remedy } = findingWords(finding);
        return { title, text: `${text} ${remedy}`.trim() };
      }),
    cautions: hazards(model).map(({ code, stepIds }) => {
      const { title, cautions } = hazardWords(code);
      const names = stepIds.flatMap((id) => {
        const step = plan.steps.find((candidate) => candidate.id === id);
        return step === undefined ? [] : [stepTitle(step, plan.media)];
      });
      return { title, steps: [...new Set(names)].join(', '), lines: cautions };
    }),
    deference: HAZARD_DEFERENCE,
  };
}

function detailOf(step: PlanStep, plan: PartPlan): string {
  const parts: string[] = [];
  if (isFilmStep(step)) {
    parts.push(mediumName(step.medium, plan.media), `${um(step.thicknessUm * 1e-6)} wet`);
    if (step.dilution > 0) parts.push(`thinned ${perCent(step.dilution)}`);
    parts.push(
      `${STROKE_NAMES[step.strokes].toLowerCase()}, ${step.passes} ${step.passes === 1 ? 'pass' : 'passes'}`,
    );
    if (step.cover.style !== 'full')
      parts.push(`${COVER_NAMES[step.cover.style].toLowerCase()}, ${perCent(step.cover.share)} covered`);
    if (step.kind === 'seal' && step.coats > 1) parts.push(`${step.coats} coats`);
    if (step.kind === 'seal' && step.buffAfterMin !== null)
      parts.push(`buff after ${duration(step.buffAfterMin * 60)}`);
  } else if (step.kind === 'resist') parts.push(`on ${perCent(step.share)} of the place`);
  else if (step.kind === 'heat') parts.push(`${step.durationS} s over each place, kept moving`);
  else if (step.kind === 'distress')
    parts.push(
      step.tool === 'bleach'
        ? `${step.rounds} min`
        : `${step.rounds} rounds, pressure ${step.pressure} of an ordinary hand`,
    );
  else if (step.kind === 'wait') parts.push(duration(step.durationMin * 60));
  else if (step.kind === 'rewet') parts.push(`${step.amountUm} µm of water`);
  if (step.id in plan.part.maps) parts.push('more here and less there, as painted on the panel');
  return parts.join('; ');
}

function mixOf(item: Quantity, plan: PartPlan): string {
  const parts = [mediumName(item.medium, plan.media)];
  if (item.powder !== null) parts.push(`from ${volume(item.powder)} powder and as much water`);
  if (item.water > 0) parts.push(`${volume(item.water)} of it water stirred in`);
  if (item.keeps < 30 * 86400) parts.push(`keeps ${duration(item.keeps)} at 21\u00a0°C`);
  return parts.join('; ');
}
