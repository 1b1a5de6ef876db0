import { type IncomingHttpHeaders } from 'node:http';
import { MessageChannel, type MessagePort, Worker } from 'node:worker_threads';

export interface Asked {
  readonly method: string;
  readonly path: string;
  readonly headers: Record<string, string>;
  readonly body: Buffer | null;
}
export interface Answered {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly body: Buffer;
}

type Reply = { readonly id: number } & (
  | { readonly error: string }
  | { readonly status: number; readonly headers: IncomingHttpHeaders; readonly body: Uint8Array }
);

/** A client in a thread of its own, so that what it works is no part of the server's turns. */
export class Asker {
  private readonly worker = new Worker(new URL('./asker.worker.mjs', import.meta.url), { execArgv: [] });
  private readonly answers: MessagePort;
  private readonly waiting = new Map<number, (reply: Reply) => void>();
  private last = 0;

  /** @param port - where the server listens, at 127.0.0.1 */
  constructor(private readonly port: number) {
    const { port1, port2 } = new MessageChannel();
    this.answers = port1;
    this.worker.postMessage({ port: port2 }, [port2]);
    port1.on('message', (reply: Reply) => {
      this.waiting.get(reply.id)?.(reply);
      this.waiting.delete(reply.id);
    });
  }

  /** Sends a request as it is told. @throws where no answer comes */
  async ask(asked: Asked): Promise<Answered> {
    const id = ++this.last;
    const reply = await new Promise<Reply>((resolve) => {
      this.waiting.set(id, resolve);
      this.answers.postMessage({ id, port: this.port, ...asked });
    });
    if ('error' in reply) throw new Error(reply.error);
    return { ...reply, body: Buffer.from(reply.body) };
  }

  async close(): Promise<void> {
    this.answers.close();
    await this.worker.terminate();
  }
}
