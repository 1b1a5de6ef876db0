import { fault, isInstant, type Plan, ZaffetError } from '@zaffet/contract';
import { flakeSizeClass, flakingClass } from '@zaffet/core/chip';
import { handsOn } from '@zaffet/core/course';
import { type Zone, ZONES, zoneShares } from '@zaffet/core/plan';
import { type StateTimes } from '@zaffet/core/film';
import { type CoatForecast, forecast, type Forecast } from '@zaffet/core/forecast';
import { hazards } from '@zaffet/core/hazard';
import { AREAS } from '@zaffet/core/maps';
import { quantities } from '@zaffet/core/quantity';
import {
  type ColourFigure,
  explain,
  FIGURE_KEYS,
  type FigureKey,
  figureRow,
  type Predicted,
  type Quantity,
  type Readout,
  readout,
  type ZoneReadout,
} from '@zaffet/core/readout';
import { metresToMm, metresToUm } from '@zaffet/core/units';
import { FIGURE_WORDS, findingWords, hazardWords, layerWord, moverText } from '@zaffet/words';
import { type ShopData } from '@zaffet/core/basis';
import { basisOf, beginAt, type PartPlan, partPlan, shopKnowing, timetable } from '@zaffet/workshop';
import { parsePlan } from '@zaffet/contract/schemas';
import { learnedIn } from './calibrate';
import { readJsonFile } from './readJsonFile';

/** A predicted value with its 80 % band and what moves it, in words. */
export interface PredictedValue {
  readonly key: string;
  readonly unit: string;
  readonly value: number | null;
  readonly low: number | null;
  readonly high: number | null;
  readonly movers: readonly string[];
}

/** All that is seen, mixed by area; 8 in 10 boards come out within the distance. */
export interface PredictedColour {
  readonly mean: string;
  readonly withinDeltaE00: number;
  readonly movers: readonly string[];
}

export interface ZonePrediction {
  /** Of the panel's area. */
  readonly areaShare: number;
  readonly figures: readonly PredictedValue[];
  readonly layers: readonly PredictedValue[];
  readonly colour: PredictedColour;
}

/** The forecast of a plan file as plain JSON: units in the names, instants in ISO 8601, null where nothing comes. */
export interface Prediction {
  readonly plan: string;
  /** The part of the piece it is of. */
  readonly part: string;
  readonly startsAt: string;
  readonly readyAt: string | null;
  readonly crackedCoat: string | null;
  readonly figures: readonly PredictedValue[];
  /** The same of each zone of the panel. */
  readonly zones: Readonly<Record<Zone, ZonePrediction>>;
  readonly steps: readonly {
    id: string;
    kind: string;
    startsAt: string;
    endsAt: string;
    handsOnMin: number;
  }[];
  readonly coats: readonly {
    id: string;
    medium: string;
    laidAt: string;
    dryThicknessUm: number;
    states: Record<keyof StateTimes, string | null>;
    window: { opensAt: string; closesAt: string | null } | null;
    firstCracksAt: string | null;
    crackedShare: number | null;
    spacingMm: number | null;
    openingMm: number | null;
  }[];
  /** How much of each layer is seen, `panel` first; the shares add up to 1. */
  readonly layers: readonly (PredictedValue & { colour: string | null })[];
  readonly chips: readonly {
    belowStep: string;
    share: number;
    flakeMm: number;
    flakingClass: number;
    sizeClass: number;
  }[];
  readonly removals: readonly { step: string; share: number; depthUm: number; effort: number | null }[];
  readonly colour: PredictedColour;
  readonly quantities: readonly {
    step: string;
    medium: string;
    volumeMl: number;
    waterMl: number;
    powderMl: number | null;
    massG: number;
    spreadM2PerL: number;
    keepsHours: number;
    cost: number | null;
  }[];
  readonly findings: readonly { code: string; level: string; step: string; text: string }[];
  readonly hazards: readonly {
    code: string;
    steps: readonly string[];
    title: string;
    cautions: readonly string[];
  }[];
}

const UNITS: Readonly<Record<Quantity, string>> = {
  length: 'mm',
  time: 's',
  share: 'fraction',
  gloss: 'GU',
  difference: 'deltaE00',
};

/** Which part of a plan, by its id or name, the first when none is told; and when the plan begins, where not as filed. */
export interface Asked {
  readonly part?: string;
  readonly at?: string;
  /** A calibration file: what the shop has learned. */
  readonly knowing?: string;
}

/** What the shop is said to know. @throws ZaffetError as `learnedIn` */
export const shopOf = async ({ knowing }: Asked): Promise<ShopData> =>
  shopKnowing(knowing === undefined ? null : await learnedIn(knowing));

