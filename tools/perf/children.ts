import { execFile } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { type PerfLine } from './report';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));

/** Lines that a process of their own measures: the server's code runs from its sources, with its migrations beside it. */
async function lines(script: string, name: string): Promise<PerfLine[]> {
  const args = ['--expose-gc', '--import', 'tsx', `tools/perf/${script}.ts`, name];
  const { stdout } = await promisify(execFile)(process.execPath, args, { cwd: ROOT, maxBuffer: 1e7 });
  return JSON.parse(stdout.trim().split('\n').at(-1)!) as PerfLine[];
}

export const childLines: Readonly<Record<string, () => Promise<PerfLine[]>>> = {
  'log.search': () => lines('log-run', 'log'),
  backup: () => lines('log-run', 'backup'),
  load: () => lines('load-run', ''),
  limits: () => lines('limits-run', ''),
  fair: () => lines('fair-run', ''),
};
