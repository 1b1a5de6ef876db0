import { type PGlite, type PGliteOptions } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';
import { closeSync, fsyncSync, openSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

/** The part of Emscripten's node file layer that is completed here. */
interface NodeFileLayer {
  stream_ops: { fsync?: (stream: { nfd?: number; node: unknown }) => number };
  realPath(node: unknown): string;
}

function flush(path: string): void {
  const file = openSync(path, 'r');
  try {
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
}

/**
 * The embedded database's file system with the one call it lacks: fsync. PostgreSQL's own order of flushes (log
 * before commit, data before a checkpoint ends) then holds down to the disk, so that an acknowledged save survives a
 * power cut. Needs PostgreSQL started with fsync on and `wal_sync_method=fsync`: see client.ts.
 */
export class DurableFS extends NodeFS {
  /** How often a file was flushed to the disk since the database was opened. */
  flushes = 0;

  override async init(pg: PGlite, options: Partial<PGliteOptions>): ReturnType<NodeFS['init']> {
    const result = await super.init(pg, options as Parameters<NodeFS['init']>[1]);
    const { emscriptenOpts } = result;
    emscriptenOpts.preRun = [
      ...(emscriptenOpts.preRun ?? []),
      (module: unknown): void => {
        const layer = (module as { NODEFS: NodeFileLayer }).NODEFS;
        layer.stream_ops.fsync = (stream): number => {
          this.flushes++;
          if (stream.nfd === undefined) flush(layer.realPath(stream.node));
          else fsyncSync(stream.nfd);
          return 0;
        };
      },
    ];
    return result;
  }
}

/** Flushes a new data directory whole: what initdb wrote is not logged, so nothing else would. */
export function flushTree(directory: string): void {
  for (const entry of readdirSync(directory, { withFileTypes: true })) {
    const path = join(directory, entry.name);
    if (entry.isDirectory()) flushTree(path);
    else if (entry.isFile()) flush(path);
  }
  flush(directory);
}
