import { type Zone } from '../plan';
import { type Appearance } from '../colour';
import { type Scene } from './history';

/** What cracks look like. Lengths in m, shares 0 … 1. */
export interface CrackLook {
  /** Share of the film that is cracked. */
  readonly crackedShare: number;
  /** Mean distance of cracks, and how wide they stand open. */
  readonly spacing: number;
  readonly opening: number;
  /** Share of the area that stands open. */
  readonly openArea: number;
  /** How clearly it reads, 0 … 1. */
  readonly strength: number;
}

/** Flakes that let go at one boundary. */
export interface ChipForecast {
  /** Index among the films of the lowest one that goes. */
  readonly film: number;
  /** Share of the film that lets go by itself. */
  readonly share: number;
  /** Index of the film whose pull decides. */
  readonly by: number;
  /** Mean flake [m]. */
  readonly size: number;
  readonly driveRatio: number;
}

/** What is seen where: the panel first, then every layer in the order laid. Shares add up to 1. */
export interface LayerShare {
  /** Step that laid it; `panel` for what lies below everything. */
  readonly id: string;
  readonly share: number;
  readonly zones: Readonly<Record<Zone, number>>;
}

/** What distressing and wiping do, step by step. */
export interface RemovalForecast {
  readonly stepId: string;
  /** Share of the area on which another layer comes to light. */
  readonly share: number;
  /** Median depth in the top film [m]. */
  readonly depth: number;
  /** Blade and scraper: effort against a cured film. */
  readonly effort: number | null;
}

/** What one zone of the panel, or all of it, comes to. */
export interface ZoneForecast {
  /** Of the panel's area. */
  readonly area: number;
  /** Cracks of the film whose cracks the panel shows; null where none does. */
  readonly crack: CrackLook | null;
  /** First crack [s after the cracked coat was laid]; null where none comes while it dries. */
  readonly firstAfter: number | null;
  /** Share of the zone that chips, flakes and resists take, and that is worn through. */
  readonly chippedShare: number;
  readonly wornShare: number;
  /** Share on which nothing but clear films lies over the panel. */
  readonly bareShare: number;
  /** Mean flake [m]; null where next to nothing flakes. */
  readonly flake: number | null;
  /** Gloss at 60 degrees [GU]. */
  readonly gloss: number;
  /** All that is seen, mixed by area, `#rrggbb`. */
  readonly colour: string;
}

/** What comes of a plan, told of the panel as a whole and of each of its zones. */
export interface Outcome {
  /** Index of the film whose cracks the panel shows, or null. */
  readonly crackedCoat: number | null;
  readonly chips: readonly ChipForecast[];
  readonly removals: readonly RemovalForecast[];
  readonly whole: ZoneForecast;
  readonly zones: Readonly<Record<Zone, ZoneForecast>>;
  readonly layers: readonly LayerShare[];
  readonly appearance: Appearance;
  /** What happens to the panel, for the field; kernel units. */
  readonly scene: Scene;
}
