import {
  fault,
  type Fault,
  filePlan,
  JsonMeter,
  parseJson,
  type Plan,
  type PlanFile,
  ZaffetError,
} from '@zaffet/contract';
import { parseEvents } from '@zaffet/contract/runs';
import { parsePlan, parseSave } from '@zaffet/contract/schemas';
import { planIn } from '../backup/read';

/** A plan that was read, as it is filed. */
export interface ReadPlan {
  readonly name: string;
  readonly plan: PlanFile;
}

/** A plan in hand as if it had been read. */
export const filed = (plan: Plan): ReadPlan => ({ name: plan.name, plan: filePlan(plan) });

/** What can be read, by the JSON value of its text. */
const TASKS = {
  plan: (value: unknown): ReadPlan => filed(parsePlan(value)),
  save: (value: unknown): ReadPlan & { readonly saveId: string } => {
    const { saveId, plan } = parseSave(value);
    return { saveId, ...filed(plan) };
  },
  events: (value: unknown) => parseEvents(value).events,
  backupPlan: planIn,
} as const;

export type Task = keyof typeof TASKS;
export type Result<Kind extends Task> = ReturnType<(typeof TASKS)[Kind]>;

/** What a thread is asked, and what it answers: errors keep no class on their way between threads. */
export interface Order {
  readonly task: Task;
  readonly bytes: Uint8Array;
}
export type Answer = { readonly result: unknown } | { readonly fault: Fault };

/** Reads a JSON text, counted before anything is made of it. @throws ZaffetError */
export function carryOut<Kind extends Task>(task: Kind, bytes: Uint8Array): Result<Kind> {
  new JsonMeter().take(bytes);
  return TASKS[task](parseJson(bytes)) as Result<Kind>;
}

export function answerTo({ task, bytes }: Order): Answer {
  try {
    return { result: carryOut(task, bytes) };
  } catch (error) {
    return { fault: error instanceof ZaffetError ? error.fault : fault('server.failed') };
  }
}
