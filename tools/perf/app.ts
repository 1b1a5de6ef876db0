import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { line, type PerfLine } from './report';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address !== null ? address.port : 0));
    });
  });

/** Seconds until a command says a word; the process is stopped afterwards. */
async function secondsUntil(word: string, args: string[], env: Record<string, string>): Promise<number> {
  const start = performance.now();
  const child: ChildProcess = spawn(process.execPath, args, { cwd: ROOT, env: { ...process.env, ...env } });
  await new Promise<void>((resolve, reject) => {
    let text = '';
    child.stdout?.on('data', (chunk: Buffer) => {
      text += chunk.toString();
      if (text.includes(word)) resolve();
    });
    child.on('close', () => reject(new Error(`ended before saying "${word}": ${text}`)));
  });
  const seconds = (performance.now() - start) / 1000;
  const closed = new Promise((resolve) => child.on('close', resolve));
  child.removeAllListeners('close');
  child.on('close', () => undefined);
  child.kill('SIGTERM');
  await Promise.race([closed, new Promise((resolve) => setTimeout(resolve, 6000))]);
  return seconds;
}

async function startSecond(): Promise<PerfLine> {
  const root = mkdtempSync(join(tmpdir(), 'zaffet-perf-'));
  const env = { PORT: String(await freePort()), ZAFFET_DATA: join(root, 'data') };
  const server = ['--import', 'tsx', 'apps/server/src/main.ts'];
  const first = await secondsUntil('ready at', server, env);
  const times: number[] = [];
  const bare: number[] = [];
  for (let i = 0; i < 3; i++) {
    // The prepare step of `npm start` counts: it checks that packages and build are fresh.
    const prepare = performance.now();
    await new Promise<void>((resolve, reject) => {
      spawn(process.execPath, ['tools/prepare.mjs', 'build'], { cwd: ROOT }).on('close', (code) =>
        code === 0 ? resolve() : reject(new Error('prepare failed')),
      );
    });
    const prepared = (performance.now() - prepare) / 1000;
    times.push(prepared + (await secondsUntil('ready at', server, env)));
    bare.push(
      await secondsUntil(
        'up',
        ['--import', 'tsx', '-e', 'console.log("up"); setTimeout(() => {}, 9000)'],
        env,
      ),
    );
  }
  rmSync(root, { recursive: true, force: true });
  const mid = (values: number[]): number => [...values].sort((a, b) => a - b)[1]!;
  return line(
    'start.second',
    's',
    mid(times),
    mid(bare),
    3,
    `prepare and server until it answers; first start on an empty directory ${first.toFixed(1)} s; reference: a bare Node.js with tsx saying one word`,
  );
}

function firstLoad(): PerfLine {
  const folder = join(ROOT, 'dist/web/browser');
  const index = readFileSync(join(folder, 'index.html'), 'utf8');
  // What the page itself names, followed through static imports: all that must arrive before the first view.
  const wanted = [...index.matchAll(/(?:src|href)="([^"]+\.(?:js|css))"/g)].map((match) => match[1]!);
  const seen = new Set<string>();
  let gzip = Buffer.byteLength(gzipSync(index, { level: 9 }));
  let raw = index.length;
  while (wanted.length > 0) {
    const name = wanted.pop()!;
    if (seen.has(name) || !readdirSync(folder).includes(name)) continue;
    seen.add(name);
    const bytes = readFileSync(join(folder, name));
    gzip += gzipSync(bytes, { level: 9 }).byteLength;
    raw += bytes.byteLength;
    for (const match of bytes.toString().matchAll(/from"\.\/([^"]+\.js)"|import"\.\/([^"]+\.js)"/g))
      wanted.push(match[1] ?? match[2]!);
  }
  return line(
    'web.first-load',
    'kB',
    gzip / 1000,
    raw / 1000,
    1,
    `${seen.size} files that the page needs before its first view, gzip -9; reference: the same files as they are; rooms, fonts and the worker come after`,
  );
}

export const appLines: Record<string, () => PerfLine | Promise<PerfLine>> = {
  'start.second': startSecond,
  'web.first-load': firstLoad,
};
