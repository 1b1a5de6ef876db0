import { type FilmPlanStep } from '@zaffet/contract';

/** What comes out of one pot: thinned further it still does, thickened by standing it is another. */
export const recipeOf = (step: FilmPlanStep): string =>
  [
    step.medium,
    step.colour,
    Math.min(0, step.dilution),
    step.kind === 'coat' ? `${step.bonding} ${String(step.lumps)} ${step.texture}` : (step.sheen ?? ''),
  ].join(' ');

/** A coat of several colours takes a pot of each, by its share. */
export function colours(
  step: FilmPlanStep,
): readonly { readonly step: FilmPlanStep; readonly share: number }[] {
  if (step.kind !== 'coat' || step.others.length === 0) return [{ step, share: 1 }];
  const own = 1 - step.others.reduce((sum, { share }) => sum + share, 0);
  return [
    { step, share: own },
    ...step.others.map(({ name, colour, share }) => ({ step: { ...step, colour, colourName: name }, share })),
  ];
}
