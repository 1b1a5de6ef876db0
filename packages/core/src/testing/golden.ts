import { readFileSync, writeFileSync } from 'node:fs';

/*
 * Figures as they were, held to a thousandth: they say nothing of what is right, only that something moved. Facts and
 * trends stand beside them. After a change that is meant: GOLDEN=write npm run test:fast, and read what changed.
 */

type Json = number | string | boolean | null | readonly Json[] | { readonly [key: string]: Json };

const HELD = 1e-3;
const DIGITS = 5;

/** Numbers to five digits; what JSON does not know as words. */
function rounded(value: unknown): Json {
  if (typeof value === 'number')
    return Number.isFinite(value) ? Number(value.toPrecision(DIGITS)) : String(value);
  if (ArrayBuffer.isView(value)) return [...(value as Float64Array)].map(rounded);
  if (Array.isArray(value)) return value.map(rounded);
  if (value instanceof Map) return [...value].map(rounded);
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(
      Object.entries(value)
        .filter(([, of]) => of !== undefined)
        .map(([key, of]) => [key, rounded(of)]),
    );
  return value as Json;
}

function differences(now: Json, before: Json | undefined, path: string, found: string[]): void {
  if (found.length > 4) return;
  if (typeof now === 'number' && typeof before === 'number') {
    if (Math.abs(now - before) > HELD * Math.max(Math.abs(now), Math.abs(before)) + 1e-12)
      found.push(`${path}: ${before} before, ${now} now`);
  } else if (typeof now === 'object' && now !== null && typeof before === 'object' && before !== null) {
    const a = now as Record<string, Json>;
    const b = before as Record<string, Json>;
    for (const key of new Set([...Object.keys(a), ...Object.keys(b)]))
      differences(a[key] ?? null, b[key] ?? null, `${path}.${key}`, found);
  } else if (now !== (before ?? null))
    found.push(`${path}: ${JSON.stringify(before)} before, ${JSON.stringify(now)} now`);
}

/**
 * What moved by more than a thousandth against a file of figures; nothing where all stayed.
 * @param name - of the file in `testing/golden`
 */
export function movedSince(name: string, now: unknown): string[] {
  const file = new URL(`./golden/${name}.json`, import.meta.url);
  const told = rounded(now);
  if (process.env['GOLDEN'] === 'write') {
    const lines = Object.entries(told as object).map(
      ([key, of]) => `${JSON.stringify(key)}:${JSON.stringify(of)}`,
    );
    writeFileSync(file, `{\n${lines.join(',\n')}\n}\n`);
  }
  const found: string[] = [];
  differences(told, JSON.parse(readFileSync(file, 'utf8')) as Json, name, found);
  return found;
}
