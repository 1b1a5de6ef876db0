import { filePlan, type Plan, type RunBodies, type RunEvent, type RunEventKind } from '@zaffet/contract';

/** Makes events of a device, counted; times in minutes after the plan's start. */
export function deviceOf(name: string, plan: Plan, offsetMs = 0) {
  let n = 0;
  const start = Date.parse(plan.startsAt);
  return <Kind extends RunEventKind>(minute: number, kind: Kind, body: RunBodies[Kind]): RunEvent => {
    n += 1;
    return {
      id: `${name}-${n}`,
      device: name,
      n,
      at: new Date(start + minute * 60_000 - offsetMs).toISOString(),
      offsetMs,
      kind,
      ...body,
    } as unknown as RunEvent;
  };
}

/** The event a run begins with. */
export const beginning = (plan: Plan): RunBodies['run-begun'] => ({ planId: null, plan: filePlan(plan) });
