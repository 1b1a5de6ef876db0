import { API, type Plan } from '@zaffet/contract';
import { newPlan } from '@zaffet/workshop';
import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { createHash, randomFillSync } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../../../..', import.meta.url));

/** A folder of its own for a test's database, gone afterwards. */
export function scratchFolder(): { path: string; remove: () => void } {
  const root = mkdtempSync(join(tmpdir(), 'zaffet-'));
  return { path: join(root, 'data'), remove: () => rmSync(root, { recursive: true, force: true }) };
}

/** The end of the process, in a test. */
export const mustNotFail = (sentence: string): never => {
  throw new Error(sentence);
};

/** A valid plan of a name. */
export function planNamed(name: string): Plan {
  let next = 0;
  return newPlan('dried-medium', name, 5, '2026-05-12T08:00:00.000Z', () => `id-${++next}`);
}

/** The head of a JPEG; what follows is noise, for its bytes are all that the server looks at. */
const JPEG_HEAD = Buffer.from('ffd8ffe000104a46494600010100000100010000ffc0000b080300040001011100', 'hex');

/** A photograph like no other, of so many bytes. */
export function photographOf(size: number): { readonly bytes: Buffer; readonly hash: string } {
  const bytes = randomFillSync(Buffer.alloc(size));
  JPEG_HEAD.copy(bytes);
  return { bytes, hash: hashOf(bytes) };
}
/** SHA-256, in hexadecimal digits. */
export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Puts a photograph into a Zaffet. */
export const putPhotograph = (
  url: string,
  { bytes, hash }: { bytes: Buffer; hash: string },
): Promise<Response> =>
  fetch(url + API.photo(hash), {
    method: 'PUT',
    headers: { 'content-type': 'image/jpeg' },
    body: new Uint8Array(bytes),
  });

/** A Zaffet of its own process. */
export interface Launched {
  readonly child: ChildProcess;
  /** Its address, once it is ready; '' where it ended before. */
  readonly url: Promise<string>;
  /** All it has said so far. */
  said(): string;
  /** Its exit code, or the signal it died of. */
  readonly ended: Promise<number | string>;
}

/** The server as it is bundled for `npm start`, made where it is older than its source. */
let bundle: string | null = null;
function bundledServer(): string {
  if (bundle === null) {
    execFileSync(process.execPath, ['tools/prepare.mjs', 'server'], { cwd: ROOT, stdio: ['ignore', 2, 2] });
    bundle = join(ROOT, 'dist/server/main.mjs');
  }
  return bundle;
}

/** Starts Zaffet on a free port. @param options - of Node.js, before its own */
export function launch(env: Readonly<Record<string, string>>, options: readonly string[] = []): Launched {
  const child = spawn(process.execPath, [...options, bundledServer()], {
    cwd: ROOT,
    env: { ...process.env, PORT: '0', ZAFFET_DEMO: 'off', ZAFFET_BACKUPS: 'off', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let text = '';
  const url = new Promise<string>((resolve) => {
    const hear = (chunk: Buffer): void => {
      text += chunk.toString();
      const ready = /ready at (\S+)/.exec(text);
      if (ready) resolve(ready[1]!);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.on('close', () => resolve(''));
  });
  const ended = once(child, 'close').then(([code, signal]) => (code ?? signal) as number | string);
  return { child, url, ended, said: () => text };
}

/** Sends JSON. */
export const send = (url: string, method: string, body: unknown): Promise<Response> =>
  fetch(url, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
