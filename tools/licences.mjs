// Lists what Zaffet ships with, and what builds and tests it, by licence: docs/licences.md, from the lock file.
// usage: node tools/licences.mjs [--check]; --check fails where the page is not what the lock file says
import { readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import prettier from 'prettier';

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const PAGE = join(ROOT, 'docs/licences.md');
/** Whose own description names none, by what stands in their LICENSE file. */
const BY_THEIR_FILE = { 'png-js': 'MIT' };

const { packages } = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'));
const all = Object.entries(packages)
  .filter(([path, { link }]) => path.startsWith('node_modules/') && !link)
  .map(([path, { version, license, dev = false }]) => {
    const name = path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length);
    return { name, version, dev, licence: license ?? BY_THEIR_FILE[name] };
  });
const without = all.filter(({ licence }) => licence === undefined);
if (without.length > 0) {
  process.stderr.write(`No licence is known of ${without.map(({ name }) => name).join(', ')}.\n`);
  process.exit(1);
}

/** A paragraph a licence, the most used first. */
function paragraphs(of) {
  const licences = new Map();
  for (const one of of) licences.set(one.licence, [...(licences.get(one.licence) ?? []), one]);
  const names = (those) => [...new Set(those.map(({ name, version }) => `${name} ${version}`))].sort();
  return [...licences]
    .sort(([a, x], [b, y]) => y.length - x.length || (a < b ? -1 : 1))
    .map(([licence, those]) => `**${licence}**: ${names(those).join(', ')}`)
    .join('\n\n');
}

const text = `# Licences

Made by \`node tools/licences.mjs\` from \`package-lock.json\`; CI checks that it is what that file says.

## What Zaffet runs with

${paragraphs(all.filter(({ dev }) => !dev))}

## What builds and tests it

${paragraphs(all.filter(({ dev }) => dev))}
`;
const page = await prettier.format(text, { ...(await prettier.resolveConfig(PAGE)), filepath: PAGE });
if (!process.argv.includes('--check')) writeFileSync(PAGE, page);
else if (readFileSync(PAGE, 'utf8') !== page) {
  process.stderr.write('docs/licences.md is not what package-lock.json says: run node tools/licences.mjs.\n');
  process.exit(1);
}
