import { type MixPot } from '@zaffet/workshop';
import { type UnitSystem } from '@zaffet/contract';
import { spoonText, volume } from './format';

/** What goes into a pot, measured and in spoons, in the order it goes in. */
export const goesInText = ({ goesIn }: Pick<MixPot, 'goesIn'>, units: UnitSystem): string =>
  goesIn
    .map(
      ({ name, volume: amount, spoons }) =>
        `${name.toLowerCase()} ${volume(amount, units)} (${spoonText(spoons)})`,
    )
    .join(', ');

/** What a step takes out of a pot, and what the whole pot is made of. @param amount - [m³] */
export const takesText = (amount: number, pot: MixPot, units: UnitSystem): string =>
  pot.goesIn.length === 1 && pot.volume <= amount * 1.001
    ? `${volume(amount, units)}: ${goesInText(pot, units)}`
    : `${volume(amount, units)} of the pot of ${volume(pot.volume, units)}: ${goesInText(pot, units)}`;
