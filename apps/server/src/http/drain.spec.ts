import express from 'express';
import { once } from 'node:events';
import { type AddressInfo } from 'node:net';
import { readToEnd } from './drain';

describe('a body that is too large', () => {
  it('is read to its end: the answer arrives', async () => {
    const patient = express();
    patient.use(async (request, response) => {
      await readToEnd(request);
      response.status(413).json({});
    });
    const listening = patient.listen(0, '127.0.0.1');
    await once(listening, 'listening');
    const { port } = listening.address() as AddressInfo;
    const answer = await fetch(`http://127.0.0.1:${port}`, { method: 'POST', body: 'x'.repeat(20_000_000) });
    expect(answer.status).toBe(413);
    listening.close();
    listening.closeAllConnections();
  });
});
