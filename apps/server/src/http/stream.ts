import { fault, ZaffetError } from '@zaffet/contract';
import { type Response } from 'express';

/** Pages that may listen at once, and those of one device: a browser has no more than six lines to one server. */
const MOST = 64;
const MOST_OF_ONE = 8;
/** A line now and then, so that a lost connection is noticed [ms]. */
const HEARTBEAT = 15_000;

interface Listener<About> {
  readonly about: About;
  readonly who: string | null;
}

/** Pages that listen to streams of server-sent events (WHATWG HTML, 9.2), with what each of them wants to hear. */
export class Streams<About> {
  private readonly listeners = new Map<Response, Listener<About>>();
  private timer: NodeJS.Timeout | null = null;

  /** @param changed - called after a page came or went */
  constructor(private readonly changed: () => void = () => undefined) {}

  /**
   * A page listens from now on, until it goes away.
   * @param who - its device; null where they are not told apart
   * @param first - its first line
   * @throws ZaffetError `server.busy` if too many listen already, here or on this device
   */
  add(response: Response, who: string | null, about: About, first: string): void {
    const count = [...this.listeners.values()].filter((listener) => listener.who === who).length;
    if (this.listeners.size >= MOST || (who !== null && count >= MOST_OF_ONE))
      throw new ZaffetError(fault('server.busy'));
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      // Packed, a line would wait for those after it.
      'cache-control': 'no-store, no-transform',
    });
    // Whoever asks for its headers alone has all there is.
    if (response.req.method === 'HEAD') {
      response.end();
      return;
    }
    response.write(first);
    this.listeners.set(response, { about, who });
    response.on('close', () => {
      this.listeners.delete(response);
      this.beat();
      this.changed();
    });
    this.beat();
    this.changed();
  }

  /** What the pages that listen want to hear. */
  wanted(): About[] {
    return [...this.listeners.values()].map(({ about }) => about);
  }

  send(data: string, wants: (about: About) => boolean): void {
    for (const [response, { about }] of this.listeners) if (wants(about)) response.write(`data: ${data}\n\n`);
  }

  private beat(): void {
    if (this.listeners.size > 0 && this.timer === null) {
      this.timer = setInterval(() => {
        for (const response of this.listeners.keys()) response.write(': still here\n\n');
      }, HEARTBEAT);
      this.timer.unref();
    } else if (this.listeners.size === 0 && this.timer !== null) {
      clearInterval(this.timer);
      this.timer = null;
    }
  }
}
