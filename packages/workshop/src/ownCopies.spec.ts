import { isFilmStep, type Plan, type PlanStep, USUAL_MEASURES } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { hazards } from '@zaffet/core/hazard';
import { isOf, medium, MEDIUM_KEYS, type MediumKey } from '@zaffet/core/media';
import { readout } from '@zaffet/core/readout';
import { newCoat, newDistress, newHeat, newSeal } from './create';
import { mixing } from './mixing';
import { newPlan } from './newPlan';
import { type PartPlan, partPlan } from './partPlan';
import { remedyFor } from './remedies';
import { SCHOOL_KEYS } from './schools';
import { basisOf } from './basis';
import { toModel } from './toModel';
import { samplePlan } from './testing/plan';

/** Everything that is brushed, sprayed or rubbed on. */
const FILMS = MEDIUM_KEYS.filter((key) => !['resist', 'agent'].includes(medium(key).kind));
const SHELF = { items: [], measures: USUAL_MEASURES };

/** A plan in which every medium is the painter's own copy, with nothing changed. */
function inOwnMedia(plan: Plan): Plan {
  const own = (key: string): string => `own-${key}`;
  return {
    ...plan,
    media: FILMS.map((key) => ({ key: own(key), name: `Own ${key}`, like: key, changes: {} })),
    finishes: plan.finishes.map((finish) => ({
      ...finish,
      steps: finish.steps.map((step): PlanStep =>
        isFilmStep(step) ? { ...step, medium: own(step.medium) } : step,
      ),
    })),
  };
}

const withSteps = (steps: readonly PlanStep[]): Plan => {
  const plan = samplePlan();
  return { ...plan, finishes: [{ ...plan.finishes[0]!, steps }] };
};
const START = { rule: 'at', at: samplePlan().startsAt } as const;
const afterwards = { rule: 'after', waitMin: 30 } as const;
const isWax = (key: MediumKey): boolean => medium(key).kind === 'wax';
const coatOf = (id: string, key: MediumKey, start: PlanStep['start']): PlanStep =>
  isWax(key) || medium(key).kind === 'clear'
    ? newSeal(id, key, start)
    : newCoat(id, key, '#5d6b4b', 'Kelp', start);

/** Every medium below and above others, with hot air, bleach and sandpaper over it. */
function plansOf(key: MediumKey): Plan[] {
  const chalk = newCoat('below', 'chalk', '#3a4b5d', 'Night', START);
  return [
    withSteps([
      coatOf('a', key, START),
      newCoat('b', 'chalk', '#e3dccb', 'Sail', afterwards),
      newHeat('h', 'gun', 60, afterwards),
    ]),
    withSteps([chalk, coatOf('a', key, afterwards), newDistress('d', 'bleach', afterwards)]),
    withSteps([
      chalk,
      coatOf('a', key, afterwards),
      newDistress('d', 'sand', afterwards),
      newSeal('s', 'darkWax', afterwards),
    ]),
    withSteps([
      coatOf('a', key, START),
      coatOf('b', key, { rule: 'after', waitMin: 2 }),
      newCoat('c', 'milk', '#e3dccb', 'Sail', afterwards),
    ]),
    withSteps([
      newCoat('m', 'milk', '#e3dccb', 'Sail', START),
      coatOf('a', key, afterwards),
      newSeal('w', 'clearWax', afterwards),
    ]),
  ];
}

/** All that rules say of a plan. */
function said(plan: Plan): unknown {
  const part: PartPlan = partPlan(plan);
  const basis = basisOf(part);
  const result = forecast(basis);
  const told = readout(basis, result).panel;
  const likeOf = (key: string): string => key.replace(/^own-/, '');
  let next = 0;
  return {
    findings: result.findings.map(({ code, level, stepId, values }) => ({ code, level, stepId, values })),
    hazards: hazards(basis.plan),
    figures: told.figures,
    layers: told.layers,
    pots: mixing(plan, SHELF).pots.map(
      ({ volume, water, powder, mixedAt, useBy, keepCold, medium: pot }) => ({
        volume,
        water,
        powder,
        mixedAt,
        useBy,
        keepCold,
        medium: likeOf(pot.key),
      }),
    ),
    remedies: result.findings.map((finding) => {
      const remedy = remedyFor(finding, part, () => `new-${++next}`);
      return remedy?.label ?? null;
    }),
  };
}

describe("a painter's own copy of a medium", () => {
  for (const key of FILMS)
    it(`gets the same notes, hazards, knobs, pots and remedies as ${key}`, () => {
      for (const plan of plansOf(key)) expect(said(inOwnMedia(plan))).toEqual(said(plan));
    });

  for (const school of SCHOOL_KEYS)
    it(`does in the way of ${school} what the generic one does`, () => {
      let next = 0;
      const plan = newPlan(school, 'Copy', 3, START.at, () => `s${++next}`);
      expect(said(inOwnMedia(plan))).toEqual(said(plan));
    });

  it('is stopped where the generic one is', () => {
    const stops = (plan: Plan): string[] =>
      forecast(basisOf(partPlan(inOwnMedia(plan))))
        .findings.filter(({ level }) => level === 'stop')
        .map(({ code }) => code);
    const bleached = (key: MediumKey): Plan =>
      withSteps([coatOf('a', key, START), newDistress('d', 'bleach', afterwards)]);
    for (const key of FILMS.filter((one) => isOf(medium(one), 'casein', 'protein-glue')))
      expect(stops(bleached(key)))
        .withContext(key)
        .toContain('bleach-on-casein');
    expect(stops(bleached('latex'))).not.toContain('bleach-on-casein');
    expect(stops(bleached('shellac'))).toContain('bleach-after-alcohol');
  });

  it('carries the cautions of the generic one', () => {
    const codes = (key: MediumKey): string[] =>
      hazards(toModel(partPlan(inOwnMedia(plansOf(key)[0]!)))).map(({ code }) => code);
    for (const key of ['lacquer', 'spray', 'shellac', 'polyO', 'enamelO'] as const)
      expect(codes(key)).withContext(key).toContain('heat-and-solvent');
    for (const key of ['gesso', 'mineral', 'texture'] as const)
      expect(codes(key)).withContext(key).toContain('silica');
    for (const key of ['milk', 'gesso'] as const)
      expect(codes(key)).withContext(key).toContain('casein-keeping');
    expect(codes('latex')).not.toContain('heat-and-solvent');
  });
});
