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

/** Steps from each version to the next, by the version they read. */
const MIGRATIONS: Readonly<Record<number, (file: Fields) => Fields>> = { 1: from1, 2: from2 };

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
