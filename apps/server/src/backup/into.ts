import { BACKUP_KINDS, ZaffetError } from '@zaffet/contract';
import { existsSync, readdirSync, rmSync } from 'node:fs';
import { openEmbedded } from '../db/client';
import { CannotStart } from '../start/cannot';
import { restore } from './restore';

/**
 * Brings a backup into a data directory that is new.
 * @returns what was brought in, in words
 * @throws CannotStart with what to do, and leaves no directory behind
 */
export async function restoreInto(file: string, folder: string): Promise<string> {
  if (!existsSync(file)) throw new CannotStart(`There is no file ${file}. Name a backup that Zaffet wrote.`);
  if (existsSync(folder) && readdirSync(folder).length > 0)
    throw new CannotStart(
      `${folder} is not empty. Name a folder that is new: a backup is brought in beside nothing.`,
    );
  const database = await openEmbedded(folder, (sentence) => {
    throw new CannotStart(sentence);
  });
  try {
    const { kinds, unreadable } = await restore(database.db, file, 'mine', true, Infinity);
    await database.close();
    const told = BACKUP_KINDS.filter((kind) => kinds[kind].fresh > 0).map(
      (kind) => `${kinds[kind].fresh} ${kind}`,
    );
    return [
      `Brought in: ${told.join(', ') || 'nothing, the backup is empty'}.`,
      ...unreadable.map((name) => `Left out, because this Zaffet cannot read it: ${name}`),
      `Start Zaffet with ZAFFET_DATA=${folder}`,
    ].join('\n');
  } catch (error) {
    await database.close();
    rmSync(folder, { recursive: true, force: true });
    throw error instanceof ZaffetError ? new CannotStart(`${file}: ${error.message}`) : error;
  }
}
