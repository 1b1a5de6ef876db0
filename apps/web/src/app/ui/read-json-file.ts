import { fault, JSON_LIMITS, readJson, ZaffetError } from '@zaffet/contract';

/** What a JSON file that somebody chose holds. @throws ZaffetError `request.too-large`, and as `readJson` */
export async function readJsonFile(file: Blob): Promise<unknown> {
  if (file.size > JSON_LIMITS.bytes) throw new ZaffetError(fault('request.too-large'));
  return readJson(new Uint8Array(await file.arrayBuffer()));
}
