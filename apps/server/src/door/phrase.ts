import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';

/** 32 MB and a quarter of a second for each try: OWASP's cost for scrypt with the memory of a small machine. */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 2 ** 20 };
const SALT_BYTES = 16;
const KEY_BYTES = 32;

/** What a pass phrase is checked against; the phrase itself is kept nowhere. */
export interface Secret {
  readonly salt: Buffer;
  readonly key: Buffer;
}

/** One after another: many tries at once must not take the machine's memory. */
let last: Promise<unknown> = Promise.resolve();

/** RFC 7914's function of the phrase, in the one of Unicode's forms that all keyboards come to (NFKC). */
function derive(phrase: string, salt: Buffer): Promise<Buffer> {
  const next = last.then(
    () =>
      new Promise<Buffer>((resolve, reject) =>
        scrypt(phrase.normalize('NFKC'), salt, KEY_BYTES, COST, (error, key) =>
          error ? reject(error) : resolve(key),
        ),
      ),
  );
  last = next.catch(() => undefined);
  return next;
}

/** Guesses that a phrase must withstand at least: some years of ten tries in a quarter of an hour. */
const GUESSES = 1e8;

/**
 * Whether a phrase is easily guessed: among the commonest pass words, repeated, or made of what stands side by side on
 * a keyboard (Wheeler, "zxcvbn: low-budget password strength estimation", USENIX Security 2016).
 */
export async function isEasy(phrase: string): Promise<boolean> {
  const { ZxcvbnFactory } = await import('@zxcvbn-ts/core');
  const { adjacencyGraphs, dictionary } = await import('@zxcvbn-ts/language-common');
  return new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs }).check(phrase).guesses < GUESSES;
}

export async function secretOf(phrase: string, salt = randomBytes(SALT_BYTES)): Promise<Secret> {
  return { salt, key: await derive(phrase, salt) };
}

/** Whether it is the shop's phrase; takes as long for one that nearly is. */
export async function fits(phrase: string, { salt, key }: Secret): Promise<boolean> {
  return timingSafeEqual(await derive(phrase, salt), key);
}

/** As a text, to be kept in the database. */
export const packed = ({ salt, key }: Secret): string =>
  `${salt.toString('base64')}:${key.toString('base64')}`;
export function unpacked(text: string): Secret {
  const [salt, key] = text.split(':').map((part) => Buffer.from(part, 'base64'));
  return { salt: salt ?? Buffer.alloc(0), key: key?.length === KEY_BYTES ? key : Buffer.alloc(KEY_BYTES) };
}
