import { fault, ZaffetError } from './errors';

/** Most that a JSON text may hold: reading one then takes a moment, whatever is in it. */
export const JSON_LIMITS = {
  /** The most cells a plan's maps may have, packed, are 8 MB. */
  bytes: 12 * 1024 * 1024,
  /** Lists and groups inside one another. Zaffet's own files have a dozen. */
  depth: 64,
  /** Lists and groups in all. */
  groups: 200_000,
  /** Names of fields in all: different ones cost most. */
  names: 100_000,
} as const;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const COLON = 0x3a;
const OPEN = [0x5b, 0x7b] as const;
const CLOSE = [0x5d, 0x7d] as const;

/** Counts what a JSON text (RFC 8259) holds, before anything is made of it; its bytes may come in pieces. */
export class JsonMeter {
  private depth = 0;
  private groups = 0;
  private names = 0;
  private inText = false;
  private escaped = false;

  /** Counts on with the next bytes, UTF-8. @throws ZaffetError `request.too-complex` where it is too much */
  take(bytes: Uint8Array): void {
    let { depth, groups, names, inText, escaped } = this;
    for (let i = 0; i < bytes.length; i++) {
      const byte = bytes[i]!;
      if (inText) {
        if (escaped) escaped = false;
        else if (byte === BACKSLASH) escaped = true;
        else if (byte === QUOTE) inText = false;
      } else if (byte === QUOTE) inText = true;
      else if (byte === COLON) names++;
      else if (byte === OPEN[0] || byte === OPEN[1]) {
        groups++;
        if (++depth > JSON_LIMITS.depth) break;
      } else if (byte === CLOSE[0] || byte === CLOSE[1]) depth--;
    }
    Object.assign(this, { depth, groups, names, inText, escaped });
    if (depth > JSON_LIMITS.depth || groups > JSON_LIMITS.groups || names > JSON_LIMITS.names)
      throw new ZaffetError(fault('request.too-complex'));
  }

  /** Starts the counts again after an entry of a long list. The depth stays. */
  restart(): void {
    this.groups = 0;
    this.names = 0;
  }
}

/** A text that was counted. @throws ZaffetError `request.not-json` */
export function parseJson(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes)) as unknown;
  } catch {
    throw new ZaffetError(fault('request.not-json'));
  }
}

/**
 * Reads a JSON text that comes from outside, such as a file somebody chose.
 * @param bytes - UTF-8
 * @throws ZaffetError `request.not-json`, `request.too-complex`
 */
export function readJson(bytes: Uint8Array): unknown {
  new JsonMeter().take(bytes);
  return parseJson(bytes);
}
