// Loaded before Zaffet in a test: from SIGUSR2 on the disk fails, as ZAFFET_FAULT says: "log" or "data" is full, or
// else nothing can be flushed.
import fs from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';

const full = { log: (path) => path.includes('pg_wal'), data: (path) => path.includes('/base/') };
const trouble = (code, message) => Object.assign(new Error(message), { code });

process.on('SIGUSR2', () => {
  const { writeSync } = fs;
  const isFull = full[process.env.ZAFFET_FAULT];
  if (isFull)
    fs.writeSync = (file, ...rest) => {
      if (isFull(fs.readlinkSync(`/proc/self/fd/${file}`))) throw trouble('ENOSPC', 'no space left');
      return writeSync(file, ...rest);
    };
  else
    fs.fsyncSync = () => {
      throw trouble('EIO', 'input/output error');
    };
  syncBuiltinESMExports();
  writeSync(1, 'faults on\n');
});
