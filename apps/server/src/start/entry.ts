import { fileURLToPath } from 'node:url';

/** Set in the bundle alone. */
declare const BUNDLED: boolean | undefined;

/** A file that runs in a process or thread of its own. */
export interface Entry {
  readonly path: string;
  readonly execArgv: readonly string[];
}

/**
 * Finds such a file: beside the bundle, or in the source.
 * @param name - its path below the server's source, without its ending
 */
export function entry(name: string): Entry {
  const bundled = typeof BUNDLED !== 'undefined';
  const file = bundled ? `./${name.split('/').at(-1)!}.mjs` : `../${name}.ts`;
  return {
    path: fileURLToPath(new URL(file, import.meta.url)),
    execArgv: bundled ? [] : ['--import', 'tsx'],
  };
}
