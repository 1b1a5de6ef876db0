// Bundles the server, so that it starts without compiling anything, and makes the empty database that a first start copies.
// usage: node tools/server.mjs FOLDER
import { build } from 'esbuild';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const SOURCE = join(ROOT, 'apps/server/src');
const folder = resolve(process.argv[2]);
/** Each is a file of the bundle, by its last name. */
const ENTRIES = ['main', 'sheet/sheet.process', 'reading/reader.worker', 'db/template.process'];
/** Knows by itself where the bundle lies. */
const AT_HOME = join(SOURCE, 'start/entry.ts');

/** Files are found from where the source stands: migrations, the demo, the page. */
const fromTheSource = {
  name: 'from-the-source',
  setup: ({ onLoad }) =>
    onLoad({ filter: /\.ts$/ }, ({ path }) => {
      const text = readFileSync(path, 'utf8');
      if (path === AT_HOME || !text.includes('import.meta.url')) return undefined;
      const there = JSON.stringify(relative(folder, path).replaceAll('\\', '/'));
      return {
        loader: 'ts',
        contents: text.replaceAll('import.meta.url', `new URL(${there}, import.meta.url).href`),
      };
    }),
};
/** Packages stay where they are installed; the project's packages go into the bundle. */
const packagesOutside = {
  name: 'packages-outside',
  setup: ({ onResolve }) =>
    onResolve({ filter: /^[^./]/ }, ({ kind, path }) =>
      kind === 'entry-point' || path.startsWith('@zaffet/') ? undefined : { path, external: true },
    ),
};

await build({
  entryPoints: Object.fromEntries(
    ENTRIES.map((name) => [name.split('/').at(-1), join(SOURCE, `${name}.ts`)]),
  ),
  outdir: folder,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  sourcemap: 'linked',
  logLevel: 'warning',
  define: { BUNDLED: 'true' },
  plugins: [fromTheSource, packagesOutside],
});
execFileSync(process.execPath, [join(folder, 'template.process.mjs')], { stdio: ['ignore', 2, 2] });
