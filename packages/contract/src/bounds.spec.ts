import { ZaffetError } from './errors';
import { type Fault } from './errors';
import { LIMITS } from './plan/limits';
import { parsePlan, parseSave, parseShelf } from './schemas';
import { samplePlan } from '../../workshop/src/testing/plan';

function faultOf(work: () => unknown): Fault {
  try {
    work();
  } catch (error) {
    if (error instanceof ZaffetError) return error.fault;
    throw error;
  }
  throw new Error('was taken');
}
const part = samplePlan().piece.parts[0]!;
const withPart = (changes: object): unknown => ({
  ...samplePlan(),
  piece: { name: 'x', bodies: [], parts: [{ ...part, ...changes }] },
});

describe('how much a file may hold', () => {
  const empty = (count: number): object[] => Array.from({ length: count }, () => ({}));
  const keyed = (count: number): object => Object.fromEntries(empty(count).map((_, i) => [`k${i}`, 0.5]));
  const finish = samplePlan().finishes[0]!;

  const large: [string, unknown, RegExp][] = [
    [
      'zones by the million',
      withPart({ zones: empty(1_000_000) }),
      /piece\.parts\.0\.zones has 1000000 entries; allowed is at most 24\./,
    ],
    [
      'steps',
      { ...samplePlan(), finishes: [{ ...finish, steps: empty(200_000) }] },
      /finishes\.0\.steps has 200000 entries; allowed is at most 40\./,
    ],
    [
      'preparation',
      withPart({ prepared: new Array(200_000).fill('degrease') }),
      /prepared has 200000 entries; allowed is at most \d+\./,
    ],
    [
      'prices',
      { ...samplePlan(), prices: keyed(5000) },
      /^prices has 5000 entries; allowed is at most \d+\./,
    ],
    [
      'wishes for layers',
      { ...samplePlan(), finishes: [{ ...finish, look: { ...finish.look, shows: keyed(5000) } }] },
      /look\.shows has 5000 entries/,
    ],
    ['fields nobody knows', { ...samplePlan(), ...keyed(500) }, /has 5\d\d entries; allowed is at most 32\./],
    [
      'a text',
      { ...samplePlan(), name: 'x'.repeat(1e6) },
      /^name holds 1000000 characters; it must be at most \d+\./,
    ],
    [
      'a map',
      withPart({ maps: { a: { columns: 2, rows: 1, percent: new Array(90_000).fill(1) } } }),
      /percent has 90000 entries; allowed is at most 25600\./,
    ],
  ];
  for (const [what, file, sentence] of large)
    it(`is told of ${what}, at once and with the place`, () => {
      const { code, fields } = faultOf(() => parsePlan(file));
      expect(code).toBe('plan.invalid');
      expect(fields.length).toBe(1);
      expect(fields[0]!.message).toMatch(sentence);
    });

  it('counts the cells of all maps together', () => {
    const map = { columns: 160, rows: 160, percent: '' };
    const most = Math.floor(LIMITS.cells.max / (160 * 160));
    const maps = (count: number): object =>
      Object.fromEntries(Array.from({ length: count }, (_, i) => [`s${i}`, map]));
    const words = (count: number): string =>
      faultOf(() => parsePlan(withPart({ maps: maps(count) }))).fields[0]!.message;
    expect(words(most + 1)).toMatch(/brings the maps of the plan to over 6000000 cells; take some out/);
    expect(words(most)).not.toMatch(/over/);
  });

  it('is looked at in saves and on the shelf as well, and never further down than a plan goes', () => {
    expect(
      faultOf(() => parseSave({ saveId: '', plan: withPart({ zones: empty(99) }) })).fields[0]!.message,
    ).toMatch(/at most 24/);
    expect(faultOf(() => parseShelf({ items: empty(401), measures: {} })).code).toBe('shelf.invalid');
    let deep: unknown = 1;
    for (let i = 0; i < 50_000; i++) deep = [deep];
    expect(faultOf(() => parsePlan({ ...samplePlan(), name: deep })).fields[0]!.message).toMatch(/nested/);
  });

  it('tells at most twenty of many wrong fields', () => {
    const steps = Array.from({ length: 40 }, () => ({ kind: 'coat' }));
    expect(
      faultOf(() => parsePlan({ ...samplePlan(), finishes: [{ ...finish, steps }] })).fields.length,
    ).toBe(20);
  });
});

describe('what is refused by name', () => {
  const named = (id: string): Fault => faultOf(() => parsePlan(withPart({ id })));
  for (const id of ['constructor', '__proto__', 'toString', 'hasOwnProperty'])
    it(`is the id ${id}, which every object answers to`, () =>
      expect(named(id).fields[0]!.message).toBe(
        `piece.parts.0.id is "${id}"; it must be another word; this one has a meaning of its own.`,
      ));

  const values: [string, object, string][] = [
    [
      'NUL',
      { name: 'a\0b' },
      'piece.parts.0.name is "a\\u0000b"; it must be whole letters; it holds half of one, or NUL.',
    ],
    [
      'half a letter',
      { name: 'a\ud83d' },
      'piece.parts.0.name is "a\\ud83d"; it must be whole letters; it holds half of one, or NUL.',
    ],
    [
      'a blank at its end',
      { name: 'Lid ' },
      'piece.parts.0.name is "Lid "; it must be without blanks before or after.',
    ],
    ['no text', { name: 5 }, 'piece.parts.0.name is 5; it must be a text.'],
    ['no flag', { flat: 'yes' }, 'piece.parts.0.flat is "yes"; it must be true or false.'],
    ['no group', { history: [] }, 'piece.parts.0.history is a list; it must be a group of fields, { … }.'],
    ['no list', { fittings: {} }, 'piece.parts.0.fittings is a group of fields; it must be a list, [ … ].'],
    ['no size', { widthMm: null }, 'piece.parts.0.widthMm is null; it must be a number from 20 to 3000 mm.'],
    [
      'a size beyond all',
      { widthMm: 1e300 },
      'piece.parts.0.widthMm is 1e+300; it must be a number from 20 to 3000 mm.',
    ],
    [
      'moisture in per cent',
      { moisture: 12 },
      'piece.parts.0.moisture is 12; it must be a number from 0.03 to 0.6.',
    ],
  ];
  for (const [what, changes, sentence] of values)
    it(`is ${what}, with the value and what is allowed`, () =>
      expect(faultOf(() => parsePlan(withPart(changes))).fields.map(({ message }) => message)).toContain(
        sentence,
      ));

  it('is a save id that is no text, or longer than one', () => {
    for (const saveId of [0, null, 'x'.repeat(65)])
      expect(faultOf(() => parseSave({ saveId, plan: samplePlan() })).fields[0]!.path).toBe('saveId');
  });

  it('is an old file with holes in it, not with a crash', () => {
    const old = {
      format: 'zaffet-plan',
      version: 1,
      name: 'x',
      steps: [null, 5, { kind: { toString: 1 } }],
      piece: { parts: [null] },
    };
    for (const version of [1, 2, 3, 4])
      expect(faultOf(() => parsePlan({ ...old, version })).code).toBe('plan.invalid');
    for (const version of [0, 2.5, 99])
      expect(faultOf(() => parsePlan({ ...old, version })).code).toMatch(/^plan\./);
  });
});
