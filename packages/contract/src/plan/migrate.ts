import { fault, ZaffetError } from '../errors';
import { PLAN_FORMAT, PLAN_VERSION } from './types';

type Fields = Record<string, unknown>;

/** Changes every entry of a list; what is no list is left for the schema to refuse. */
const each = (list: unknown, change: (entry: Fields) => Fields): unknown =>
  Array.isArray(list) ? (list as Fields[]).map(change) : list;

/** Version 1 knew full coats of fresh paint on panels lying flat, and no other steps. */
function from1(file: Fields): Fields {
  const piece = file['piece'] as Fields | null | undefined;
  return {
    ...file,
    version: 2,
    steps: each(file['steps'], (step) => ({
      ...step,
      cover: { style: 'full', share: 1 },
      bonding: 0,
      lumps: false,
      mixedHours: null,
      keptCold: false,
    })),
    piece:
      typeof piece === 'object' && piece !== null
        ? { ...piece, parts: each(piece['parts'], (part) => ({ ...part, flat: true, use: 'display' })) }
        : piece,
    media: [],
    prices: {},
  };
}

/** Version 2 knew no maps: every step did the same all over the panel. */
function from2(file: Fields): Fields {
  const mapped = ['coat', 'seal', 'resist', 'distress'];
  return {
    ...file,
    version: 3,
    steps: each(file['steps'], (step) =>
      mapped.includes(String(step['kind'])) ? { ...step, map: null } : step,
    ),
  };
}

/** What version 3 knew of the surface tells what most likely lies on it. */
const LIES_ON: Readonly<Record<string, string>> = {
  'chalky-paint': 'water-paint',
  'flat-paint': 'water-paint',
  gloss: 'oil-paint',
  sealed: 'varnish',
  scuffed: 'varnish',
  waxed: 'wax',
};
const AGES: Readonly<Record<string, string>> = { known: 'years', unknown: 'unknown' };

function part3(part: Fields, maps: Fields): Fields {
  const past = part['history'] as Fields | null | undefined;
  const { oldPaint, ...history } = typeof past === 'object' && past !== null ? past : {};
  const likely = LIES_ON[String(part['substrate'])];
  const coat = oldPaint === 'none' ? 'none' : (likely ?? (oldPaint === 'unknown' ? 'unknown' : 'none'));
  return {
    ...part,
    history: { ...history, coat, age: AGES[String(oldPaint)] ?? 'years' },
    facing: 'loose',
    moisture: null,
    fittings: [],
    prepared: [],
    zones: [],
    finish: 'main',
    maps,
  };
}

/** A resist's map could hold more than all of it, and was taken as all. */
const atMostAll = (map: Fields): Fields => ({
  ...map,
  percent: Array.isArray(map['percent'])
    ? map['percent'].map((cell: unknown) => (typeof cell === 'number' ? Math.min(100, cell) : cell))
    : map['percent'],
});

/** Version 3 knew one part with one finish, and kept maps with the steps. */
function from3(file: Fields): Fields {
  const { steps, look, ...rest } = file;
  const maps: Fields = {};
  const filed = each(steps, ({ map, ...step }) => {
    if (map !== null && map !== undefined)
      maps[String(step['id'])] = step['kind'] === 'resist' ? atMostAll(map as Fields) : map;
    return { ...step, off: false, ...(step['kind'] === 'coat' ? { body: null } : {}) };
  });
  const piece = file['piece'] as Fields | null | undefined;
  const wishes = typeof look === 'object' && look !== null ? look : {};
  return {
    ...rest,
    version: 4,
    piece:
      typeof piece === 'object' && piece !== null
        ? { ...piece, parts: each(piece['parts'], (part) => part3(part, maps)) }
        : piece,
    finishes: [
      {
        id: 'main',
        name: 'Finish',
        whatIfOf: null,
        steps: filed,
        look: {
          chips: null,
          worn: null,
          under: null,
          zones: {},
          shows: {},
          glossUnits: null,
          natural: null,
          degree: 'keep',
          ...wishes,
        },
      },
    ],
    palette: [],
    hours: null,
  };
}

/** Steps from each version to the next, by the version they read. */
const MIGRATIONS: Readonly<Record<number, (file: Fields) => Fields>> = { 1: from1, 2: from2, 3: from3 };

/**
 * Brings a file of an older version to the present one; its content is checked afterwards by the schema.
 * @throws ZaffetError `plan.not-a-plan` or `plan.too-new`
 */
export function migratePlan(file: unknown): unknown {
  if (typeof file !== 'object' || file === null || Array.isArray(file)) {
    throw new ZaffetError(fault('plan.not-a-plan'));
  }
  let plan = file as Fields;
  if (plan['format'] !== PLAN_FORMAT || typeof plan['version'] !== 'number') {
    throw new ZaffetError(fault('plan.not-a-plan'));
  }
  if (plan['version'] > PLAN_VERSION) throw new ZaffetError(fault('plan.too-new'));
  for (let step = MIGRATIONS[plan['version']]; step; step = MIGRATIONS[plan['version'] as number])
    plan = step(plan);
  return plan;
}
