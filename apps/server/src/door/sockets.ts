import { readFileSync } from 'node:fs';
import { type Server as HttpServer } from 'node:http';
import { type Server as HttpsServer } from 'node:https';
import { type Server, type Socket } from 'node:net';
import { isLoopback } from './reached';

/** Connections of one address: some twenty tabs. This machine itself may have as many as there are. */
const MOST_OF_ONE = 128;
/** File descriptors that the rest of Zaffet needs. */
const RESERVED = 200;
/** Where the system does not say how many a process may have. */
const USUAL_DESCRIPTORS = 1024;
const MOST = 8192;
/** They run short from this share on. */
const SHORT = 0.9;

/** How many files and connections this process may have open (Linux, proc(5)). */
function descriptors(): number {
  try {
    const line = /^Max open files\s+(\d+)/m.exec(readFileSync('/proc/self/limits', 'utf8'));
    return Number(line![1]);
  } catch {
    return USUAL_DESCRIPTORS;
  }
}

const usual = { mostOfOne: MOST_OF_ONE, most: Math.min(MOST, Math.max(RESERVED, descriptors() - RESERVED)) };

/**
 * Lets nobody hold all connections: one address has so many, and where they run short those that wait for nothing are
 * closed before another is refused.
 * @param server - what listens
 * @param answers - what answers on its connections
 */
export function guardSockets(
  server: Server,
  answers: Pick<HttpServer | HttpsServer, 'closeIdleConnections'>,
  { mostOfOne, most }: typeof usual = usual,
): void {
  const open = new Map<string, number>();
  let all = 0;
  server.on('connection', (socket: Socket) => {
    const address = (socket.remoteAddress ?? '').replace(/^::ffff:/, '');
    const count = open.get(address) ?? 0;
    if (all >= most * SHORT) answers.closeIdleConnections();
    if (all >= most || (count >= mostOfOne && !isLoopback(address))) {
      socket.destroy();
      return;
    }
    all += 1;
    open.set(address, count + 1);
    socket.once('close', () => {
      all -= 1;
      const left = open.get(address)! - 1;
      if (left === 0) open.delete(address);
      else open.set(address, left);
    });
  });
}
