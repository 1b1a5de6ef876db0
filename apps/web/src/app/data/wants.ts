import { type Limit, LIMITS, type Wants } from '@zaffet/contract';
import { type WishKey } from '@zaffet/core/solve';

/** The figure that each want is about. */
export const WISH_OF: Readonly<Record<keyof Wants, WishKey>> = {
  spacingMm: 'spacing',
  openingMm: 'opening',
  chips: 'chips',
  worn: 'worn',
  under: 'under',
};

/** What each want may be. */
export const WANT_LIMITS: Readonly<Record<keyof Wants, Limit>> = {
  spacingMm: LIMITS.spacingMm,
  openingMm: LIMITS.openingMm,
  chips: LIMITS.share,
  worn: LIMITS.share,
  under: LIMITS.share,
};

/** Wants that are lengths [mm]; the others are shares. */
export const WANTED_LENGTHS: readonly (keyof Wants)[] = ['spacingMm', 'openingMm'];
