import { openEmbedded } from '../db/client';
import { copyTemplate, makeTemplate } from '../db/template';
import { mustNotFail } from './index';

/** Makes an empty database in a folder that is not there yet: a copy of one that was made before. */
export async function prepare(folder: string): Promise<void> {
  await makeTemplate(async (part) => (await openEmbedded(part, mustNotFail)).close());
  copyTemplate(folder);
}
