// Makes ready what a command needs, and only what is missing or stale: packages, the built page, a browser.
// usage: node tools/prepare.mjs [build] [server] [browser]
import { execFileSync, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const wanted = new Set(process.argv.slice(2));
// To the error output, so that what the command itself prints stays clean.
const say = (line) => process.stderr.write(`${line}\n`);
const ONTO_ERRORS = ['ignore', 2, 2];
const path = (name) => join(ROOT, name);

/** Files below a folder, in a fixed order. */
function filesBelow(folder) {
  return readdirSync(path(folder), { withFileTypes: true })
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) =>
      entry.isDirectory() ? filesBelow(join(folder, entry.name)) : [join(folder, entry.name)],
    );
}

function digest(files) {
  const hash = createHash('sha256');
  for (const file of files)
    hash
      .update(file)
      .update('\0')
      .update(readFileSync(path(file)))
      .update('\0');
  return hash.digest('hex');
}

/** Does the work unless the stamp says it was done for just these inputs. */
async function once(stamp, inputs, done, work) {
  const now = digest(inputs);
  if (done && existsSync(path(stamp)) && readFileSync(path(stamp), 'utf8') === now) return;
  await work();
  mkdirSync(dirname(path(stamp)), { recursive: true });
  writeFileSync(path(stamp), now);
}

function npm(...args) {
  const npmCli = process.env.npm_execpath;
  const [command, first] = npmCli ? [process.execPath, [npmCli]] : ['npm', []];
  execFileSync(command, [...first, ...args], { cwd: ROOT, stdio: ONTO_ERRORS });
}

const manifests = [
  'package.json',
  'package-lock.json',
  '.npmrc',
  ...['packages', 'apps'].flatMap((group) =>
    readdirSync(path(group)).map((name) => `${group}/${name}/package.json`),
  ),
  'e2e/package.json',
];

await once('node_modules/.prepared', manifests, existsSync(path('node_modules')), () => {
  say('Installing packages (about a minute) …');
  npm('ci');
});

/** Runs a script of Node.js. */
const node = (...args) =>
  new Promise((resolve, reject) => {
    const env = { ...process.env, NG_CLI_ANALYTICS: 'false' };
    spawn(process.execPath, args, { cwd: ROOT, stdio: ONTO_ERRORS, env }).on('close', (code) =>
      code === 0 ? resolve() : reject(new Error(`${args.join(' ')} failed`)),
    );
  });

const sourcesOf = (...folders) => folders.flatMap(filesBelow).filter((file) => !file.endsWith('.spec.ts'));
const packages = ['core', 'contract', 'workshop', 'words'].map((name) => `packages/${name}/src`);

async function buildWeb() {
  const settings = [
    'tsconfig.json',
    'package-lock.json',
    'apps/web/tsconfig.app.json',
    'apps/web/tsconfig.worker.json',
    'tools/shell.mjs',
    'tools/door.mjs',
    'angular.json',
  ];
  const sources = sourcesOf(...packages, 'apps/web/src', 'apps/web/shell', 'apps/web/public', 'docs');
  const done = existsSync(path('dist/web/browser/index.html'));
  await once('dist/web/.prepared', [...sources, ...settings], done, async () => {
    say('Building the web application (about half a minute) …');
    await node('node_modules/@angular/cli/bin/ng.js', 'build');
    await node('tools/shell.mjs', 'dist/web/browser');
    await node('tools/door.mjs', 'dist/web');
  });
}

async function buildServer() {
  const sources = sourcesOf(...packages, 'apps/server/src', 'apps/server/drizzle');
  const settings = ['package-lock.json', 'tools/server.mjs'];
  const done = existsSync(path('dist/server/main.mjs'));
  await once('dist/server/.prepared', [...sources, ...settings], done, () =>
    node('tools/server.mjs', 'dist/server'),
  );
}

await Promise.all([
  wanted.has('build') ? buildWeb() : undefined,
  wanted.has('build') || wanted.has('server') ? buildServer() : undefined,
]);

if (wanted.has('browser')) {
  const known = [
    process.env.CHROME_BIN,
    '/usr/bin/chromium',
    '/usr/bin/chromium-browser',
    '/usr/bin/google-chrome',
  ];
  if (!known.some((file) => file && existsSync(file))) {
    if (process.platform !== 'linux' || process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) {
      say(
        'No Chromium was found. Install it, or set CHROME_BIN to a Chromium or Chrome, then run this again.',
      );
      process.exit(1);
    }
    say('Installing Chromium from the system packages …');
    const apt = (...args) =>
      execFileSync('apt-get', args, {
        stdio: ONTO_ERRORS,
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      });
    apt('update', '-q');
    apt('install', '-y', '-q', '--no-install-recommends', 'chromium');
  }
}
