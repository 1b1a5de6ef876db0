/** Zaffet cannot start so: one sentence on why, and on what to do. */
export class CannotStart extends Error {
  constructor(sentence: string) {
    super(sentence);
    this.name = 'CannotStart';
  }
}

/** What the system's refusals mean to somebody who wants to start. */
const TROUBLE: Readonly<Record<string, string>> = {
  EACCES:
    'Zaffet may not read or write there; give its user the right to, or set ZAFFET_DATA to another folder',
  EPERM:
    'Zaffet may not read or write there; give its user the right to, or set ZAFFET_DATA to another folder',
  EROFS: 'it can only be read; make it writable, or set ZAFFET_DATA to another folder',
  ENOSPC: 'the disk is full; make room, then start again',
  EDQUOT: 'the quota of the disk is used up; make room, then start again',
  EIO: 'the disk answers with an error; look after it and save what is there before anything else',
  ENOTDIR: 'a file stands where a folder should be; move it, or set ZAFFET_DATA to another folder',
  ENOENT: 'a link there leads nowhere; mend it, or set ZAFFET_DATA to another folder',
  ELOOP: 'links there lead in a circle; mend them, or set ZAFFET_DATA to another folder',
};

const codeOf = (error: unknown): string => String((error as NodeJS.ErrnoException | null)?.code ?? '');

/** A sentence for an error of the file system met on the way to a data directory; others are handed through. */
export function refusalOf(directory: string, error: unknown): unknown {
  const trouble = TROUBLE[codeOf(error)];
  return trouble === undefined
    ? error
    : new CannotStart(`The data directory ${directory} cannot be used: ${trouble} (${codeOf(error)}).`);
}

/** What went wrong, in the words of whatever threw it: databases throw all kinds of things. */
export function causeOf(error: unknown): string {
  const { code, message } = (error ?? {}) as { code?: unknown; message?: unknown };
  const words = typeof message === 'string' && message !== '' ? message : 'it does not say why';
  return typeof code === 'string' ? `${code}: ${words}` : words;
}
