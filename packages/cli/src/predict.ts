import { fault, findingWords, layerWord, moverText, type Plan, toModel, ZaffetError } from '@zaffet/contract';
import { parsePlan } from '@zaffet/contract/schemas';
import {
  type CoatForecast,
  forecast,
  type Forecast,
  metresToUm,
  readout,
  type StateTimes,
} from '@zaffet/core';
import { readFile } from 'node:fs/promises';

/** The forecast of a plan file as plain JSON: units in the names, instants in ISO 8601, null where nothing comes. */
export interface Prediction {
  readonly plan: string;
  readonly startsAt: string;
  readonly readyAt: string | null;
  readonly crackedCoat: string | null;
  readonly figures: readonly {
    key: string;
    unit: string;
    value: number | null;
    low: number | null;
    high: number | null;
    movers: string[];
  }[];
  readonly coats: readonly {
    id: string;
    medium: string;
    laidAt: string;
    dryThicknessUm: number;
    states: Record<keyof StateTimes, string | null>;
    window: { opensAt: string; closesAt: string | null } | null;
    firstCracksAt: string | null;
  }[];
  readonly findings: readonly { code: string; level: string; coat: string; text: string }[];
}

const UNITS: Readonly<Record<string, string>> = {
  spacing: 'mm',
  opening: 'mm',
  openArea: 'fraction',
  firstCracks: 's',
  strength: 'fraction',
};

async function readPlan(path: string): Promise<Plan> {
  let text: string;
  try {
    text = await readFile(path, 'utf8');
  } catch (error) {
    const reason =
      (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'there is no such file' : (error as Error).message;
    throw new ZaffetError({ ...fault('plan.not-a-plan'), message: `Cannot read it: ${reason}.` });
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new ZaffetError(fault('request.not-json'));
  }
  return parsePlan(value);
}

/**
 * Forecasts a plan file.
 * @throws ZaffetError when the file is missing, not JSON or not a plan, with every refused field
 */
export async function predict(path: string): Promise<Prediction> {
  const plan = await readPlan(path);
  const model = toModel(plan);
  const result = forecast(model);
  return describe(plan, result, readout(model, result));
}

function describe(plan: Plan, result: Forecast, figures: ReturnType<typeof readout>): Prediction {
  const start = Date.parse(plan.startsAt);
  const instant = (moment: number | null): string | null =>
    moment === null ? null : new Date(start + Math.round(moment) * 1000).toISOString();
  const layer = (id: string): string => layerWord(plan.steps, id);
  const scale = (key: string, value: number | null): number | null =>
    value === null ? null : UNITS[key] === 'mm' ? value * 1000 : value;
  return {
    plan: plan.name,
    startsAt: plan.startsAt,
    readyAt: instant(result.readyAt),
    crackedCoat: result.crackedCoat === null ? null : (result.coats[result.crackedCoat]?.coat.id ?? null),
    figures: figures.figures.map((figure) => ({
      key: figure.key,
      unit: UNITS[figure.key] ?? '',
      value: scale(figure.key, figure.value),
      low: scale(figure.key, figure.low),
      high: scale(figure.key, figure.high),
      movers: figure.movers.map((mover) => moverText(figure.key, mover, layer)),
    })),
    coats: result.coats.map((coat) => describeCoat(coat, instant)),
    findings: result.findings.map((finding) => {
      const words = findingWords(finding);
      return {
        code: finding.code,
        level: finding.level,
        coat: finding.coatId,
        text: [words.title, words.text, words.remedy].filter((part) => part !== '').join(' '),
      };
    }),
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
    dryThicknessUm: Math.round(metresToUm(coat.dryThickness) * 10) / 10,
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
  };
}
