import { type Part } from '@zaffet/contract';
import { type PartPlan } from './partPlan';

/** A print or tissue where it lies on a part [mm]. */
export interface PrintOn {
  readonly picture: string | null;
  readonly oval: boolean;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

const allOf = ({ widthMm, heightMm, oval }: Part): Omit<PrintOn, 'picture'> => ({
  oval,
  left: 0,
  top: 0,
  width: widthMm,
  height: heightMm,
});

/** Prints and tissues of a part, one for every place of the name they are put on, in working order. */
export const printsOn = ({ part, steps }: PartPlan): readonly PrintOn[] =>
  steps.flatMap((step): PrintOn[] => {
    if (step.kind !== 'companion' || step.print === null) return [];
    const { on, picture } = step.print;
    if (on === null) return [{ ...allOf(part), picture }];
    return part.zones
      .filter(({ name }) => name === on)
      .map(({ leftMm, topMm, widthMm, heightMm, oval }) => ({
        picture,
        oval,
        left: leftMm,
        top: topMm,
        width: widthMm,
        height: heightMm,
      }));
  });
