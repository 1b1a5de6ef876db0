// Runs everything that checks Zaffet and closes with one line: N passed, N failed, N skipped.
// usage: node tools/test.mjs [suite ...], suites as named below
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const NODE = process.execPath;
const jasmine = (name) => [
  '--import',
  'tsx',
  'node_modules/jasmine/bin/jasmine.js',
  `--config=${name}/jasmine.json`,
  '--no-color',
];
const bin = (name) => `node_modules/${name}`;

/** How a suite says what it ran: a number of passed, failed and skipped. */
const counts = {
  /** A check without counts of its own is one test. */
  exit: (_text, code) => ({ passed: code === 0 ? 1 : 0, failed: code === 0 ? 0 : 1, skipped: 0 }),
  jasmine: (text) => {
    const match = /(\d+) specs?, (\d+) failures?(?:, (\d+) pending)?/.exec(text);
    return (
      match && { passed: match[1] - match[2] - (match[3] ?? 0), failed: +match[2], skipped: +(match[3] ?? 0) }
    );
  },
  karma: (text) => {
    const match = /web: (\d+) passed, (\d+) failed, (\d+) skipped/.exec(text);
    return match && { passed: +match[1], failed: +match[2], skipped: +match[3] };
  },
  playwright: (text) => {
    const of = (word) => +(new RegExp(`^\\s*(\\d+) ${word}`, 'm').exec(text)?.[1] ?? 0);
    return { passed: of('passed'), failed: of('failed') + of('did not run'), skipped: of('skipped') };
  },
};

const SUITES = [
  ['lint', [bin('eslint/bin/eslint.js'), '.'], counts.exit],
  ['format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.'], counts.exit],
  ['licences', ['tools/licences.mjs', '--check'], counts.exit],
  [
    'imports',
    [
      bin('dependency-cruiser/bin/dependency-cruise.mjs'),
      '--config',
      '.dependency-cruiser.cjs',
      'packages',
      'apps/server/src',
      'apps/web/src',
    ],
    counts.exit,
  ],
  ...[
    'tsconfig.packages.json',
    'tsconfig.hosts.json',
    'apps/web/tsconfig.worker.json',
    'e2e',
    'tsconfig.checks.json',
  ].map((project) => [
    `types ${project}`,
    [bin('typescript/bin/tsc'), '--noEmit', '-p', project],
    counts.exit,
  ]),
  ...[
    'packages/core',
    'packages/contract',
    'packages/workshop',
    'packages/words',
    'packages/cli',
    'apps/server',
  ].map((project) => [project.split('/')[1], jasmine(project), counts.jasmine]),
  ['web', [bin('@angular/cli/bin/ng.js'), 'test'], counts.karma],
  [
    'e2e',
    [bin('@playwright/test/cli.js'), 'test', '--config', 'e2e/playwright.config.ts'],
    counts.playwright,
  ],
];

/** Suites that start browsers go by themselves: what they wait for comes late on a machine that does other things. */
const ALONE = ['web', 'e2e'];
/** Suites that take longest begin first, so that none is left at the end with a processor idle beside it. */
const LONGEST = ['server', 'core', 'workshop', 'format'];

/** Runs a suite. @param live - print what it says at once; else what it said is handed back */
function run(args, live) {
  return new Promise((resolve) => {
    const child = spawn(NODE, args, {
      cwd: ROOT,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NG_CLI_ANALYTICS: 'false', FORCE_COLOR: '0', NO_COLOR: '1' },
    });
    let text = '';
    const take = (chunk) => {
      text += chunk;
      if (live) process.stdout.write(chunk);
    };
    child.stdout.on('data', take);
    child.stderr.on('data', take);
    child.on('close', (code) => resolve({ text, code: code ?? 1 }));
  });
}

const total = { passed: 0, failed: 0, skipped: 0 };

async function check([name, args, count], live) {
  const started = Date.now();
  if (live) process.stdout.write(`\n== ${name}\n`);
  const { text, code } = await run(args, live);
  if (!live) process.stdout.write(`\n== ${name}\n${text}`);
  const found = count(text, code);
  // A suite that ran nothing, or failed without naming a failure, has failed.
  const result = found && found.passed + found.failed > 0 ? found : { passed: 0, failed: 1, skipped: 0 };
  if (code !== 0 && result.failed === 0) result.failed = 1;
  for (const key of Object.keys(total)) total[key] += result[key];
  process.stdout.write(
    `== ${name}: ${result.passed} passed, ${result.failed} failed, ${result.skipped} skipped, ${Math.round((Date.now() - started) / 1000)} s\n`,
  );
}

const wanted = process.argv.slice(2);
const chosen = SUITES.filter(([name]) => wanted.length === 0 || wanted.some((word) => name.startsWith(word)));
const rank = ([name]) => (LONGEST.includes(name) ? LONGEST.indexOf(name) : LONGEST.length);
const waiting = chosen.filter(([name]) => !ALONE.includes(name)).sort((a, b) => rank(a) - rank(b));
const lanes = Math.min(2, availableParallelism());
const alone = lanes === 1 || waiting.length === 1;
await Promise.all(
  Array.from({ length: lanes }, async () => {
    for (let suite = waiting.shift(); suite; suite = waiting.shift()) await check(suite, alone);
  }),
);
for (const suite of chosen.filter(([name]) => ALONE.includes(name))) await check(suite, true);
process.stdout.write(`\n${total.passed} passed, ${total.failed} failed, ${total.skipped} skipped\n`);
process.exit(total.failed > 0 || total.passed === 0 ? 1 : 0);
