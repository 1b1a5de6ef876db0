import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { scratchFolder } from '../testing';
import { DirectoryInUse, lockDirectory } from './lock';

const HERE = fileURLToPath(new URL('.', import.meta.url));
const startOf = (pid: number): string =>
  readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ')[19]!;

/** Takes a directory as soon as it is told to, says whether it got it, and holds it until it is killed. */
const TAKER = `
  import { lockDirectory } from './lock.ts';
  process.stdin.once('data', () => {
    try { lockDirectory(process.argv[1]); console.log('got'); } catch (error) { console.log(error.name); }
  });
  console.log('ready');
`;

const said = async (child: ChildProcess): Promise<string> =>
  String((await once(child.stdout!, 'data')) as unknown).trim();

async function taker(directory: string): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', TAKER, directory], {
    cwd: HERE,
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  expect(await said(child)).toBe('ready');
  return child;
}

describe('the lock of a data directory', () => {
  const locks = (path: string): string[] =>
    readdirSync(dirname(path)).filter((name) => name.includes('.lock'));

  it('refuses a second taker and says who holds it', () => {
    const folder = scratchFolder();
    const release = lockDirectory(folder.path);
    expect(() => lockDirectory(folder.path)).toThrowError(
      DirectoryInUse,
      new RegExp(`in use by process ${process.pid}`),
    );
    release();
    lockDirectory(folder.path)();
    expect(locks(folder.path)).toEqual([]);
    folder.remove();
  });

  const dead: [string, unknown][] = [
    ['of a process that died', { pid: 2 ** 22 + 5, started: '1', holds: true }],
    ['whose number went to another process since', { pid: process.ppid, started: 'long ago', holds: true }],
    ['of number 0, which would be a whole group of processes', { pid: 0, started: '' }],
    ['of number -1, which would be all of them', { pid: -1, started: '' }],
    ['of an older Zaffet that died', { pid: 2 ** 22 + 5, started: '1' }],
    ['that is damaged', '{"pi'],
  ];
  for (const [what, content] of dead)
    for (const name of ['.lock', '.lock.takeover', '.lock.4194309-1'])
      it(`minds no ${name} ${what}, and clears it away`, () => {
        const folder = scratchFolder();
        writeFileSync(
          `${folder.path}${name}`,
          typeof content === 'string' ? content : JSON.stringify(content),
        );
        lockDirectory(folder.path)();
        expect(existsSync(`${folder.path}${name}`)).toBeFalse();
        folder.remove();
      });

  it('is held against an older Zaffet that is running', () => {
    const folder = scratchFolder();
    writeFileSync(
      `${folder.path}.lock`,
      JSON.stringify({ pid: process.ppid, started: startOf(process.ppid) }),
    );
    expect(() => lockDirectory(folder.path)).toThrowError(
      DirectoryInUse,
      new RegExp(`process ${process.ppid}`),
    );
    folder.remove();
  });

  it('goes to one of many that ask at once, also where a dead one left its own', async () => {
    const folder = scratchFolder();
    const takers = await Promise.all([1, 2, 3, 4].map(() => taker(folder.path)));
    for (let round = 0; round < 3; round++)
      writeFileSync(
        `${folder.path}.lock.419430${round}-1`,
        JSON.stringify({ pid: 2 ** 22 + 5, started: '1' }),
      );
    const answers = takers.map(said);
    for (const child of takers) child.stdin!.write('go');
    const told = await Promise.all(answers);
    expect(told.sort()).toEqual(['DirectoryInUse', 'DirectoryInUse', 'DirectoryInUse', 'got']);
    for (const child of takers) child.kill('SIGKILL');
    await Promise.all(takers.map((child) => child.exitCode ?? once(child, 'close')));
    lockDirectory(folder.path)();
    folder.remove();
  }, 30000);
});
