import { spawn } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { scratchFolder } from '../testing';
import { DirectoryInUse, lockDirectory } from './lock';

describe('the lock of a data directory', () => {
  it('refuses a second taker and says who holds it', () => {
    const folder = scratchFolder();
    const release = lockDirectory(folder.path);
    expect(() => lockDirectory(folder.path)).toThrowError(
      DirectoryInUse,
      new RegExp(`in use by process ${process.pid}`),
    );
    release();
    lockDirectory(folder.path)();
    expect(existsSync(`${folder.path}.lock`)).toBeFalse();
    folder.remove();
  });

  it('takes over from a process that died', async () => {
    const folder = scratchFolder();
    const child = spawn(process.execPath, ['-e', '']);
    await new Promise((resolve) => child.on('close', resolve));
    writeFileSync(`${folder.path}.lock`, JSON.stringify({ pid: child.pid, started: '1' }));
    const release = lockDirectory(folder.path);
    expect((JSON.parse(readFileSync(`${folder.path}.lock`, 'utf8')) as { pid: number }).pid).toBe(
      process.pid,
    );
    release();
    folder.remove();
  });

  it('takes over when the number went to another process since', () => {
    const folder = scratchFolder();
    writeFileSync(`${folder.path}.lock`, JSON.stringify({ pid: process.ppid, started: 'long ago' }));
    expect(() => lockDirectory(folder.path)()).not.toThrow();
    folder.remove();
  });

  it('takes over a damaged lock and a take-over that died', () => {
    const folder = scratchFolder();
    writeFileSync(`${folder.path}.lock`, '{"pi');
    writeFileSync(`${folder.path}.lock.takeover`, JSON.stringify({ pid: 2 ** 22 + 5, started: '1' }));
    expect(() => lockDirectory(folder.path)()).not.toThrow();
    expect(existsSync(`${folder.path}.lock.takeover`)).toBeFalse();
    folder.remove();
  });
});
