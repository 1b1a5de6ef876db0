import { type Moment } from '@zaffet/core/live';
import { type FigureKey, type Predicted } from '@zaffet/core/readout';

type KeyedFigure = Pick<Predicted, 'value' | 'low' | 'high'> & { readonly key: FigureKey };

/**
 * Predicted figures with those of the coat in hand in their place: what is believed of it by all that was reported. So a
 * figure reads the same wherever the Bench shows it.
 */
export const asBelieved = (
  figures: readonly KeyedFigure[],
  believed: Readonly<Partial<Record<FigureKey, Moment>>>,
): KeyedFigure[] =>
  figures.map(({ key, value, low, high }) => {
    const moment = believed[key];
    return moment === undefined
      ? { key, value, low, high }
      : { key, value: moment.at, low: moment.low, high: moment.high };
  });
