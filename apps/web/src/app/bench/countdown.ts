const pad = (value: number): string => String(value).padStart(2, '0');

/** A time that is left or gone, to the second under an hour, to the minute beyond: 3:10, 2 h 05, 1 d 4 h. */
export function countdown(ms: number): string {
  const seconds = Math.max(0, Math.round(Math.abs(ms) / 1000));
  if (seconds < 3600) return `${Math.floor(seconds / 60)}:${pad(seconds % 60)}`;
  const minutes = Math.round(seconds / 60);
  if (minutes < 24 * 60) return `${Math.floor(minutes / 60)} h ${pad(minutes % 60)}`;
  const hours = Math.round(minutes / 60);
  return `${Math.floor(hours / 24)} d ${hours % 24} h`;
}
