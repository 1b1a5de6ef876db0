/** A number that tells texts apart: FNV-1a. */
export const hashOf = (text: string): number =>
  [...text].reduce((hash, letter) => Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193), 0x811c9dc5) >>> 0;
