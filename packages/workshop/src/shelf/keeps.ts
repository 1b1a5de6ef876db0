import { type PotItem } from '@zaffet/contract';
import { medium } from '@zaffet/core/media';
import { potLife } from '@zaffet/core/quantity';

/** A refrigerator and a shop [K]. */
const COLD = 277.15;
const ROOM = 294.15;

/** Until when a mixed pot can be used [ms since 1970]. */
export function potUseBy({ medium: key, mixedAt, keptCold }: PotItem): number {
  return Date.parse(mixedAt) + potLife(medium(key), keptCold ? COLD : ROOM) * 1000;
}
