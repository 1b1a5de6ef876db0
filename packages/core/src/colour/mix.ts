/// <reference path="./spectral.d.ts" />
import spectral from 'spectral.js';
import { InputError } from '../errors';

/**
 * What parts of paint give when they are stirred together: spectral Kubelka-Munk mixing through spectral.js, so that
 * yellow and blue give green and not grey.
 * @param parts - colours as `#rrggbb` with how many parts of each
 * @throws InputError `mix.parts` when there is none, or a part is not above 0
 */
export function mixParts(parts: readonly { readonly colour: string; readonly parts: number }[]): string {
  if (parts.length === 0 || parts.some((part) => !(part.parts > 0 && Number.isFinite(part.parts)))) {
    throw new InputError({
      code: 'mix.parts',
      field: 'mix.parts',
      value: parts.map((part) => part.parts).join(', '),
      allowed: 'at least one colour, each with more than 0 parts',
    });
  }
  const mixed = spectral.mix(
    ...parts.map((part): [spectral.Color, number] => [new spectral.Color(part.colour), part.parts]),
  );
  return mixed.toString({ format: 'hex' }).toLowerCase();
}
