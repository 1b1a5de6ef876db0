import { chromium, type Locator } from '@playwright/test';
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
  const server = ['dist/server/main.mjs'];
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

const MOVES = 60;

interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly tid: number;
  readonly pid: number;
  readonly ts: number;
  readonly dur?: number;
  readonly args?: { readonly name?: string };
}

/** Longest tasks of the page's main thread [ms] between one pointer move and the next, and over all of the drag. */
function longestTasks(events: readonly TraceEvent[]): number[] {
  // A browser has several pages: the one that was moved over is meant.
  const moved = events.find(({ name, ph }) => name === 'moved' && ph !== 'M');
  const on = events.filter(({ pid, tid }) => pid === moved?.pid && tid === moved.tid);
  const moves = on.filter(({ name, ph }) => name === 'moved' && ph !== 'M').map(({ ts }) => ts);
  const tasks = on.filter(({ name, dur }) => name === 'RunTask' && dur !== undefined);
  return moves.map((from, i) => {
    const until = moves[i + 1] ?? from + 200_000;
    return Math.max(0, ...tasks.filter(({ ts }) => ts >= from && ts < until).map(({ dur }) => dur! / 1000));
  });
}

/** Drags a surface of the sea chest's Section by 60 moves, and a box on an empty page for reference. */
async function drag(): Promise<PerfLine> {
  const root = mkdtempSync(join(tmpdir(), 'zaffet-perf-'));
  const port = await freePort();
  const server = spawn(process.execPath, ['dist/server/main.mjs'], {
    cwd: ROOT,
    env: { ...process.env, PORT: String(port), ZAFFET_DATA: join(root, 'data') },
  });
  await new Promise<void>((resolve) =>
    server.stdout.on('data', (chunk: Buffer) => {
      if (chunk.toString().includes('ready at')) resolve();
    }),
  );
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  const pulled = async (grip: Locator): Promise<number[]> => {
    const page = grip.page();
    const box = (await grip.boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.evaluate('addEventListener("pointermove", () => performance.mark("moved"), true)');
    await page.mouse.move(x, y);
    await page.mouse.down();
    await browser.startTracing(page, {
      categories: [
        'toplevel',
        'blink.user_timing',
        'devtools.timeline',
        'disabled-by-default-devtools.timeline',
      ],
    });
    for (let i = 1; i <= MOVES; i++) {
      await page.mouse.move(x, y - 20 * Math.sin(i / 8));
      await page.waitForTimeout(60);
    }
    const trace = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] };
    await page.mouse.up();
    return longestTasks(trace.traceEvents);
  };
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`http://127.0.0.1:${port}/plans`);
    await page
      .getByRole('link', { name: /sea chest/i })
      .first()
      .click();
    const grip = page.getByRole('slider', { name: /top|sailcloth/i }).first();
    await grip.waitFor();
    await page.waitForTimeout(4000);
    const mine = await pulled(grip);
    const empty = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await empty.setContent('<i style="position:absolute;left:300px;top:300px;width:40px;height:40px"></i>');
    const bare = await pulled(empty.locator('i'));
    const mid = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? NaN;
    return line(
      'app.drag',
      'ms',
      mid(mine),
      mid(bare),
      mine.length,
      `longest main-thread task after a pointer move, median of a drag on the sea chest; longest of all ${Math.max(...mine).toFixed(0)} ms; reference: an empty page`,
    );
  } finally {
    await browser.close();
    server.kill('SIGTERM');
    rmSync(root, { recursive: true, force: true });
  }
}

export const appLines: Record<string, () => PerfLine | Promise<PerfLine>> = {
  'start.second': startSecond,
  'web.first-load': firstLoad,
  'app.drag': drag,
};
