import { fault, ZaffetError } from '@zaffet/contract';
import { readFile } from 'node:fs/promises';

/** What a JSON file holds. @throws ZaffetError where it is missing or not JSON */
export async function readJson(path: string): Promise<unknown> {
  let text: string;
  try {
    text = await readFile(path, 'utf8');
  } catch (error) {
    const reason =
      (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'there is no such file' : (error as Error).message;
    throw new ZaffetError({ ...fault('plan.not-a-plan'), message: `Cannot read it: ${reason}.` });
  }
  try {
    return JSON.parse(text);
  } catch {
    throw new ZaffetError(fault('request.not-json'));
  }
}
