import { type DistressTool, toolOf } from '@zaffet/core/tools';
import {
  type CoatStep,
  type CompanionStep,
  type PlanStep,
  type SealStep,
  type StartRuleFile,
} from '@zaffet/contract';
import { isOf, medium, type MediumKey } from '@zaffet/core/media';
import {
  type CompanionTask,
  type HeatTool,
  type ResistAgent,
  type StartState,
  type StepKind,
} from '@zaffet/core/plan';

const FULL = { style: 'full', share: 1 } as const;
/** A new step goes everywhere. */
export const ALL_OVER = { where: 'all', only: null, except: [] } as const;

/** A new coat of a medium at the thickness one brushed coat of it has. */
export function newCoat(
  id: string,
  key: MediumKey,
  colour: string,
  colourName: string,
  start: StartRuleFile,
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
    cover: FULL,
    ...ALL_OVER,
    bonding: 0,
    lumps: false,
    mixedHours: null,
    keptCold: false,
    body: null,
    others: [],
    manner: 'side-by-side',
    texture: 0,
    off: false,
    start,
  };
}

export function newSeal(id: string, key: MediumKey, start: StartRuleFile): SealStep {
  const wax = medium(key).kind === 'wax';
  return {
    id,
    kind: 'seal',
    medium: key,
    colour: medium(key).tint ?? '#dfe3e0',
    colourName: '',
    thicknessUm: medium(key).wetFilmUm,
    dilution: 0,
    passes: 1,
    strokes: 'one-way',
    cover: isOf(medium(key), 'dark') ? { style: 'blotchy', share: 0.12 } : FULL,
    ...ALL_OVER,
    coats: wax ? 1 : 2,
    buffAfterMin: wax ? 25 : null,
    sheen: null,
    off: false,
    start,
  };
}

export const when = (state: StartState, waitMin = 0): StartRuleFile => ({ rule: 'state', state, waitMin });
export const after = (waitMin: number): StartRuleFile => ({ rule: 'after', waitMin });

export function newResist(id: string, agent: ResistAgent, start: StartRuleFile): PlanStep {
  return {
    id,
    kind: 'resist',
    agent,
    thicknessUm: medium(agent).wetFilmUm,
    share: 0.2,
    ...ALL_OVER,
    where: agent === 'candle' ? 'edges' : 'all',
    off: false,
    start,
  };
}

export function newDistress(id: string, tool: DistressTool, start: StartRuleFile): PlanStep {
  return {
    id,
    kind: 'distress',
    tool,
    grit: 220,
    rounds: toolOf(tool).usualRounds,
    pressure: 1,
    ...ALL_OVER,
    smear: 0,
    tint: null,
    off: false,
    start,
  };
}

/** Fine paper over what has dried, until it is smooth to the hand; common practice. */
export const smoothing = (id: string): PlanStep =>
  ({ ...newDistress(id, 'sand', when('through-dry')), grit: 400, rounds: 2 }) as PlanStep;

export const newHeat = (id: string, tool: HeatTool, durationS: number, start: StartRuleFile): PlanStep => ({
  id,
  kind: 'heat',
  tool,
  durationS,
  ...ALL_OVER,
  off: false,
  start,
});

export const newRewet = (id: string, start: StartRuleFile): PlanStep => ({
  id,
  kind: 'rewet',
  amountUm: 30,
  tint: null,
  ...ALL_OVER,
  off: false,
  start,
});

/** Wiping off: with wipes that cut grease after jelly, dry for dust. */
export const newWipe = (id: string, start: StartRuleFile, degrease = true): PlanStep => ({
  id,
  kind: 'wipe',
  degrease,
  ...ALL_OVER,
  off: false,
  start,
});

/** A new step of any kind, as it is mostly done; starts when the coat below allows it. */
export function newStep(kind: Exclude<StepKind, 'coat'>, id: string): PlanStep {
  switch (kind) {
    case 'seal':
      return newSeal(id, 'polyW', when('through-dry'));
    case 'resist':
      return newResist(id, 'candle', when('through-dry'));
    case 'heat':
      return newHeat(id, 'dryer', 60, when('touch-dry'));
    case 'rewet':
      return newRewet(id, when('through-dry'));
    case 'distress':
      return newDistress(id, 'sand', when('through-dry', 60));
    case 'wipe':
      return newWipe(id, when('through-dry', 240));
    case 'wait':
      return { id, kind, durationMin: 60, off: false, start: after(0) };
    case 'companion':
      return newCompanion(id, 'repair');
  }
}

/** How long the hands are at work beside the layers, and how long it rests [min]; common practice. */
const TASK_TIMES: Readonly<Record<CompanionTask, { handsMin: number; restMin: number }>> = {
  repair: { handsMin: 45, restMin: 720 },
  wash: { handsMin: 20, restMin: 60 },
  'reactive-stain': { handsMin: 15, restMin: 240 },
  fabric: { handsMin: 60, restMin: 1440 },
  transfer: { handsMin: 40, restMin: 720 },
  glaze: { handsMin: 25, restMin: 240 },
};

/** Work beside the layers, with the time it usually takes. */
export function newCompanion(id: string, task: CompanionTask): CompanionStep {
  return {
    id,
    kind: 'companion',
    task,
    ...TASK_TIMES[task],
    wood: null,
    print: task === 'transfer' ? { on: null, holds: 'clear', picture: null } : null,
    off: false,
    start: when('through-dry'),
  };
}
