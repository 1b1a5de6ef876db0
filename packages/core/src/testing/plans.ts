import { type Air } from '../air';
import {
  type Coat,
  type Cover,
  type Distress,
  type Heat,
  type PanelPlan,
  type Resist,
  type Rewet,
  type Seal,
  type StartRule,
  type StartState,
  type Step,
  type Wipe,
  type WorkTime,
} from '../plan';
import { type SubstrateKey } from '../media';
import { celsiusToKelvin } from '../units';

/** A typical room: 21 °C, 50 % relative humidity, still air. */
export function room(temperatureC = 21, humidity = 0.5, speed = 0.1, altitude = 0): Air {
  return { temperature: celsiusToKelvin(temperatureC), humidity, speed, altitude };
}

/** Work every day between two times of day [s], by a clock that stands so at the plan's start; for sixty days. */
export const everyDay = (opens: number, closes: number, clockAtStart: number): WorkTime =>
  Array.from({ length: 60 }, (_, day) => ({
    opens: day * 86400 + opens - clockAtStart,
    closes: day * 86400 + closes - clockAtStart,
  }));

export interface CoatOptions {
  readonly passes?: number;
  readonly dilution?: number;
  readonly strokes?: Coat['strokes'];
  readonly cover?: Cover;
  readonly bonding?: number;
  readonly lumps?: boolean;
  readonly colour?: string;
  readonly mixedAge?: number;
  readonly keptCold?: boolean;
}

const FULL: Cover = { style: 'full', share: 1 };

export function coat(
  id: string,
  medium: string,
  thicknessUm: number,
  start: StartRule,
  options: CoatOptions = {},
): Coat {
  return {
    id,
    kind: 'coat',
    medium,
    thickness: thicknessUm * 1e-6,
    dilution: options.dilution ?? 0,
    passes: options.passes ?? 2,
    strokes: options.strokes ?? 'one-way',
    cover: options.cover ?? FULL,
    bonding: options.bonding ?? 0,
    lumps: options.lumps ?? false,
    mixedAge: options.mixedAge ?? null,
    keptCold: options.keptCold ?? false,
    colour: options.colour ?? null,
    start,
  };
}

export function seal(
  id: string,
  medium: string,
  thicknessUm: number,
  start: StartRule,
  options: { coats?: number; buffAfter?: number | null; share?: number } = {},
): Seal {
  return {
    id,
    kind: 'seal',
    medium,
    thickness: thicknessUm * 1e-6,
    dilution: 0,
    passes: 1,
    strokes: 'one-way',
    cover: options.share === undefined ? FULL : { style: 'blotchy', share: options.share },
    colour: medium === 'darkWax' ? '#3a2c1e' : medium === 'whiteWax' ? '#f2efe8' : null,
    coats: options.coats ?? 1,
    buffAfter: options.buffAfter ?? null,
    start,
  };
}

export const resist = (
  id: string,
  agent: Resist['agent'],
  share: number,
  start: StartRule,
  where: Resist['where'] = 'all',
): Resist => ({
  id,
  kind: 'resist',
  agent,
  thickness: { candle: 8e-6, jelly: 40e-6, salt: 600e-6 }[agent],
  share,
  where,
  start,
});

export const heat = (id: string, tool: Heat['tool'], duration: number, start: StartRule): Heat => ({
  id,
  kind: 'heat',
  tool,
  duration,
  start,
});

export const rewet = (id: string, start: StartRule, amountUm = 30): Rewet => ({
  id,
  kind: 'rewet',
  amount: amountUm * 1e-6,
  start,
});

export const distress = (
  id: string,
  tool: Distress['tool'],
  start: StartRule,
  options: Partial<Omit<Distress, 'id' | 'kind' | 'tool' | 'start'>> = {},
): Distress => ({
  id,
  kind: 'distress',
  tool,
  grit: 220,
  rounds: 5,
  pressure: 1,
  where: 'all',
  smear: 0,
  start,
  ...options,
});

export const wipe = (id: string, start: StartRule, degrease = true): Wipe => ({
  id,
  kind: 'wipe',
  degrease,
  start,
});

export const FIRST: StartRule = { rule: 'at', moment: 0 };
export const after = (wait: number): StartRule => ({ rule: 'after', wait });
export const when = (state: StartState, wait = 0): StartRule => ({
  rule: 'state',
  state,
  wait,
});

export function planOf(
  steps: readonly Step[],
  air: Air = room(),
  substrate: SubstrateKey = 'sealed',
  seed = 7,
): PanelPlan {
  return {
    panel: {
      width: 0.6,
      height: 0.4,
      substrate,
      history: { handled: false, tannin: false, coat: 'none', age: 'years', condition: 'sound' },
      flat: true,
      use: 'display',
    },
    steps,
    air: [{ from: 0, ...air }],
    seed,
  };
}

/** Base, crackle medium, top coat at the medium's touch-dry. */
export function overMedium(
  mediumUm: number,
  topUm: number,
  air: Air = room(),
  options: CoatOptions = {},
): PanelPlan {
  return planOf(
    [
      coat('base', 'latex', 90, FIRST),
      coat('medium', 'crackle', mediumUm, when('through-dry')),
      coat('top', 'chalk', topUm, when('touch-dry'), options),
    ],
    air,
  );
}

/** Base, white glue, top coat a time after the glue. */
export function overGlue(
  glueUm: number,
  topUm: number,
  wait: number,
  air: Air = room(),
  options: CoatOptions = {},
): PanelPlan {
  return planOf(
    [
      coat('base', 'latex', 90, FIRST),
      coat('glue', 'pva', glueUm, when('through-dry')),
      coat('top', 'latex', topUm, after(wait), options),
    ],
    air,
  );
}
