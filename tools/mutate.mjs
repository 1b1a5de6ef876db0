// Changes the code of a room of the core in small ways and counts how many of the changes its fast specs notice.
// usage: npm run mutate -- ROOM [more rooms or files]; not part of npm test
import { readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Stryker } from '@stryker-mutator/core';

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
process.chdir(ROOT);
/** Changes of these would break no promise: each with the reason why. */
const HARMLESS = JSON.parse(readFileSync(join(ROOT, 'tools/mutate.harmless.json'), 'utf8'));
const REPORT = 'dist/mutation.json';

const asked = process.argv.slice(2);
if (asked.length === 0) {
  console.error('Name a room of packages/core/src, as in: npm run mutate -- film');
  process.exit(2);
}
const files = asked.map((name) =>
  name.endsWith('.ts') ? `packages/core/src/${name}` : `packages/core/src/${name}/**/*.ts`,
);

await new Stryker({
  mutate: [...files, '!**/*.spec.ts', '!**/index.ts', '!**/types.ts'],
  testRunner: 'jasmine',
  plugins: ['@stryker-mutator/jasmine-runner'],
  jasmineConfigFile: 'packages/core/jasmine.fast.json',
  testRunnerNodeArgs: ['--import', 'tsx'],
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 8000,
  ignorePatterns: ['dist', '.data', 'docs', 'e2e', 'apps', '.angular', 'demo'],
  tempDirName: 'dist/mutate',
  reporters: ['json', 'progress'],
  jsonReporter: { fileName: REPORT },
  logLevel: 'error',
  allowConsoleColors: false,
}).runMutationTest();
rmSync('dist/mutate', { recursive: true, force: true });

/** A change as one reads it: where, what was there, what came instead. */
const told = (file, { location, mutatorName, replacement }, source) => {
  const { start, end } = location;
  const line = source.split('\n')[start.line - 1];
  const was = start.line === end.line ? line.slice(start.column - 1, end.column - 1) : line.trim();
  return `${file.replace('packages/core/src/', '')}:${start.line} ${mutatorName} ${was.slice(0, 60)} -> ${(replacement ?? '').replace(/\s+/g, ' ').slice(0, 60)}`;
};

const report = JSON.parse(readFileSync(REPORT, 'utf8'));
let noticed = 0;
let counted = 0;
const left = [];
for (const [file, { mutants, source }] of Object.entries(report.files)) {
  for (const mutant of mutants) {
    if (['Ignored', 'CompileError', 'RuntimeError'].includes(mutant.status)) continue;
    const change = told(file, mutant, source);
    const survived = ['Survived', 'NoCoverage'].includes(mutant.status);
    if (survived && HARMLESS.some(({ change: known }) => change.replace(/:\d+/, '').startsWith(known)))
      continue;
    counted++;
    if (survived) left.push(change);
    else noticed++;
  }
}
for (const change of left) console.log(change);
console.log(
  `${asked.join(' ')}: ${noticed} of ${counted} changes noticed, ${Math.round((100 * noticed) / counted)} %`,
);
