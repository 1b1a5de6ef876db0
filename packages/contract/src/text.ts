import { LIMITS } from './plan/limits';

/** Half a surrogate pair, or NUL: no text a file or a database can hold. */
const BROKEN = /[\p{Cs}\0]/u;

/** What ids and keys are made of. */
export const ID = /^[A-Za-z0-9_-]{1,64}$/;

/** SHA-256 of a photograph, in hexadecimal digits. */
export const PHOTO_HASH = /^[0-9a-f]{64}$/;

/** Whether a text can be stored and written to a file as it is. */
export const isStorable = (text: string): boolean => !BROKEN.test(text);

/**
 * A text as a name may be: what was cut through an emoji or copied from elsewhere is mended, blanks at its ends go, and
 * what is too long is cut between two characters.
 * @param most - most UTF-16 units, as the schemas count
 */
export function plainText(text: string, most: number = LIMITS.textLength.max): string {
  let plain = '';
  for (const letter of text.replace(/[\p{Cs}\p{Cc}]/gu, ' ').trim()) {
    if (plain.length + letter.length > most) break;
    plain += letter;
  }
  return plain.trimEnd();
}
