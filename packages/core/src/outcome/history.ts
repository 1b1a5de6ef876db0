import { type Blend, type Manner } from '../colour';
import { type CrackLaw, type Strokes } from '../crack';
import { type CoverStyle, type PanelMap, type Place, type Relief, type ResistAgent } from '../plan';
import { type DistressTool } from '../tools';

/*
 * What happens to a panel, in order, as plain data: read by the closed form, which follows shares of the area, and by
 * the panel field, which follows every point. One list, two speeds.
 */

/** The colours of one coat, and how they lie. */
export interface Tones extends Blend {
  readonly manner: Manner;
}

/** A layer of the stack; what was there before the first coat is below all others. */
export interface SceneLayer {
  /** Step that laid it; `panel` for the surface that was there, `wood` for the wood under an old finish. */
  readonly id: string;
  /** Dry thickness [µm]; 0 for the panel. */
  readonly thicknessUm: number;
  /** What it hides of what is below, 0 clear … 1 hiding. */
  readonly opacity: number;
  /** Dry film that hides two thirds [µm]. */
  readonly hidingUm: number;
  /** sRGB `#rrggbb`, of several colours their mean; null for clear layers. */
  readonly colour: string | null;
  /** What a coat of several colours is laid in; null where it is one. */
  readonly tones: Tones | null;
  readonly strokes: Strokes;
  /** What it does to the look of what it covers. */
  readonly finish: 'paint' | 'glaze' | 'clear' | 'wax' | 'resist' | 'wood' | 'cloth' | 'mesh' | 'ground';
  /** What a resist is. */
  readonly agent: ResistAgent | null;
  readonly yellowing: number;
  readonly glossUnits: number;
}

/** Whether a layer was there before the first coat. */
export const isGround = ({ finish }: Pick<SceneLayer, 'finish'>): boolean =>
  ['wood', 'cloth', 'mesh', 'ground'].includes(finish);

/** Ids of the layers that were there before the first coat. */
export const GROUND_IDS: readonly string[] = ['panel', 'wood'];

/** Where on the panel an event happens, by what is told apart from place to place. */
export interface OnStand {
  /** Layers that lie at such a place, and that are missing there. */
  readonly holds: readonly number[];
  readonly lacks: readonly number[];
  /** Hot air and wetting, by step, that went over such a place, and that left it out. */
  readonly done: readonly string[];
  readonly undone: readonly string[];
}

/** How far a tool or a cloth goes: the place it is told, and its step, which may be mapped. */
export interface Reach {
  readonly stepId: string;
  readonly where: Place;
}

/** What happens, `at` a moment [s from the plan's start]. */
export type SceneEvent =
  | {
      readonly kind: 'lay';
      readonly at: number;
      /** When it is touch-dry, left open; null when never in this air. */
      readonly dryAt: number | null;
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
      readonly on: OnStand;
      readonly at: number;
      readonly layer: number;
      /** Key of the network it follows: films that hold together crack together. */
      readonly network: number;
      /** Share of the layer that cracks at all: where it lies thickest, or was held longest. */
      readonly runs: number;
      /** Share of the openings that later coats leave. */
      readonly fillLeft: number;
    }
  | {
      /** Islands let go at the boundary below a layer. */
      readonly kind: 'chip';
      readonly on: OnStand;
      readonly at: number;
      readonly layer: number;
      /** Key of the network that bounds the flakes. */
      readonly network: number;
      /** Layer whose pull decides. */
      readonly by: number;
      readonly lifting: number;
      /** Share of the layer that has gone when this is over, where it lies as thick as it should. */
      readonly share: number;
      /** Place it is helped on; elsewhere nothing more goes than by itself. */
      readonly where: Place;
    }
  | {
      /** A layer comes off with all that lies on it. */
      readonly kind: 'lift';
      readonly at: number;
      /** Step that laid what lifts it. */
      readonly stepId: string;
      readonly layer: number;
      readonly share: number;
      readonly agent: ResistAgent;
      readonly where: Place;
      /** How far what takes it off goes; null where it goes by itself. */
      readonly by: Reach | null;
      /** Salt: grain [µm] of the craters in the layer. */
      readonly grainUm: number;
      /** Salt: nothing wets the craters afterwards, and they stay pale. */
      readonly pale: boolean;
    }
  | {
      /** A depth is rubbed or cut off. */
      readonly kind: 'rub';
      readonly at: number;
      readonly stepId: string;
      readonly tool: DistressTool;
      readonly medianUm: number;
      readonly spread: number;
      /** How much it varies with how high the surface stands, of the logarithm. */
      readonly relief: number;
      /** How far the surface stands up and down when it is rubbed, root mean square [µm]. */
      readonly roughUm: number;
      /** How much it varies with the height of the panel's own relief, of the logarithm. */
      readonly carving: number;
      readonly exposure: Readonly<Record<'field' | 'edge' | 'corner', number>>;
      /** Resistance of each layer against the top one; Infinity where the tool does nothing. */
      readonly resistance: readonly number[];
      readonly where: Place;
    };

/** How a film's crack law answers to a mapped film laid thinner or thicker: ratios against the law of the mean film. */
export interface LawResponse {
  /** The mapped step. */
  readonly stepId: string;
  /** Thickness against the mean, rising; 1 is among them. */
  readonly nodes: readonly number[];
  readonly thickness: readonly number[];
  readonly pull: readonly number[];
  readonly strain: readonly number[];
  readonly drive: readonly number[];
  readonly mobility: readonly number[];
  readonly fill: readonly number[];
}

/** A crack pattern of the panel. */
export interface SceneNetwork {
  readonly key: number;
  /** Layer that sets it. */
  readonly layer: number;
  readonly law: CrackLaw;
  readonly responses: readonly LawResponse[];
}

/** A panel's history. */
export interface Scene {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Whether the panel is an ellipse in its size. */
  readonly oval: boolean;
  readonly layers: readonly SceneLayer[];
  readonly events: readonly SceneEvent[];
  /** Crack patterns the events speak of. */
  readonly networks: readonly SceneNetwork[];
  /** Where mapped steps do more and where less, by step. */
  readonly maps: Readonly<Record<string, PanelMap>>;
  /** Where hot air and wetting went that did not go everywhere, by step. */
  readonly places: Readonly<Record<string, Place>>;
  /** What the panel's face is worked into; null where it is plain. */
  readonly relief: Relief | null;
  /** Whether the grain runs up and down the picture instead of across it. */
  readonly grainUp: boolean;
  readonly seed: number;
}
