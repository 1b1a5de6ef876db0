import { type BenchTask } from '@zaffet/workshop';

/** What the events of a task are told of: its part, step and coat, as its key has them. */
export function ofTask({ key, partId, stepId }: BenchTask): { partId: string; stepId: string; coat: number } {
  return { partId, stepId, coat: Number(key.slice(key.lastIndexOf(' ') + 1)) };
}
