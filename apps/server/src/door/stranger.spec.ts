import express from 'express';
import { once } from 'node:events';
import { connect, type AddressInfo, type Socket } from 'node:net';
import { readNoMore } from './stranger';

describe('a body that nobody asked for', () => {
  const app = express();
  app.use((request, response) => {
    readNoMore(request, 300);
    response.status(401).json({});
  });
  const server = app.listen(0, '127.0.0.1');
  afterAll(() => {
    server.close();
    server.closeAllConnections();
  });

  /** Sends a head that announces so much, then what it is told. @returns what comes back until the end */
  function open(length: number): { socket: Socket; answer: Promise<string> } {
    const socket = connect((server.address() as AddressInfo).port, '127.0.0.1');
    socket.write(`POST / HTTP/1.1\r\nhost: x\r\ncontent-length: ${length}\r\n\r\n`);
    let text = '';
    socket.on('data', (piece: Buffer) => (text += piece.toString()));
    socket.on('error', () => undefined);
    return { socket, answer: new Promise((resolve) => socket.on('close', () => resolve(text))) };
  }

  it('is read to its end where it is small: the connection goes on', async () => {
    const { socket, answer } = open(1000);
    socket.write('x'.repeat(1000));
    await once(socket, 'data');
    socket.end('GET / HTTP/1.1\r\nhost: x\r\nconnection: close\r\n\r\n');
    expect((await answer).match(/HTTP\/1\.1 401/g)!.length).toBe(2);
  });

  it('ends the connection where there is more of it than 64 kB', async () => {
    const { socket, answer } = open(50_000_000);
    let sent = 0;
    const more = (): void => {
      while (!socket.destroyed && socket.write('x'.repeat(16_384))) sent += 16_384;
      if (!socket.destroyed) socket.once('drain', more);
    };
    more();
    await answer;
    // What the system holds for both ends is gone already.
    expect(sent).toBeLessThan(20_000_000);
  });

  it('ends the connection where it does not come', async () => {
    const from = performance.now();
    expect(await open(1000).answer).toContain('HTTP/1.1 401');
    expect(performance.now() - from).toBeLessThan(5000);
  });
});