/** Reads a plan file, begun when it is asked to. @throws ZaffetError as `predict` */
export async function readWholePlan(path: string, { at }: Asked): Promise<Plan> {
  const value = await readJsonFile(path);
  if (at !== undefined && !isInstant(at)) {
    throw new ZaffetError({
      ...fault('plan.invalid'),
      message: `--at is "${at}"; it must be a date and time such as 2026-05-12T08:30:00Z.`,
    });
  }
  const filed = parsePlan(value);
  return at === undefined ? filed : beginAt(filed, new Date(at).toISOString());
}

/** Reads a plan file and takes of it the part that is asked for, with its moments by the timetable. */
async function readPlan(path: string, asked: Asked): Promise<PartPlan> {
  const plan = await readWholePlan(path, asked);
  const { part: partName } = asked;
  const part = plan.piece.parts.find(
    ({ id, name }) => partName === undefined || id === partName || name === partName,
  );
  if (part === undefined) {
    const names = plan.piece.parts.map(({ name }) => name).join(', ');
    throw new ZaffetError({
      ...fault('plan.invalid'),
      message: `There is no part ${partName}. Ask for one of ${names}.`,
    });
  }
  return partPlan(plan, part.id, null, timetable(plan, { shop: await shopOf(asked) }).circumstances);
}

/**
 * Forecasts a part of a plan file, the first when none is named.
 * @throws ZaffetError when the file is missing, not JSON or not a plan, with every refused field
 */
export async function predict(path: string, asked: Asked = {}): Promise<Prediction> {
  return predictionOf(await readPlan(path, asked));
}

/** What is predicted of a part of a plan. @throws InputError as `forecast` */
export function predictionOf(plan: PartPlan): Prediction {
  const basis = basisOf(plan);
  const result = forecast(basis);
  return describe(plan, result, readout(basis, result));
}

/** What one figure or layer hangs on, all its knobs in words. */
export type Explanation = PredictedValue & { readonly name: string; readonly meaning: string };

/**
 * Explains one figure of a plan, or how much of one layer is seen.
 * @param figure - a figure's key, a step's id, or `panel`
 * @param area - `panel` for all of it, or a zone
 * @throws ZaffetError as `predict`, and when there is no such figure
 */
export async function explainFigure(
  path: string,
  figure: string,
  area = 'panel',
  of: Asked = {},
): Promise<Explanation> {
  const asked = AREAS.find((known) => known === area);
  if (asked === undefined) {
    throw new ZaffetError({
      ...fault('plan.invalid'),
      message: `There is no zone ${area}. Ask for one of ${AREAS.join(', ')}.`,
    });
  }
  const plan = await readPlan(path, of);
  const basis = basisOf(plan);
  const known = (FIGURE_KEYS as readonly string[]).includes(figure);
  const predicted = explain(basis, figure, asked);
  if (predicted === null) {
    const layers = forecast(basis).layers.map((layer) => layer.id);
    throw new ZaffetError({
      ...fault('plan.invalid'),
      message: `There is no figure ${figure}. Ask for one of ${FIGURE_KEYS.join(', ')}, or a layer: ${layers.join(', ')}.`,
    });
  }
  const key = known ? (figure as FigureKey) : 'layer';
  return {
    name: key === 'layer' ? layerWord(plan.steps, figure, plan.media) : FIGURE_WORDS[key].name,
    meaning: key === 'layer' ? 'Share of the panel on which this layer is seen.' : FIGURE_WORDS[key].meaning,
    ...valueOf(figure, key, predicted, plan),
  };
}

function valueOf(
  name: string,
  key: FigureKey | 'layer',
  predicted: Predicted,
  plan: PartPlan,
): PredictedValue {
  const unit = key === 'layer' ? 'fraction' : UNITS[figureRow(key).quantity];
  const scale = (value: number | null): number | null =>
    value === null ? null : unit === 'mm' ? value * 1000 : value;
  return {
    key: name,
    unit,
    value: scale(predicted.value),
    low: scale(predicted.low),
    high: scale(predicted.high),
    movers: predicted.movers.map((mover) =>
      moverText(key, mover, (id) => layerWord(plan.steps, id, plan.media), 'metric'),
    ),
  };
}

function colourOf({ colour, within, movers }: ColourFigure, plan: PartPlan): PredictedColour {
  return {
    mean: colour,
    withinDeltaE00: tenth(within),
    movers: movers.map((mover) =>
      moverText('colour', mover, (id) => layerWord(plan.steps, id, plan.media), 'metric'),
    ),
  };
}

