/** An offset against UTC as a zone is written: `+02:00`. */
const OFFSET = /^[+-](0\d|1[0-4]):[0-5]\d$/;

/** Whether a text names a time zone: one of the world's (IANA), or an offset against UTC. */
export function isZone(text: string): boolean {
  if (OFFSET.test(text)) return true;
  try {
    return new Intl.DateTimeFormat('en', { timeZone: text }).format(0) !== '';
  } catch {
    return false;
  }
}
