import { openEmbedded } from './client';
import { makeTemplate } from './template';

await makeTemplate(async (folder) => {
  const failed = (sentence: string): never => {
    throw new Error(sentence);
  };
  const database = await openEmbedded(folder, failed);
  await database.close();
});
