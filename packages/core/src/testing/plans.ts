import { type Air } from '../air';
import { type Coat, type PanelPlan, type StartRule } from '../plan';
import { type MediumKey, type SubstrateKey } from '../media';
import { celsiusToKelvin } from '../units';

/** A typical room: 21 °C, 50 % relative humidity, still air. */
export function room(temperatureC = 21, humidity = 0.5, speed = 0.1, altitude = 0): Air {
  return { temperature: celsiusToKelvin(temperatureC), humidity, speed, altitude };
}

export interface CoatOptions {
  readonly passes?: number;
  readonly dilution?: number;
  readonly strokes?: Coat['strokes'];
}

export function coat(
  id: string,
  medium: MediumKey,
  thicknessUm: number,
  start: StartRule,
  options: CoatOptions = {},
): Coat {
  return {
    id,
    medium,
    thickness: thicknessUm * 1e-6,
    dilution: options.dilution ?? 0,
    passes: options.passes ?? 2,
    strokes: options.strokes ?? 'one-way',
    start,
  };
}

export const FIRST: StartRule = { rule: 'at', moment: 0 };
export const after = (wait: number): StartRule => ({ rule: 'after', wait });
export const when = (state: 'tacky' | 'touch-dry' | 'recoat' | 'through-dry', wait = 0): StartRule => ({
  rule: 'state',
  state,
  wait,
});

export function planOf(
  coats: readonly Coat[],
  air: Air = room(),
  substrate: SubstrateKey = 'sealed',
  seed = 7,
): PanelPlan {
  return {
    panel: {
      width: 0.6,
      height: 0.4,
      substrate,
      history: { handled: false, tannin: false, oldPaint: 'none', condition: 'sound' },
    },
    coats,
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
