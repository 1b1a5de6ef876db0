import { type CrackLaw, type Strokes } from '../crack';
import { type CoverStyle, type DistressTool, type Place, type ResistAgent } from '../plan';

/*
 * What happens to a panel, in order, as plain data: read by the closed form, which follows shares of the area, and by
 * the panel field, which follows every point. One list, two speeds.
 */

/** A layer of the stack; the panel itself is layer 0. */
export interface SceneLayer {
  /** Step that laid it; `panel` for layer 0. */
  readonly id: string;
  /** Dry thickness [µm]; 0 for the panel. */
  readonly thicknessUm: number;
  /** What it hides of what is below, 0 clear … 1 hiding. */
  readonly opacity: number;
  /** Dry film that hides two thirds [µm]. */
  readonly hidingUm: number;
  /** sRGB `#rrggbb`; null for clear layers. */
  readonly colour: string | null;
  readonly strokes: Strokes;
  /** What it does to the look of what it covers. */
  readonly finish: 'paint' | 'clear' | 'wax' | 'resist' | 'wood' | 'ground';
  readonly yellowing: number;
  readonly glossUnits: number;
}

export type SceneEvent =
  | {
      readonly kind: 'lay';
      readonly layer: number;
      readonly style: CoverStyle;
      /** Share of the surface covered, and of open crack floors filled. */
      readonly share: number;
      readonly intoCracks: number;
      readonly where: Place;
    }
  | {
      /** Cracks open through a layer. */
      readonly kind: 'crack';
      readonly layer: number;
      /** Layer whose pattern it follows: films that hold together crack together. */
      readonly network: number;
      readonly law: CrackLaw;
      /** Share of the layer's area that stands open. */
      readonly openArea: number;
      /** Share of the film that cracks at all. */
      readonly crackedShare: number;
    }
  | {
      /** Islands let go at the boundary below a layer. */
      readonly kind: 'chip';
      readonly layer: number;
      /** Layer whose pattern bounds the flakes. */
      readonly network: number;
      readonly driveRatio: number;
      readonly crackedShare: number;
      readonly lifting: number;
      /** Share of the layer that has gone when this is over. */
      readonly share: number;
      /** Place it is helped on; elsewhere nothing more goes than by itself. */
      readonly where: Place;
    }
  | {
      /** A layer comes off with all that lies on it. */
      readonly kind: 'lift';
      readonly layer: number;
      readonly share: number;
      readonly agent: ResistAgent;
      readonly where: Place;
      /** Salt: grain [µm] of the craters in the layer. */
      readonly grainUm: number;
    }
  | {
      /** A depth is rubbed or cut off. */
      readonly kind: 'rub';
      readonly stepId: string;
      readonly tool: DistressTool;
      readonly medianUm: number;
      readonly spread: number;
      readonly exposure: Readonly<Record<'field' | 'edge' | 'corner', number>>;
      /** Resistance of each layer against the top one; Infinity where the tool does nothing. */
      readonly resistance: readonly number[];
      readonly where: Place;
    };

/** A panel's history. */
export interface Scene {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly layers: readonly SceneLayer[];
  readonly events: readonly SceneEvent[];
  /** Crack patterns the events speak of, by the layer that sets each. */
  readonly networks: readonly { readonly layer: number; readonly law: CrackLaw }[];
  readonly seed: number;
}
