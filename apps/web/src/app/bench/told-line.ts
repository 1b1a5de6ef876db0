import { type RunEvent, type UnitSystem } from '@zaffet/contract';
import { toldText } from '@zaffet/words';
import { inOrder, type Run, takenBack } from '@zaffet/workshop';

/** These stand as they are. */
const FIRM: readonly RunEvent['kind'][] = ['run-begun', 'taken-back'];

/** Something that was told of a run, as it is shown. */
export interface ToldLine {
  readonly id: string;
  /** By the workshop's clock [ms since 1970]. */
  readonly at: number;
  readonly text: string;
  /** It was taken back; and whether it still can be. */
  readonly gone: boolean;
  readonly free: boolean;
}

/** All that was told of a run, newest first. */
export function toldLines(events: readonly RunEvent[], { plan }: Run, units: UnitSystem): ToldLine[] {
  const gone = takenBack(events);
  return inOrder(events)
    .reverse()
    .map(({ event, at }) => ({
      id: event.id,
      at,
      text: toldText(event, plan, units),
      gone: gone.has(event.id),
      free: !FIRM.includes(event.kind) && !gone.has(event.id),
    }));
}
