import { type History, type MediumKey, type StartState, type Strokes, type SubstrateKey } from '@zaffet/core';

export const PLAN_FORMAT = 'zaffet-plan';
export const PLAN_VERSION = 1;

/** When a coat goes on; waits in minutes, instants in ISO 8601. */
export type StartRuleFile =
  | { readonly rule: 'state'; readonly state: StartState; readonly waitMin: number }
  | { readonly rule: 'after'; readonly waitMin: number }
  | { readonly rule: 'at'; readonly at: string };

/** One brushed coat. */
export interface CoatStep {
  readonly id: string;
  readonly kind: 'coat';
  readonly medium: MediumKey;
  /** What the painter calls the colour; empty for clear media. */
  readonly colourName: string;
  /** sRGB, `#rrggbb`. */
  readonly colour: string;
  readonly thicknessUm: number;
  /** Litres of water per litre. */
  readonly dilution: number;
  readonly passes: number;
  readonly strokes: Strokes;
  readonly start: StartRuleFile;
}

/** One part of a piece; a plain panel for now. */
export interface Part {
  readonly id: string;
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly substrate: SubstrateKey;
  readonly history: History;
}

/** What the shop's air is like, and how it changes. */
export interface AirFile {
  readonly temperatureC: number;
  readonly humidity: number;
  readonly draughtMS: number;
  readonly altitudeM: number;
  readonly later: readonly {
    readonly at: string;
    readonly temperatureC: number;
    readonly humidity: number;
  }[];
}

/** Wanted figures; null where nothing is wished for. */
export interface Look {
  readonly spacingMm: number | null;
  readonly openingMm: number | null;
}

/** A plan as it is stored, sent and filed: see docs/plan-file.md. */
export interface Plan {
  readonly format: typeof PLAN_FORMAT;
  readonly version: typeof PLAN_VERSION;
  readonly name: string;
  readonly seed: number;
  readonly startsAt: string;
  readonly piece: { readonly name: string; readonly parts: readonly [Part] };
  readonly look: Look;
  readonly steps: readonly CoatStep[];
  readonly air: AirFile;
}
