import { type RunEvent } from '@zaffet/contract';

/** An event with its moment by the server's clock [ms since 1970]. */
export interface Timely {
  readonly event: RunEvent;
  readonly at: number;
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/**
 * Events in the order they happened: by the server's clock as each device knew it, but never against a device's own
 * count, whose clock may have been set meanwhile. The same list for the same events, whatever order they come in; one
 * that comes twice counts once.
 */
export function inOrder(events: readonly RunEvent[]): Timely[] {
  const byId = new Map(events.map((event) => [event.id, event]));
  const devices = new Map<string, RunEvent[]>();
  for (const event of byId.values()) {
    const own = devices.get(event.device) ?? [];
    devices.set(event.device, own);
    own.push(event);
  }
  const timely = [...devices.values()].flatMap((own): Timely[] => {
    let last = Number.NEGATIVE_INFINITY;
    return own
      .sort((a, b) => a.n - b.n || compare(a.id, b.id))
      .map((event) => {
        last = Math.max(last, Date.parse(event.at) + event.offsetMs);
        return { event, at: last };
      });
  });
  return timely.sort(
    (a, b) =>
      a.at - b.at ||
      compare(a.event.device, b.event.device) ||
      a.event.n - b.event.n ||
      compare(a.event.id, b.event.id),
  );
}
