import { sql } from 'drizzle-orm';
import { execFileSync } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { once } from 'node:events';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import { pino } from 'pino';
import { openServer } from './client';

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

describe('a database server', () => {
  const programs = serverPrograms();
  const folder = mkdtempSync(join(tmpdir(), 'zaffet-pg-'));
  const log = pino({ level: 'silent' });
  let url = '';
  /** PostgreSQL never runs as root. */
  const run = (program: string, ...args: string[]): void =>
    void execFileSync('runuser', ['-u', 'postgres', '--', join(programs!, program), ...args], {
      stdio: 'ignore',
      cwd: folder,
    });

  beforeAll(async () => {
    if (programs === null) return;
    chmodSync(folder, 0o755);
    execFileSync('chown', ['postgres', folder]);
    const port = await freePort();
    const data = join(folder, 'data');
    run('initdb', '-D', data, '-A', 'trust', '-U', 'zaffet', '-N');
    const options = `-c listen_addresses=127.0.0.1 -c port=${port} -c unix_socket_directories=''`;
    run('pg_ctl', '-w', '-D', data, '-o', options, '-l', join(folder, 'log'), 'start');
    url = `postgres://zaffet@127.0.0.1:${port}/postgres`;
  }, 60000);
  afterAll(() => {
    if (programs !== null) run('pg_ctl', '-D', join(folder, 'data'), '-m', 'immediate', 'stop');
    rmSync(folder, { recursive: true, force: true });
  }, 30000);

  it('is migrated by one of several Zaffets that start at once, and outlived when it starts anew', async () => {
    if (programs === null) {
      pending('no PostgreSQL server that this user may run');
      return;
    }
    const all = await Promise.all([1, 2, 3].map(() => openServer(url, log)));
    const plans = (db: (typeof all)[number]['db']): Promise<unknown> =>
      db.execute(sql`select count(*) from plans`);
    for (const { db } of all) await plans(db);
    run('pg_ctl', '-w', '-D', join(folder, 'data'), '-m', 'immediate', 'restart');
    await new Promise((resolve) => setTimeout(resolve, 300));
    for (const { db } of all) await expectAsync(plans(db)).toBeResolved();
    for (const { close } of all) await close();
  }, 60000);
});
