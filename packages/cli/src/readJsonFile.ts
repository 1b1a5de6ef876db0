import { fault, readJson, ZaffetError } from '@zaffet/contract';
import { readFile } from 'node:fs/promises';

/** What a JSON file holds. @throws ZaffetError where it is missing or not JSON */
export async function readJsonFile(path: string): Promise<unknown> {
  let bytes: Uint8Array;
  try {
    bytes = await readFile(path);
  } catch (error) {
    const reason =
      (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'there is no such file' : (error as Error).message;
    throw new ZaffetError({ ...fault('plan.not-a-plan'), message: `Cannot read it: ${reason}.` });
  }
  return readJson(bytes);
}
