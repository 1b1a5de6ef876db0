import { EventEmitter } from 'node:events';
import { type Server, type Socket } from 'node:net';
import { guardSockets } from './sockets';

class FakeSocket extends EventEmitter {
  destroyed = false;
  constructor(readonly remoteAddress: string) {
    super();
  }
  destroy(): void {
    this.destroyed = true;
    this.emit('close');
  }
}

describe('connections', () => {
  let server: EventEmitter;
  /** Those that wait for nothing. */
  let idle: FakeSocket[];
  const answers = { closeIdleConnections: () => idle.forEach((socket) => socket.destroy()) };

  beforeEach(() => {
    server = new EventEmitter();
    idle = [];
    guardSockets(server as Server, answers, { mostOfOne: 3, most: 6 });
  });
  const connect = (address: string): FakeSocket => {
    const socket = new FakeSocket(address);
    server.emit('connection', socket as unknown as Socket);
    return socket;
  };
  const open = (address: string, count: number): FakeSocket[] =>
    Array.from({ length: count }, () => connect(address));

  it('of one address are so many, and another has its own', () => {
    expect(open('192.168.4.9', 4).map(({ destroyed }) => destroyed)).toEqual([false, false, false, true]);
    // The same address, as a server of both families sees it.
    expect(connect('::ffff:192.168.4.9').destroyed).toBeTrue();
    expect(connect('192.168.4.7').destroyed).toBeFalse();
  });

  it('that are closed make room for others', () => {
    const [first] = open('192.168.4.9', 3);
    first!.destroy();
    expect(connect('192.168.4.9').destroyed).toBeFalse();
    expect(connect('192.168.4.9').destroyed).toBeTrue();
  });

  it('of this machine are as many as there are', () => {
    expect(open('127.0.0.1', 6).some(({ destroyed }) => destroyed)).toBeFalse();
    expect(connect('127.0.0.1').destroyed).toBeTrue();
  });

  it('that wait for nothing are closed first where they run short', () => {
    idle = [...open('192.168.4.7', 3), ...open('192.168.4.8', 3)];
    const late = connect('192.168.4.9');
    expect(idle.every(({ destroyed }) => destroyed)).toBeTrue();
    expect(late.destroyed).toBeFalse();
  });
});