function zoneOf(told: ZoneReadout, areaShare: number, plan: PartPlan): ZonePrediction {
  return {
    areaShare,
    figures: told.figures.map((figure) => valueOf(figure.key, figure.key, figure, plan)),
    layers: told.layers.map((layer) => valueOf(layer.layerId, 'layer', layer, plan)),
    colour: colourOf(told.colour, plan),
  };
}

const tenth = (value: number): number => Math.round(value * 10) / 10;

function describe(plan: PartPlan, result: Forecast, figures: Readout): Prediction {
  const { plan: model } = result.course;
  const start = Date.parse(plan.startsAt);
  const instant = (moment: number | null): string | null =>
    moment === null ? null : new Date(start + Math.round(moment) * 1000).toISOString();
  return {
    plan: plan.name,
    part: plan.part.name,
    startsAt: plan.startsAt,
    readyAt: instant(result.readyAt),
    crackedCoat: result.crackedCoat === null ? null : (result.coats[result.crackedCoat]?.coat.id ?? null),
    figures: figures.panel.figures.map((figure) => valueOf(figure.key, figure.key, figure, plan)),
    zones: Object.fromEntries(
      ZONES.map((zone) => [zone, zoneOf(figures[zone], zoneShares(model.panel)[zone], plan)]),
    ) as Record<Zone, ZonePrediction>,
    steps: result.times.map(({ step, from, until }) => ({
      id: step.id,
      kind: step.kind,
      startsAt: instant(from) ?? '',
      endsAt: instant(until) ?? '',
      handsOnMin: tenth(handsOn(step, model.panel) / 60),
    })),
    coats: result.coats.map((coat) => describeCoat(coat, instant)),
    layers: result.layers.map((layer) => ({
      ...valueOf(
        layer.id,
        'layer',
        figures.panel.layers.find((l) => l.layerId === layer.id)!,
        plan,
      ),
      colour: result.appearance.layers.find((look) => look.id === layer.id)?.seen ?? null,
    })),
    chips: result.chips.map((chip) => ({
      belowStep: result.coats[chip.film]?.coat.id ?? '',
      share: chip.share,
      flakeMm: tenth(chip.size * 1000),
      flakingClass: flakingClass(chip.share),
      sizeClass: flakeSizeClass(chip.size),
    })),
    removals: result.removals.map((removal) => ({
      step: removal.stepId,
      share: removal.share,
      depthUm: tenth(metresToUm(removal.depth)),
      effort: removal.effort,
    })),
    colour: colourOf(figures.panel.colour, plan),
    quantities: quantities(model, plan.prices).map((quantity) => ({
      step: quantity.stepId,
      medium: quantity.medium,
      volumeMl: tenth(quantity.volume * 1e6),
      waterMl: tenth(quantity.water * 1e6),
      powderMl: quantity.powder === null ? null : tenth(quantity.powder * 1e6),
      massG: tenth(quantity.mass * 1e3),
      spreadM2PerL: tenth(quantity.spreadRate / 1000),
      keepsHours: tenth(quantity.keeps / 3600),
      cost: quantity.cost,
    })),
    findings: result.findings.map((finding) => {
      const words = findingWords(finding, 'metric');
      return {
        code: finding.code,
        level: finding.level,
        step: finding.stepId,
        text: [words.title, words.text, words.remedy].filter((part) => part !== '').join(' '),
      };
    }),
    hazards: hazards(model).map(({ code, stepIds }) => ({ code, steps: stepIds, ...hazardWords(code) })),
  };
}

function describeCoat(
  coat: CoatForecast,
  instant: (moment: number | null) => string | null,
): Prediction['coats'][number] {
  const { states } = coat;
  return {
    id: coat.coat.id,
    medium: coat.coat.medium,
    laidAt: instant(coat.laidAt) ?? '',
    dryThicknessUm: tenth(metresToUm(coat.dryThickness)),
    states: {
      matte: instant(states.matte),
      tacky: instant(states.tacky),
      skinned: instant(states.skinned),
      touch: instant(states.touch),
      recoat: instant(states.recoat),
      through: instant(states.through),
      cured: instant(states.cured),
    },
    window:
      coat.window === null
        ? null
        : { opensAt: instant(coat.window.opensAt) ?? '', closesAt: instant(coat.window.closesAt) },
    firstCracksAt: instant(coat.crack?.firstAt ?? null),
    crackedShare: coat.crack?.crackedShare ?? null,
    spacingMm: coat.crack && metresToMm(coat.crack.spacing),
    openingMm: coat.crack && metresToMm(coat.crack.opening),
  };
}
