// Sends requests as they are told, in a thread of its own; see asker.ts. Plain JavaScript, since it must start at once.
import { request as send } from 'node:http';
import { parentPort } from 'node:worker_threads';

const { port: answers } = await new Promise((resolve) => parentPort.once('message', resolve));

/** Paths and headers that a careful client would mend go out unmended. */
answers.on('message', ({ id, port, method, path, headers, body }) => {
  const answer = (what, pieces = []) => answers.postMessage({ id, ...what, body: Buffer.concat(pieces) });
  const failed = (error) => answers.postMessage({ id, error: String(error) });
  // A connection of its own each: a kept one may be closed while a large body is being made.
  const request = send({ port, host: '127.0.0.1', method, path, headers, agent: false }, (response) => {
    const head = { status: response.statusCode, headers: response.headers };
    const pieces = [];
    // A stream has no end: whoever asked goes.
    if (response.headers['content-type']?.startsWith('text/event-stream')) {
      answer(head);
      request.destroy();
      return;
    }
    response.on('data', (piece) => pieces.push(piece));
    response.on('end', () => answer(head, pieces));
    response.on('error', failed);
  });
  request.setTimeout(60_000, () => request.destroy(new Error('no answer within a minute')));
  request.on('error', failed);
  request.end(body ?? undefined);
});
