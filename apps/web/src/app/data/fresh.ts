/** What must be new each time comes from here, so that reducers and the core stay free of clocks and chance. */
export const now = (): Date => new Date();
/** 128 random bits; `crypto.randomUUID` is missing where a page came by plain http. */
export const newId = (): string =>
  [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, '0')).join('');
export const newSeed = (): number => crypto.getRandomValues(new Uint32Array(1))[0]! >>> 1;

/** Hours in which most begin. */
const FIRST_HOUR = 7;
const LAST_HOUR = 17;
const MORNING = 8;

/** When a plan made at a moment begins: then, or the next morning when the day is over or has not come. */
export function workBegins(at: Date): Date {
  const hour = at.getHours();
  if (hour >= FIRST_HOUR && hour < LAST_HOUR) return at;
  const next = new Date(at);
  if (hour >= LAST_HOUR) next.setDate(next.getDate() + 1);
  next.setHours(MORNING, 0, 0, 0);
  return next;
}
