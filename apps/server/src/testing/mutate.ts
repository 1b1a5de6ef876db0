export const pick = <T>(from: readonly T[], random: () => number): T =>
  from[Math.floor(random() * from.length)]!;

/** What nobody sends on purpose, and somebody will. */
const JUNK: readonly (() => unknown)[] = [
  () => null,
  () => true,
  () => -1,
  () => 0,
  () => 1e308,
  () => -1e308,
  () => 2 ** 31,
  () => 2 ** 53,
  () => 0.1 + 0.2,
  () => '',
  () => ' ',
  () => 'name ',
  () => '\0',
  () => 'half \ud83d',
  () => '\udc00',
  () => 'x'.repeat(200),
  () => 'x'.repeat(1e5),
  () => '__proto__',
  () => 'constructor',
  () => 'toString',
  () => '1; drop table plans',
  () => '2026-02-31T08:00:00Z',
  () => '+275760-09-13T00:00:00.000Z',
  () => '-000001-01-01T00:00:00Z',
  () => '2026-05-12T25:61:00Z',
  () => '2026-05-12',
  () => ({}),
  () => [],
  () => [null],
  () => [[[[[[[[[[[[[]]]]]]]]]]]]],
  () => ({ toString: 1 }),
  () => ({ constructor: { prototype: 1 } }),
  () => JSON.parse('{"__proto__": {"x": 1}}') as unknown,
  () => Array.from({ length: 5000 }, () => ({})),
  () => Object.fromEntries(Array.from({ length: 5000 }, (_, i) => [`k${i}`, i])),
];

type Holder = Record<string, unknown> | unknown[];
const isHolder = (value: unknown): value is Holder => typeof value === 'object' && value !== null;

/** Every group and list in a value, without the cells of maps. */
function holdersOf(value: unknown, found: Holder[] = []): Holder[] {
  if (!isHolder(value)) return found;
  found.push(value);
  const children = Array.isArray(value) ? value.slice(0, 50) : Object.values(value);
  for (const child of children) holdersOf(child, found);
  return found;
}

/** What is made longer stays a text that can be written, and is far more than any door takes [letters]. */
const LARGEST = 30e6;

/** One change somewhere in a value that came from JSON; the value itself is changed. */
function changeOnce(root: Record<string, unknown>, random: () => number): void {
  const holder = pick(holdersOf(root), random);
  const keys = Object.keys(holder);
  const fields = holder as Record<string, unknown>;
  const key = keys.length === 0 ? 'new' : pick(keys, random);
  switch (Math.floor(random() * 8)) {
    case 0:
      if (Array.isArray(holder)) holder.splice(Number(key), 1);
      else delete fields[key];
      return;
    case 1: {
      // As a file can hold it: a field of its own, whatever its name.
      const name = pick(['extra', '__proto__', 'constructor', 'id', 'kind'], random);
      const value = pick(JUNK, random)();
      const own = { value, enumerable: true, configurable: true, writable: true };
      if (!Array.isArray(holder)) Object.defineProperty(holder, name, own);
      return;
    }
    case 2:
      if (Array.isArray(holder) && holder.length > 0) {
        const one = holder[0] as unknown;
        const room = Math.floor(LARGEST / (JSON.stringify(one) ?? '').length);
        const many = Math.min(room, pick([2, 41, 2000, 100_000], random));
        for (let i = 0; i < many; i++) holder.push(one);
      }
      return;
    case 3: {
      const value = fields[key];
      if (typeof value === 'number') fields[key] = value * pick([-1, 1e-6, 1e6, 1.5, NaN], random);
      else if (typeof value === 'string') fields[key] = `${value}${pick([' ', '\0', '\ud800', '!'], random)}`;
      return;
    }
    case 4: {
      const other = pick(holdersOf(root), random) as Record<string, unknown>;
      const otherKey = Object.keys(other)[0];
      if (otherKey !== undefined && isHolder(other[otherKey])) fields[key] = structuredClone(other[otherKey]);
      return;
    }
    default:
      fields[key] = pick(JUNK, random)();
  }
}

/** A value with one to three changes somewhere in it. */
export function mutated(value: unknown, random: () => number): unknown {
  const file = (of: unknown): Record<string, unknown> =>
    JSON.parse(JSON.stringify(of)) as Record<string, unknown>;
  let copy = file(value);
  const changes = 1 + Math.floor(random() * 3);
  for (let i = 0; i < changes; i++) {
    changeOnce(copy, random);
    copy = file(copy);
  }
  return copy;
}
