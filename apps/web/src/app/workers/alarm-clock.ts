/** Something to be rung for, at a moment of this device's clock [ms since 1970]. */
export interface WantedRing {
  readonly id: string;
  readonly at: number;
  readonly text: string;
  /** Page that a press on the notice opens. */
  readonly to: string;
}

/** What a page tells the clock that all pages share. */
export type ClockMessage =
  | { readonly kind: 'wanted'; readonly runId: string; readonly rings: readonly WantedRing[] }
  | { readonly kind: 'rung'; readonly runId: string; readonly ids: readonly string[] };

/** Where the page's worker is asked to show a notice. */
export const RING_ADDRESS = '/__ring';

/** A page that is awake rings by itself; after so long it is asleep [ms]. */
const GRACE = 3000;
/** Longest it sleeps: a device that slept itself is late, and looks at the clock [ms]. */
const LONGEST = 20_000;

/**
 * Rings for pages that sleep: a browser freezes pages in the background, and the clock they share goes on. Of each run it
 * knows what its page last wanted, and rings what no page has rung itself.
 */
export class AlarmClock {
  private readonly wanted = new Map<string, readonly WantedRing[]>();
  private readonly rung = new Map<string, number>();

  hear(message: ClockMessage, now: number): void {
    const { runId } = message;
    if (message.kind === 'wanted') this.wanted.set(runId, message.rings);
    else for (const id of message.ids) this.rung.set(`${runId} ${id}`, now);
  }

  /** What is to be rung now; each once, until it moves to a later moment. */
  due(now: number): WantedRing[] {
    const rings: WantedRing[] = [];
    for (const [runId, wanted] of this.wanted)
      for (const ring of wanted) {
        const key = `${runId} ${ring.id}`;
        if (ring.at + GRACE > now || (this.rung.get(key) ?? -Infinity) >= ring.at) continue;
        this.rung.set(key, now);
        rings.push(ring);
      }
    return rings;
  }

  /** How long there is nothing to do [ms]. */
  sleeps(now: number): number {
    const next = [...this.wanted].flatMap(([runId, wanted]) =>
      wanted
        .filter(({ id, at }) => (this.rung.get(`${runId} ${id}`) ?? -Infinity) < at)
        .map(({ at }) => at + GRACE),
    );
    return Math.max(0, Math.min(LONGEST, ...next.map((at) => at - now)));
  }
}
