import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { mustNotFail, scratchFolder } from '../testing';
import { DirectoryInUse, LOCK_FILE, lockDirectory, type LockOptions } from './lock';

const HERE = fileURLToPath(new URL('.', import.meta.url));
const startOf = (pid: number): string =>
  readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ')[19]!;

/** Takes a directory as soon as it reads a line, prints whether it got it, and holds it until it is killed. */
const TAKER = `
  import { lockDirectory } from './lock.ts';
  process.stdin.once('data', async () => {
    const lost = (sentence) => { console.log(sentence); process.exit(1); };
    try { await lockDirectory(process.argv[1], { lost }); console.log('got', process.pid); }
    catch (error) { console.log(error.name); }
  });
  console.log('ready');
`;
/** A process namespace of its own, as a container has: its processes count from 1. */
const NAMESPACE = ['unshare', '--pid', '--fork', '--kill-child', '--mount-proc'];
const hasNamespaces = spawnSync(NAMESPACE[0]!, [...NAMESPACE.slice(1), 'true']).status === 0;

const said = async (child: ChildProcess): Promise<string> =>
  String((await once(child.stdout!, 'data')) as unknown).trim();

async function taker(directory: string, before: readonly string[] = []): Promise<ChildProcess> {
  const [command, ...args] = [
    ...before,
    process.execPath,
    ...['--import', 'tsx', '--input-type=module', '-e', TAKER, directory],
  ];
  const child = spawn(command!, args, { cwd: HERE, stdio: ['pipe', 'pipe', 'inherit'] });
  expect(await said(child)).toBe('ready');
  return child;
}
const ask = (child: ChildProcess): Promise<string> => {
  const answer = said(child);
  child.stdin!.write('go\n');
  return answer;
};
const kill = async (child: ChildProcess): Promise<void> => {
  const closed = once(child, 'close');
  child.kill('SIGKILL');
  await closed;
};

describe('the lock of a data directory', () => {
  let folder: ReturnType<typeof scratchFolder>;
  beforeEach(() => {
    folder = scratchFolder();
    mkdirSync(folder.path);
  });
  afterEach(() => folder.remove());
  const take = (options: Partial<LockOptions> = {}): Promise<() => void> =>
    lockDirectory(folder.path, { lost: mustNotFail, ...options });
  /** A machine whose locks the others do not see: a network file system without locks between machines. */
  const machine = (host: string, options: Partial<LockOptions> = {}): Partial<LockOptions> => ({
    ...{ host, boot: `boot of ${host}`, tryLock: () => true, beatEvery: 100, ...options },
  });

  it('refuses a second Zaffet, names the first, and is free after its release', async () => {
    const release = await take();
    await expectAsync(take()).toBeRejectedWithError(
      DirectoryInUse,
      new RegExp(`in use by another Zaffet \\(process ${process.pid} on ${hostname()}\\)`),
    );
    release();
    (await take())();
    expect(existsSync(join(folder.path, LOCK_FILE))).toBeTrue();
  });

  it('goes to one of four that ask at once, and is free at once when that one is killed', async () => {
    const takers = await Promise.all([1, 2, 3, 4].map(() => taker(folder.path)));
    const answers = await Promise.all(takers.map(ask));
    expect(answers.filter((answer) => answer.startsWith('got')).length).toBe(1);
    expect(answers.filter((answer) => answer === 'DirectoryInUse').length).toBe(3);
    await Promise.all(takers.map(kill));
    // No heartbeat is waited for: the kernel has proved that the holder is dead.
    (await take({ beatEvery: 3_600_000 }))();
  });

  it('holds between two containers, where both Zaffets have the same process number', async () => {
    if (!hasNamespaces) pending('no process namespaces here');
    const [first, second] = await Promise.all([1, 2].map(() => taker(folder.path, NAMESPACE)));
    const got = await ask(first!);
    expect(got).toBe('got 1');
    expect(await ask(second!)).toBe('DirectoryInUse');
    // Nor does the machine itself take the container's Zaffet for dead.
    await expectAsync(take()).toBeRejectedWithError(DirectoryInUse, /process 1 on/);
    await kill(first!);
    await kill(second!);
  });

  it('holds against another machine for as long as its heartbeat changes', async () => {
    const release = await take(machine('shed'));
    const lines: string[] = [];
    await expectAsync(take(machine('attic', { say: (line) => lines.push(line) }))).toBeRejectedWithError(
      DirectoryInUse,
      /on shed/,
    );
    expect(lines.join()).toContain('was not closed by shed');
    release();
    (await take(machine('attic', { beatEvery: 3_600_000 })))();
  });

  it('is free once the heartbeat of another boot has stopped', async () => {
    const holder = { id: 'gone', pid: 12, host: 'shed', boot: 'before the power cut', beat: 3 };
    writeFileSync(join(folder.path, LOCK_FILE), JSON.stringify(holder));
    const from = performance.now();
    (await take(machine('shed')))();
    expect(performance.now() - from).toBeGreaterThan(290);
  });

  it('ends a Zaffet whose directory was taken over while its machine slept', async () => {
    const sentences: string[] = [];
    const lost = (sentence: string): never => sentences.push(sentence) as never;
    const release = await take(machine('shed', { lost }));
    const other = { id: 'other', pid: 1, host: 'attic', boot: 'x', beat: 1 };
    writeFileSync(join(folder.path, LOCK_FILE), JSON.stringify(other));
    await wait(250);
    release();
    expect(sentences[0]).toMatch(/^Another Zaffet on attic has taken over data directory/);
  });

  it('goes to one of two on a system that has no locks', async () => {
    const none = (host: string): Partial<LockOptions> => machine(host, { tryLock: () => null });
    const both = await Promise.allSettled([take(none('shed')), take(none('attic'))]);
    const got = both.filter(({ status }) => status === 'fulfilled');
    expect(got.length).toBe(1);
    await expectAsync(take(none('loft'))).toBeRejectedWithError(DirectoryInUse);
    (got[0] as PromiseFulfilledResult<() => void>).value();
  });

  for (const [what, content] of [
    ['damaged', '{"pi'],
    ["another program's", '[1, 2]'],
    ['empty', ''],
  ] as const)
    it(`minds no ${what} lock file that nobody holds`, async () => {
      writeFileSync(join(folder.path, LOCK_FILE), content);
      const release = await take();
      await expectAsync(take()).toBeRejectedWithError(DirectoryInUse);
      release();
    });

  it('holds against a Zaffet before 0.2 that is running, and not against one that died', async () => {
    const beside = `${folder.path}.lock.4194309-1`;
    writeFileSync(beside, JSON.stringify({ pid: process.ppid, started: startOf(process.ppid), holds: true }));
    await expectAsync(take()).toBeRejectedWithError(DirectoryInUse, new RegExp(`process ${process.ppid}`));
    writeFileSync(beside, JSON.stringify({ pid: process.ppid, started: 'long ago', holds: true }));
    (await take())();
    writeFileSync(beside, JSON.stringify({ pid: 2 ** 22 + 5, started: '1', holds: true }));
    (await take())();
  });
});
