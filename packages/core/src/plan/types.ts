import { type AirSeries } from '../air';
import { type Strokes } from '../crack';
import { type MediumKey, type SubstrateKey } from '../media';

/** When a coat may go on. Moments and waits in seconds. */
export type StartRule =
  /** Once the coat below has reached a state, and a wait after that. */
  | { readonly rule: 'state'; readonly state: StartState; readonly wait: number }
  /** A wait after the coat below was laid. */
  | { readonly rule: 'after'; readonly wait: number }
  /** At a moment from the plan's start, though never before the coat below. */
  | { readonly rule: 'at'; readonly moment: number };

export const START_STATES = ['tacky', 'touch-dry', 'recoat', 'through-dry'] as const;
export type StartState = (typeof START_STATES)[number];

/** One brushed coat of a stack, SI. */
export interface Coat {
  readonly id: string;
  readonly medium: MediumKey;
  /** Wet film thickness [m]. */
  readonly thickness: number;
  /** Litres of water per litre of the medium. */
  readonly dilution: number;
  /** Brush passes over the same place. */
  readonly passes: number;
  readonly strokes: Strokes;
  readonly start: StartRule;
}

/** What is known of the panel's past. */
export interface History {
  /** Handled, waxed with polish, or from a kitchen: grease is likely. */
  readonly handled: boolean;
  /** Wood that bleeds tannin: oak, mahogany, knots in pine. */
  readonly tannin: boolean;
  /** Paint or varnish of which nobody knows the age. */
  readonly oldPaint: 'none' | 'known' | 'unknown';
  /** What is on it holds, or comes off. */
  readonly condition: 'sound' | 'flaking';
}

export interface Panel {
  /** [m] */
  readonly width: number;
  readonly height: number;
  readonly substrate: SubstrateKey;
  readonly history: History;
}

/** A stack of coats on one panel in some air: all the core needs for a forecast. */
export interface PanelPlan {
  readonly panel: Panel;
  /** From the ground up. */
  readonly coats: readonly Coat[];
  readonly air: AirSeries;
  readonly seed: number;
}
