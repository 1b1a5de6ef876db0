import { medium, type MediumKey } from '@zaffet/core';
import { type CoatStep, type Plan, PLAN_FORMAT, PLAN_VERSION } from './types';

/** The two ways a new plan can start: which layer makes the top coat slip. */
export const SCHOOLS = {
  'dried-medium': 'Over dried crackle medium',
  'wet-glue': 'Over wet white glue',
} as const;
export type School = keyof typeof SCHOOLS;

/** A new coat of a medium at the thickness one brushed coat of it has. */
export function newCoat(
  id: string,
  key: MediumKey,
  colour: string,
  colourName: string,
  start: CoatStep['start'],
): CoatStep {
  return {
    id,
    kind: 'coat',
    medium: key,
    colour,
    colourName,
    thicknessUm: medium(key).wetFilmUm,
    dilution: 0,
    passes: 2,
    strokes: 'one-way',
    start,
  };
}

/** A new plan of a school: base colour, the layer that slips, a contrasting top coat. */
export function newPlan(
  school: School,
  name: string,
  seed: number,
  startsAt: string,
  nextId: () => string,
): Plan {
  const slips: MediumKey = school === 'wet-glue' ? 'pva' : 'crackle';
  const paint: MediumKey = school === 'wet-glue' ? 'latex' : 'chalk';
  return {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    name,
    seed,
    startsAt,
    piece: {
      name,
      parts: [
        {
          id: nextId(),
          name: 'Panel',
          widthMm: 600,
          heightMm: 400,
          substrate: 'scuffed',
          history: { handled: true, tannin: false, oldPaint: 'known', condition: 'sound' },
        },
      ],
    },
    look: { spacingMm: null, openingMm: null },
    steps: [
      newCoat(nextId(), paint, '#5d6b4b', 'Kelp', { rule: 'at', at: startsAt }),
      newCoat(nextId(), slips, '#e6ddc4', '', { rule: 'state', state: 'recoat', waitMin: 0 }),
      newCoat(
        nextId(),
        paint,
        '#e3dccb',
        'Sailcloth',
        school === 'wet-glue'
          ? { rule: 'after', waitMin: 2 }
          : { rule: 'state', state: 'touch-dry', waitMin: 0 },
      ),
    ],
    air: { temperatureC: 21, humidity: 0.5, draughtMS: 0.1, altitudeM: 0, later: [] },
  };
}
