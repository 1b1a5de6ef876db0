import { readdirSync, readFileSync } from 'node:fs';
import { SCHOOL_KEYS } from './schools';
import { newPlan } from './newPlan';

const DEMO = new URL('../../../demo/', import.meta.url);
const filesIn = (folder: string): unknown[] =>
  readdirSync(new URL(folder, DEMO))
    .filter((name) => name.endsWith('.json'))
    .map((name) => JSON.parse(readFileSync(new URL(folder + name, DEMO), 'utf8')) as unknown);

/** Every colour that has a name, wherever it stands. */
function named(value: unknown): [string, string][] {
  if (Array.isArray(value)) return value.flatMap(named);
  if (typeof value !== 'object' || value === null) return [];
  const { colour, colourName, name, mix } = value as Record<string, unknown>;
  const called = typeof colourName === 'string' ? colourName : mix === undefined ? '' : name;
  const found: [string, string][] =
    typeof colour === 'string' && typeof called === 'string' && called !== '' ? [[called, colour]] : [];
  return [...found, ...Object.values(value).flatMap(named)];
}

describe('a named colour', () => {
  it('is one colour, in the demo, on its shelf and in every technique', () => {
    let next = 0;
    const plans = SCHOOL_KEYS.map((school) =>
      newPlan(school, school, 7, '2026-05-12T08:00:00.000Z', () => `c${++next}`),
    );
    const colours = new Map<string, Set<string>>();
    for (const [name, colour] of named([plans, ...filesIn('plans/'), ...filesIn('runs/')]))
      colours.set(name, (colours.get(name) ?? new Set()).add(colour));
    expect(colours.size).toBeGreaterThan(30);
    for (const [name, found] of colours) expect(found.size).withContext(name).toBe(1);
    const shelf = JSON.parse(readFileSync(new URL('shelf.json', DEMO), 'utf8')) as {
      items: { name: string; colour?: string | null }[];
    };
    for (const { name, colour } of shelf.items) {
      const called = name.split(',')[0]!;
      if (colour != null && colours.has(called))
        expect([...colours.get(called)!])
          .withContext(name)
          .toEqual([colour]);
    }
  });
});
