const INSTANT =
  /^(\d{4})-(\d{2})-(\d{2})(?:T([01]\d|2[0-3]):[0-5]\d(?::[0-5]\d(?:[.,]\d{1,9})?)?(?:Z|[+-](?:0\d|1[0-4]):?[0-5]\d)?)?$/;

/** Years a plan may lie in. */
export const YEARS = { min: 1900, max: 2999 };

/** Whether a text is a day, or a day and a time, that the calendar has: the forms of ISO 8601 that plans are written in. */
export function isInstant(text: string): boolean {
  const match = INSTANT.exec(text);
  if (match === null) return false;
  const [year, month, day] = match.slice(1, 4).map(Number) as [number, number, number];
  // A day that the month has not is counted into the next one, and comes back as another.
  const date = new Date(Date.UTC(year, month - 1, day));
  return (
    year >= YEARS.min &&
    year <= YEARS.max &&
    date.getUTCMonth() === month - 1 &&
    date.getUTCDate() === day &&
    Number.isFinite(Date.parse(text))
  );
}
