import { FACINGS, type Facing } from './types';

/** One way the piece lies while it is worked on, with the parts that lie face up then. */
export interface Turn {
  /** Which face lies up; `loose` for parts that lie by themselves. */
  readonly up: Facing;
  readonly partIds: readonly string[];
}

/** Faces of the body, in the order it is turned: from the back, seen least, to the top, seen most. */
const ORDER: readonly Facing[] = ['bottom', 'inside', 'back', 'left', 'right', 'front', 'top', 'loose'];

/**
 * How a piece is turned so that every part worked on lying comes to lie face up. A body has one face up at a time;
 * loose parts lie beside it all the while. Common practice.
 * @param parts - `flat` where the part is to lie face up
 */
export function turns(
  parts: readonly { readonly id: string; readonly facing: Facing; readonly flat: boolean }[],
): Turn[] {
  return [...FACINGS]
    .sort((a, b) => ORDER.indexOf(a) - ORDER.indexOf(b))
    .flatMap((up) => {
      const partIds = parts.filter(({ facing, flat }) => facing === up && flat).map(({ id }) => id);
      return partIds.length === 0 ? [] : [{ up, partIds }];
    });
}
