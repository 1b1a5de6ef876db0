import { type PGlite, type PGliteOptions } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';
import { fsyncSync } from 'node:fs';
import { flush } from './folder';

/** A file that PostgreSQL has open, as Emscripten's node file layer keeps it. */
interface Stream {
  readonly nfd?: number;
  readonly node: unknown;
}
type Write = (stream: Stream, buffer: unknown, offset: number, length: number, position: number) => number;
/** The parts of Emscripten's node file layer that are completed here. */
interface NodeFileLayer {
  stream_ops: { fsync?: (stream: Stream) => number; write: Write };
  node_ops: { mknod: (parent: unknown, name: string, mode: number, device: number) => unknown };
  realPath(node: unknown): string;
}

/** What the file layer makes of the system's errors: their numbers in WASI, of those a disk gives. */
const CODES: Readonly<Record<number, string>> = { 19: 'EDQUOT', 29: 'EIO', 51: 'ENOSPC', 69: 'EROFS' };
/** The name of an error's code, whichever layer threw it. */
const codeOf = ({ code, errno = 0 }: { code?: string; errno?: number }): string =>
  code ?? CODES[errno] ?? `error ${errno}`;

const LOG = /[\\/]pg_wal([\\/]|$)/;

/**
 * The embedded database's file system with the one call it lacks: fsync. PostgreSQL's own order of flushes (log
 * before commit, data before a checkpoint ends) then holds down to the disk, so that an acknowledged save survives a
 * power cut. Needs PostgreSQL started with fsync on and `wal_sync_method=fsync`: see client.ts.
 *
 * What PostgreSQL does where its log cannot be written or flushed is end itself, all of it; here its processes are one,
 * and it would wait for itself for ever. So the whole process ends in its place, before anything is answered.
 */
export class DurableFS extends NodeFS {
  /** How often a file was flushed to the disk since the database was opened. */
  flushes = 0;

  /** @param failed - told the code of what a flush or a write of the log failed with; must end the process */
  constructor(
    directory: string,
    private readonly failed: (code: string) => never,
  ) {
    super(directory);
  }

  override async init(pg: PGlite, options: Partial<PGliteOptions>): ReturnType<NodeFS['init']> {
    const result = await super.init(pg, options as Parameters<NodeFS['init']>[1]);
    const { emscriptenOpts } = result;
    emscriptenOpts.preRun = [
      ...(emscriptenOpts.preRun ?? []),
      (module: unknown): void => this.complete((module as { NODEFS: NodeFileLayer }).NODEFS),
    ];
    return result;
  }

  private complete(layer: NodeFileLayer): void {
    const { write } = layer.stream_ops;
    const { mknod } = layer.node_ops;
    const orFail = <T>(work: () => T): T => {
      try {
        return work();
      } catch (error) {
        return this.failed(codeOf(error as { code?: string; errno?: number }));
      }
    };
    layer.stream_ops.fsync = (stream): number => {
      this.flushes++;
      orFail(() => (stream.nfd === undefined ? flush(layer.realPath(stream.node)) : fsyncSync(stream.nfd)));
      return 0;
    };
    layer.stream_ops.write = (stream, ...rest): number =>
      LOG.test(layer.realPath(stream.node))
        ? orFail(() => write.call(layer.stream_ops, stream, ...rest))
        : write.call(layer.stream_ops, stream, ...rest);
    layer.node_ops.mknod = (parent, ...rest): unknown =>
      LOG.test(layer.realPath(parent))
        ? orFail(() => mknod.call(layer.node_ops, parent, ...rest))
        : mknod.call(layer.node_ops, parent, ...rest);
  }
}
