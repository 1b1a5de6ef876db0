// Changes the code of a room of the core in small ways and counts how many of the changes its fast specs notice.
// usage: npm run mutate -- ROOM [more rooms or files]; not part of npm test
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Stryker } from '@stryker-mutator/core';

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
process.chdir(ROOT);
/** Changes of these would break no promise: each with the reason why. */
const HARMLESS = JSON.parse(readFileSync(join(ROOT, 'tools/mutate.harmless.json'), 'utf8'));
const REPORT = 'dist/mutation.json';
const CONFIG = 'dist/jasmine.mutate.json';

const CORE = 'packages/core/src';
const FAST = ['**/*.spec.ts', '!**/*.slow.spec.ts'];
/** What sees the whole way of a plan in a second. */
const GOLDEN = 'forecast/golden.spec.ts';

const asked = process.argv.slice(2);
if (asked.length === 0) {
  console.error('Name a room of packages/core/src, as in: npm run mutate -- film');
  process.exit(2);
}

/** Changes code and runs specs over it. @returns what became of each change, by file */
async function changed(mutate, specFiles) {
  writeFileSync(
    CONFIG,
    JSON.stringify({ spec_dir: CORE, spec_files: specFiles, random: true, failSpecWithNoExpectations: true }),
  );
  await new Stryker({
    mutate,
    testRunner: 'jasmine',
    plugins: ['@stryker-mutator/jasmine-runner'],
    jasmineConfigFile: CONFIG,
    testRunnerNodeArgs: ['--import', 'tsx'],
    coverageAnalysis: 'perTest',
    ignoreStatic: true,
    concurrency: 2,
    timeoutMS: 8000,
    ignorePatterns: ['dist/*', `!${CONFIG}`, '.data', 'docs', 'e2e', 'apps', '.angular', 'demo'],
    tempDirName: 'dist/mutate',
    reporters: ['json', 'progress'],
    jsonReporter: { fileName: REPORT },
    logLevel: 'error',
    allowConsoleColors: false,
  }).runMutationTest();
  rmSync('dist/mutate', { recursive: true, force: true });
  return Object.entries(JSON.parse(readFileSync(REPORT, 'utf8')).files).flatMap(
    ([file, { mutants, source }]) =>
      mutants
        .filter(({ status }) => !['Ignored', 'CompileError', 'RuntimeError'].includes(status))
        .map((mutant) => ({
          ...mutant,
          file,
          change: told(file, mutant, source),
          survived: ['Survived', 'NoCoverage'].includes(mutant.status),
        })),
  );
}

/** A change as one reads it: where, what was there, what came instead. */
function told(file, { location, mutatorName, replacement }, source) {
  const { start, end } = location;
  const line = source.split('\n')[start.line - 1];
  const was = start.line === end.line ? line.slice(start.column - 1, end.column - 1) : line.trim();
  return `${file.replace(`${CORE}/`, '')}:${start.line} ${mutatorName} ${was.slice(0, 60)} -> ${(replacement ?? '').replace(/\s+/g, ' ').slice(0, 60)}`;
}

/** Where a change lies, as Stryker takes it. */
const placeOf = ({ file, location: { start, end } }) =>
  `${file}:${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`;

const files = asked.map((name) => (name.endsWith('.ts') ? `${CORE}/${name}` : `${CORE}/${name}/**/*.ts`));
const rooms = [...new Set(asked.map((name) => name.split('/')[0]))];
// The room's own specs are quick; what they let pass is shown to all the fast ones.
const near = await changed(
  [...files, '!**/*.spec.ts', '!**/index.ts', '!**/types.ts'],
  [...rooms.map((room) => `${room}/**/*.spec.ts`), '!**/*.slow.spec.ts', GOLDEN],
);
const passed = new Set(near.filter(({ survived }) => survived).map(({ change }) => change));
const far =
  passed.size === 0 ? [] : await changed(near.filter(({ survived }) => survived).map(placeOf), FAST);
const unseen = new Set(far.filter(({ survived }) => survived).map(({ change }) => change));
const harmless = (change) =>
  HARMLESS.some(({ change: known }) => change.replace(/:\d+/, '').startsWith(known));
const left = [...passed].filter((change) => unseen.has(change) && !harmless(change));
const counted = near.filter(({ change }) => !(unseen.has(change) && harmless(change))).length;
const noticed = counted - near.filter(({ change }) => left.includes(change)).length;
for (const change of left) console.log(change);
console.log(
  `${asked.join(' ')}: ${noticed} of ${counted} changes noticed, ${Math.round((100 * noticed) / counted)} %`,
);
