import { createServer, type Server as HttpServer } from 'node:http';
import { createServer as createSecureServer, type Server as HttpsServer } from 'node:https';
import { createServer as createListener, type Server, type Socket } from 'node:net';
import { type Pair } from './authority';
import { guardSockets } from './sockets';

/** The first byte of a TLS greeting (RFC 8446, 5.1: a record of type handshake). */
const GREETING = 22;
/** Whoever says nothing at all, or not what it wants, is not waited for longer [ms]. */
const SPEAKS_WITHIN = 10_000;

/**
 * A backup of some GB comes slowly through a workshop's air; what names a request comes at once. Bodies of those who are
 * not signed in have a time of their own: door/routes.ts.
 */
const TIMES = {
  requestTimeout: 3_600_000,
  headersTimeout: SPEAKS_WITHIN,
  connectionsCheckingInterval: SPEAKS_WITHIN / 4,
} as const;
const SECURE_TIMES = { ...TIMES, handshakeTimeout: SPEAKS_WITHIN } as const;
const STRAY_TIMES = { ...TIMES, requestTimeout: SPEAKS_WITHIN } as const;

/** What listens, what answers there, and how all that is open is closed. */
export interface Listening {
  readonly server: Server;
  /** Takes the requests that Zaffet answers. */
  readonly answers: HttpServer | HttpsServer;
  /** Takes those that came without TLS where there is TLS; null where there are none. */
  readonly strays: HttpServer | null;
  closeAll(): void;
}

/** By http, or by https under a certificate, and by nothing else. */
export function oneWay(pair: Pair | null): Listening {
  const server = pair === null ? createServer(TIMES) : createSecureServer({ ...pair, ...SECURE_TIMES });
  guardSockets(server, server);
  return { server, answers: server, strays: null, closeAll: () => server.closeAllConnections() };
}

/** One port for both: what greets in TLS is Zaffet's, what does not is told the way. */
export function bothWays(pair: Pair): Listening {
  const [answers, strays] = [createSecureServer({ ...pair, ...SECURE_TIMES }), createServer(STRAY_TIMES)];
  // What they are handed is timed only once they take themselves for listening.
  for (const one of [answers, strays]) one.emit('listening');
  const open = new Set<Socket>();
  const server = createListener((socket) => {
    open.add(socket);
    socket.on('close', () => open.delete(socket));
    socket.on('error', () => socket.destroy());
    socket.setTimeout(SPEAKS_WITHIN, () => socket.destroy());
    socket.once('data', (first: Buffer) => {
      socket.setTimeout(0);
      socket.removeAllListeners('timeout');
      socket.pause();
      socket.unshift(first);
      (first[0] === GREETING ? answers : strays).emit('connection', socket);
      process.nextTick(() => socket.resume());
    });
  });
  guardSockets(server, answers);
  return { server, answers, strays, closeAll: () => open.forEach((socket) => socket.destroy()) };
}
