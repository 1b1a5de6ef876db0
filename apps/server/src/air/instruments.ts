import {
  type KeptReading,
  type Reading,
  type ReadingsRequest,
  type Shop,
  SIMULATED_SOURCE,
} from '@zaffet/contract';
import { hygrometerReads, simulatedShopAir } from '@zaffet/workshop';
import { type Response } from 'express';
import { Streams } from '../http/stream';

/** How often the stand-in reads, and how often what it read is kept [ms]. */
const READS_EVERY = 5000;
const KEPT_EVERY = 60_000;
const HOUR = 3_600_000;
/** The instrument of this shop. */
const SEED = 1;

/** What the stand-in reads at a moment: the simulated weather's air in this shop; null where the reading is lost. */
export function simulatedReading(at: number, shop: Pick<Shop, 'room' | 'work'>): Reading | null {
  const [before, after] = simulatedShopAir(at, 2, shop);
  const share = (at - before!.at) / HOUR;
  const between = (of: (point: typeof before) => number): number =>
    of(before) + (of(after) - of(before)) * share;
  return hygrometerReads(
    {
      at,
      temperatureC: between((point) => point!.temperatureC),
      humidity: between((point) => point!.humidity),
    },
    SEED,
  );
}

/** What it needs of the rest of the server. */
export interface InstrumentsOptions {
  readonly shop: () => Promise<Shop>;
  readonly keep: (request: ReadingsRequest) => Promise<void>;
  readonly failed: (error: unknown) => void;
}

/** Hands every reading on to the pages that listen; reads by itself while one of them wants the stand-in. */
export class Instruments {
  /** Pages, by whether they want the stand-in too. */
  private readonly streams = new Streams<boolean>(() => this.wake());
  private timer: NodeJS.Timeout | null = null;
  private keptAt = Number.NEGATIVE_INFINITY;

  constructor(private readonly options: InstrumentsOptions) {}

  /** A page listens until it goes away. @throws ZaffetError `server.busy` */
  listen(response: Response, who: string | null, simulated: boolean): void {
    this.streams.add(response, who, simulated, ': listening\n\n');
  }

  tell(reading: KeptReading): void {
    this.streams.send(
      JSON.stringify(reading),
      (simulated) => simulated || reading.source !== SIMULATED_SOURCE,
    );
  }

  /** The stand-in reads as long as somebody wants it, and no longer. */
  private wake(): void {
    const wanted = this.streams.wanted().includes(true);
    if (wanted && this.timer === null) {
      this.timer = setInterval(() => void this.read().catch(this.options.failed), READS_EVERY);
      this.timer.unref();
      void this.read().catch(this.options.failed);
    } else if (!wanted && this.timer !== null) {
      clearInterval(this.timer);
      this.timer = null;
    }
  }

  private async read(): Promise<void> {
    const at = Date.now();
    const reading = simulatedReading(at, await this.options.shop());
    if (reading === null) return;
    if (at - this.keptAt >= KEPT_EVERY) {
      this.keptAt = at;
      await this.options.keep({ source: SIMULATED_SOURCE, readings: [reading] });
    }
    this.tell({ ...reading, source: SIMULATED_SOURCE });
  }
}
