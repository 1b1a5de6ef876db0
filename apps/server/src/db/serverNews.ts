import { readJson } from '@zaffet/contract';
import { randomUUID } from 'node:crypto';
import { type Client, type ClientConfig } from 'pg';
import { type Logger } from 'pino';
import { type News, type Newsroom, OwnNews } from '../news';
import { logged } from './failures';

const CHANNEL = 'zaffet_news';
const KINDS: readonly (keyof News)[] = ['run', 'air', 'out'];
/** Before a lost line is tried again [ms]. */
const RETRY = 1000;

/** As it goes through the database. */
interface Told {
  readonly by: string;
  readonly kind: keyof News;
  readonly what: never;
}

export interface ServerNewsOptions {
  connect(config?: ClientConfig): Client;
  /** Sends through whatever connection is free. */
  notify(channel: string, payload: string): Promise<unknown>;
  readonly log: Logger;
}

/**
 * News between the Zaffets of one PostgreSQL server, by its LISTEN and NOTIFY. A line that broke is made again, and
 * then it is told that news may have been missed; whoever listens asks the database.
 */
export class ServerNews implements Newsroom {
  private readonly own = new OwnNews();
  private readonly name = randomUUID();
  private line: Client | null = null;
  private timer: NodeJS.Timeout | undefined;
  private over = false;

  constructor(private readonly options: ServerNewsOptions) {}

  async start(): Promise<void> {
    const line = this.options.connect();
    const lost = (): void => {
      if (this.over || this.line !== line) return;
      this.line = null;
      this.again();
    };
    line.on('error', lost);
    line.on('end', lost);
    line.on('notification', ({ payload }) => this.read(payload ?? ''));
    await line.connect();
    await line.query(`listen ${CHANNEL}`);
    this.line = line;
  }

  async stop(): Promise<void> {
    this.over = true;
    clearTimeout(this.timer);
    await this.line?.end();
  }

  tell<Kind extends keyof News>(kind: Kind, what: News[Kind]): void {
    this.own.tell(kind, what);
    this.options.notify(CHANNEL, JSON.stringify({ by: this.name, kind, what })).catch((error: unknown) => {
      this.options.log.warn(logged(error), 'other Zaffets could not be told the news');
    });
  }

  hear<Kind extends keyof News>(kind: Kind, listener: (what: News[Kind]) => void): void {
    this.own.hear(kind, listener);
  }

  /** Anybody who may use the database can send something else on the channel: that is no news. */
  private read(payload: string): void {
    try {
      const { by, kind, what } = readJson(Buffer.from(payload)) as Told;
      if (by !== this.name && KINDS.includes(kind)) this.own.tell(kind, what);
    } catch (error) {
      this.options.log.warn(logged(error), 'what came as news from the database cannot be read');
    }
  }

  private again(): void {
    this.timer = setTimeout(() => {
      this.start().then(
        () => this.own.tell('missed', null),
        () => this.again(),
      );
    }, RETRY);
    this.timer.unref();
  }
}
