import { DISTRESS_TOOLS } from '@zaffet/core/tools';
import { isFilmStep, type Plan, type PlanStep } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { medium, MEDIUM_KEYS, SUBSTRATE_KEYS } from '@zaffet/core/media';
import { type Finding } from '@zaffet/core/notes';
import { USES } from '@zaffet/core/plan';
import { newCompanion, newHeat } from './create';
import { newPlan } from './newPlan';
import { type PartPlan, partPlan } from './partPlan';
import { remedyFor } from './remedies';
import { SCHOOL_KEYS } from './schools';
import { basisOf } from './basis';
import { parsePlan } from '@zaffet/contract/schemas';

const TRIES = 300;

/** A stream of chances from a seed (Park and Miller 1988, minimal standard). */
function chances(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}

const findingsOf = (plan: Plan): readonly Finding[] => forecast(basisOf(partPlan(plan))).findings;

/** A plan of some school with some things done wrong. */
function spoiled(chance: () => number, nextId: () => string): Plan {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(chance() * list.length)]!;
  const plan = newPlan(pick(SCHOOL_KEYS), 'Spoiled', 7, '2026-05-12T08:00:00Z', nextId);
  const wrong = (step: PlanStep): PlanStep => {
    if (chance() < 0.55) return step;
    if (isFilmStep(step)) {
      const paints = MEDIUM_KEYS.filter((key) => !['resist', 'agent'].includes(medium(key).kind));
      const changes: Partial<Extract<PlanStep, { kind: 'coat' }>>[] = [
        { passes: 6 },
        { thicknessUm: Math.round(4 + 300 * chance()) },
        { start: { rule: 'after', waitMin: Math.round(400 * chance()) } },
        { start: { rule: 'state', state: 'cured', waitMin: 0 } },
        ...(step.kind === 'coat'
          ? [{ medium: pick(paints) }, { mixedHours: 700 }, { colour: '#d8d2c0' }]
          : []),
      ];
      return { ...step, ...pick(changes) } as PlanStep;
    }
    if (step.kind === 'distress')
      return {
        ...step,
        ...pick([
          { tool: pick(DISTRESS_TOOLS) },
          { rounds: 40 },
          { start: { rule: 'after', waitMin: 900 } as const },
        ]),
      };
    if (step.kind === 'resist') return { ...step, start: { rule: 'after', waitMin: 400 } };
    if (step.kind === 'wipe') return { ...step, degrease: false };
    return step;
  };
  let steps = plan.finishes[0]!.steps.map(wrong).filter((_, i) => i === 0 || chance() > 0.12);
  if (chance() < 0.3) steps = [...steps, newHeat(nextId(), 'gun', 300, { rule: 'after', waitMin: 5 })];
  if (chance() < 0.3)
    steps = [
      ...steps,
      newCompanion(nextId(), pick(['fabric', 'transfer', 'wash', 'glaze', 'reactive-stain'])),
    ];
  const [part] = plan.piece.parts;
  return {
    ...plan,
    piece: {
      ...plan.piece,
      parts: [
        {
          ...part!,
          flat: chance() > 0.3,
          use: pick(USES),
          substrate: pick(SUBSTRATE_KEYS),
          history: { ...part!.history, tannin: chance() < 0.3, age: pick(['years', 'unknown']) },
        },
      ],
    },
    finishes: [{ ...plan.finishes[0]!, steps }],
  };
}

describe('remedies', () => {
  it('make the note they stand at go away, and leave a valid plan, whatever was done wrong', () => {
    const chance = chances(20261);
    let id = 0;
    const nextId = (): string => `x${++id}`;
    const offered = new Set<string>();
    for (let i = 0; i < TRIES; i++) {
      const plan = spoiled(chance, nextId);
      for (const finding of findingsOf(plan)) {
        const remedy = remedyFor(finding, partPlan(plan), nextId);
        if (remedy === null) continue;
        offered.add(finding.code);
        expect(remedy.label).toMatch(/^[A-Z0-9].*[^.]$/);
        const mended = parsePlan(remedy.apply(plan));
        const still = findingsOf(mended).some(
          ({ code, stepId }) => code === finding.code && stepId === finding.stepId,
        );
        expect(still).withContext(`${finding.code}: ${remedy.label}`).toBeFalse();
      }
    }
    expect(offered.size).toBeGreaterThan(35);
  });

  it('seal the parts whose use asks for it, and leave those that are only looked at as they are', () => {
    let id = 0;
    const nextId = (): string => `s${++id}`;
    const plan = newPlan('wet-glue', 'Washstand', 7, '2026-05-12T08:00:00Z', nextId);
    const [part] = plan.piece.parts;
    const parts = [
      { ...part!, id: 'rail', use: 'display' as const },
      { ...part!, id: 'top', use: 'food' as const },
      { ...part!, id: 'shelf', use: 'food' as const },
    ];
    const shared = { ...plan, piece: { ...plan.piece, parts } };
    const partOf = (file: Plan, partId: string): PartPlan => partPlan(file, partId);
    const found = (file: Plan, partId: string): Finding | undefined =>
      forecast(basisOf(partOf(file, partId))).findings.find((finding) => finding.code.startsWith('use-'));
    const asked = found(shared, 'top')!;
    expect(['use-unsealed', 'use-wax-only']).toContain(asked.code);
    const mended = parsePlan(remedyFor(asked, partOf(shared, 'top'), nextId)!.apply(shared));
    expect(found(mended, 'top')).toBeUndefined();
    expect(found(mended, 'shelf')).toBeUndefined();
    expect(partOf(mended, 'rail').steps).toEqual(partOf(shared, 'rail').steps);
    expect(partOf(mended, 'top').finish.id).toBe(partOf(mended, 'shelf').finish.id);
    const all = { ...shared, piece: { ...shared.piece, parts: parts.slice(1) } };
    expect(remedyFor(asked, partOf(all, 'top'), nextId)!.apply(all).finishes.length).toBe(1);
  });

  it('put hot air out of reach of lacquer, never in it', () => {
    let id = 0;
    const nextId = (): string => `l${++id}`;
    const plan = newPlan('lacquer-layers', 'Hot', 7, '2026-05-12T08:00:00Z', nextId);
    const finish = plan.finishes[0]!;
    const heat = newHeat('heat', 'gun', 60, { rule: 'after', waitMin: 1 });
    const steps = [...finish.steps.slice(0, 6), heat, ...finish.steps.slice(6)];
    const hot = { ...plan, finishes: [{ ...finish, steps }] };
    const stop = findingsOf(hot).find(({ code }) => code === 'heat-on-solvent')!;
    const remedy = remedyFor(stop, partPlan(hot), nextId)!;
    expect(partPlan(remedy.apply(hot)).steps.map(({ kind }) => kind)).not.toContain('heat');
  });
});
