// Writes the page's own worker beside the built page: what it keeps is listed with the hash of every file.
// usage: node tools/shell.mjs BROWSER_DIRECTORY
import { build } from 'esbuild';
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, sep } from 'node:path';
import { fileURLToPath } from 'node:url';

const browser = process.argv[2];
const source = join(dirname(dirname(fileURLToPath(import.meta.url))), 'apps/web/shell/page.worker.ts');
const hash = (bytes) => createHash('sha256').update(bytes).digest('hex');
const below = (folder) =>
  readdirSync(folder, { withFileTypes: true })
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) => (entry.isDirectory() ? below(join(folder, entry.name)) : [join(folder, entry.name)]));

/** Pictures of the guide are many and large, and no part of the work at the bench. */
const LEFT_OUT = /^\/(index\.html|sw\.js|.*\.map|.*\.png)$/;
const files = below(browser)
  .map((file) => [`/${relative(browser, file).replaceAll(sep, '/')}`, file])
  .filter(([address]) => !LEFT_OUT.test(address))
  .map(([address, file]) => [address, hash(readFileSync(file))]);
const page = hash(readFileSync(join(browser, 'index.html')));
const name = hash(JSON.stringify([files, page, hash(readFileSync(source))])).slice(0, 12);
await build({
  entryPoints: [source],
  outfile: join(browser, 'sw.js'),
  bundle: true,
  minify: true,
  format: 'iife',
  logLevel: 'warning',
  define: { BUILD: JSON.stringify(name), FILES: JSON.stringify(files), PAGE: JSON.stringify(page) },
});
