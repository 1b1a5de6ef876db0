import { type Basis } from '../basis';
import { type Finding } from '../notes';
import { type PanelPlan, type SettableKey } from '../plan';

/** What a painter wishes for; what is not told is free. Lengths in m, shares 0 … 1. */
export interface Wish {
  readonly spacing?: number;
  readonly opening?: number;
  /** Share of the panel that chips, flakes and resists take. */
  readonly chips?: number;
  /** Share that is worn through. */
  readonly worn?: number;
  /** Share on which something else than the last colour is seen. */
  readonly under?: number;
}
export const WISH_KEYS = ['spacing', 'opening', 'chips', 'worn', 'under'] as const;
export type WishKey = (typeof WISH_KEYS)[number];

/** How near a wish has to come: lengths as a share of the wish, shares in points. */
export const WISH_TOLERANCE: Readonly<Record<WishKey, number>> = {
  spacing: 0.15,
  opening: 0.2,
  chips: 0.05,
  worn: 0.05,
  under: 0.05,
};

/** A number of a recipe that the solver may set. */
export const SETTING_KINDS = [
  'thickness',
  'wait',
  'work',
  'resist',
  'cover',
] as const satisfies readonly SettableKey[];
export interface Setting {
  readonly stepId: string;
  /** `work` is rounds times pressure of a distressing step. */
  readonly kind: (typeof SETTING_KINDS)[number];
  /** SI: m, s, rounds, share. */
  readonly value: number;
}

/** A way of working to try: a plan as it is mostly done, whose numbers may be moved. */
export interface Candidate {
  readonly key: string;
  readonly basis: Basis;
  /** How much less it is wanted than others that do as well, 1 as much as a warning; for what a shelf lacks. */
  readonly handicap?: number;
}

/** One answer: a plan of a school with its numbers set, and how near it comes. */
export interface Recipe {
  readonly key: string;
  readonly plan: PanelPlan;
  readonly settings: readonly Setting[];
  /** Value and whether it is near enough, for every wish that was told; null where the recipe has nothing of the kind. */
  readonly outcomes: Readonly<
    Partial<Record<WishKey, { readonly value: number | null; readonly met: boolean }>>
  >;
  /** All wishes near enough. */
  readonly met: boolean;
  /** How far off, 0 exact; 1 is at the edge of what counts as met. */
  readonly misfit: number;
  /** Share that comes off or is worn though nobody asked for it. */
  readonly unasked: number;
  /** Notes of the plan that stop or warn. */
  readonly risks: readonly Finding[];
  /** From the first step to the last film dry [s]; null when never in this air. */
  readonly total: number | null;
  /** Of it at work with the hands [s]. */
  readonly handsOn: number;
}
