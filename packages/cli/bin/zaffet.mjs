#!/usr/bin/env node
import { register } from 'tsx/esm/api';

register();
const [command, ...rest] = process.argv.slice(2);
if (command === 'restore') {
  // The database is the server's own.
  const { restoreCommand } = await import('../../../apps/server/src/restore.ts');
  process.exitCode = await restoreCommand(rest);
} else {
  const { run } = await import('../src/main.ts');
  process.exitCode = await run(process.argv.slice(2), {
    out: (text) => process.stdout.write(text),
    err: (text) => process.stderr.write(text),
  });
}
