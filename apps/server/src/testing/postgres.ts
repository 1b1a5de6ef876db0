import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const INSTALLED = '/usr/lib/postgresql';

/** Where a PostgreSQL server of Debian's lies that this user may run; null where there is none. */
function serverPrograms(): string | null {
  if (process.getuid?.() !== 0 || !existsSync(INSTALLED)) return null;
  const version = readdirSync(INSTALLED).find((name) => existsSync(join(INSTALLED, name, 'bin/initdb')));
  return version === undefined ? null : join(INSTALLED, version, 'bin');
}

async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1');
  await once(probe, 'listening');
  const { port } = probe.address() as { port: number };
  probe.close();
  return port;
}

/** A real PostgreSQL server of a test's own. */
export class TestPostgres {
  private readonly programs = serverPrograms();
  private readonly folder = mkdtempSync(join(tmpdir(), 'zaffet-pg-'));
  private readonly data = join(this.folder, 'data');
  url = '';

  /** Whether there is one on this machine. */
  get there(): boolean {
    return this.programs !== null;
  }

  /** PostgreSQL never runs as root. */
  private async run(program: string, ...args: string[]): Promise<void> {
    const child = spawn('runuser', ['-u', 'postgres', '--', join(this.programs!, program), ...args], {
      stdio: 'ignore',
      cwd: this.folder,
    });
    const [code] = (await once(child, 'close')) as [number | null];
    if (code !== 0) throw new Error(`${program} ended with ${code}`);
  }

  async start(): Promise<void> {
    if (!this.there) return;
    chmodSync(this.folder, 0o755);
    execFileSync('chown', ['postgres', this.folder]);
    const port = await freePort();
    await this.run('initdb', '-D', this.data, '-A', 'trust', '-U', 'zaffet', '-N', '-E', 'UTF8');
    const options = `-c listen_addresses=127.0.0.1 -c port=${port} -c unix_socket_directories=''`;
    await this.run('pg_ctl', '-w', '-D', this.data, '-o', options, '-l', join(this.folder, 'log'), 'start');
    this.url = `postgres://zaffet@127.0.0.1:${port}/postgres`;
  }

  /** Throws every connection away, as a machine that is started anew does. */
  restart(): Promise<void> {
    return this.run('pg_ctl', '-w', '-D', this.data, '-m', 'immediate', 'restart');
  }

  async stop(): Promise<void> {
    if (this.url !== '') await this.run('pg_ctl', '-D', this.data, '-m', 'immediate', 'stop');
    rmSync(this.folder, { recursive: true, force: true });
  }
}
