// Lists the files of the sign-in page beside the built page: all that is given to who is not signed in.
// usage: node tools/door.mjs BUILD_DIRECTORY
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const build = process.argv[2];
const { outputs } = JSON.parse(readFileSync(join(build, 'stats.json'), 'utf8'));
const ENTRIES = ['apps/web/src/main.ts', 'apps/web/src/app/shell/sign-in.ts', 'angular:styles/global:styles'];

const files = new Set(['favicon.svg']);
/** A file with all that it needs at once; what it may ask for later is not needed. */
function take(name) {
  if (files.has(name) || outputs[name] === undefined) return;
  files.add(name);
  for (const { path, kind } of outputs[name].imports) if (kind !== 'dynamic-import') take(path);
}
for (const entry of ENTRIES) {
  const found = Object.keys(outputs).find((name) => outputs[name].entryPoint === entry);
  if (found === undefined) throw new Error(`The build has no file of ${entry}.`);
  take(found);
}
writeFileSync(join(build, 'door.json'), JSON.stringify([...files].map((name) => `/${name}`).sort()));
