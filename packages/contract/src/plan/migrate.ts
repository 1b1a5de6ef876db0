import { fault, ZaffetError } from '../errors';
import { WEEKDAYS } from '../shop/types';
import { badCell } from './maps';
import { packPercent } from './packed';
import { PLACED_ZONE_NAMES } from './piece.types';
import { PLAN_FORMAT, PLAN_VERSION } from './types';

/** What a cell of a packed map can hold. */
const BYTES = { min: 0, max: 255 };

type Fields = Record<string, unknown>;

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
/** A field as a group of fields; empty where it is anything else. */
const fieldsOf = (value: unknown): Fields => (isFields(value) ? value : {});
/** A field as a text; empty where it is anything else. */
const textOf = (value: unknown): string => (typeof value === 'string' ? value : '');

/** What a table says of a field; nothing where the field is no word of it. */
const told = (table: Readonly<Record<string, string>>, word: unknown): string | undefined =>
  Object.hasOwn(table, textOf(word)) ? table[textOf(word)] : undefined;

/** Changes every entry of a list; what is no list, and an entry that is no group, is left for the schema to refuse. */
const each = (list: unknown, change: (entry: Fields) => Fields): unknown =>
  Array.isArray(list) ? list.map((entry: unknown) => (isFields(entry) ? change(entry) : entry)) : list;

/** Version 1 knew full coats of fresh paint on panels lying flat, and no other steps. */
function from1(file: Fields): Fields {
  const { piece } = file;
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
    piece: isFields(piece)
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
      mapped.includes(textOf(step['kind'])) ? { ...step, map: null } : step,
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
  const { oldPaint, ...history } = fieldsOf(part['history']);
  const likely = told(LIES_ON, part['substrate']);
  const coat = oldPaint === 'none' ? 'none' : (likely ?? (oldPaint === 'unknown' ? 'unknown' : 'none'));
  return {
    ...part,
    history: { ...history, coat, age: told(AGES, oldPaint) ?? 'years' },
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
const atMostAll = (map: unknown): unknown =>
  isFields(map) && Array.isArray(map['percent'])
    ? {
        ...map,
        percent: map['percent'].map((cell: unknown) =>
          typeof cell === 'number' ? Math.min(100, cell) : cell,
        ),
      }
    : map;

/** Version 3 knew one part with one finish, and kept maps with the steps. */
function from3(file: Fields): Fields {
  const { steps, look, ...rest } = file;
  const mapped: [string, unknown][] = [];
  const filed = each(steps, ({ map, ...step }) => {
    if (map !== null && map !== undefined)
      mapped.push([textOf(step['id']), step['kind'] === 'resist' ? atMostAll(map) : map]);
    return { ...step, off: false, ...(step['kind'] === 'coat' ? { body: null } : {}) };
  });
  const maps = Object.fromEntries(mapped);
  const { piece } = file;
  return {
    ...rest,
    version: 4,
    piece: isFields(piece) ? { ...piece, parts: each(piece['parts'], (part) => part3(part, maps)) } : piece,
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
          ...fieldsOf(look),
        },
      },
    ],
    palette: [],
    hours: null,
  };
}

/** A map with its cells packed; one that holds no such cells is left for the schema to refuse. */
const packedMap = (map: unknown): unknown =>
  isFields(map) && Array.isArray(map['percent']) && badCell(map['percent'], BYTES) < 0
    ? { ...map, percent: packPercent(map['percent'] as number[]) }
    : map;

/** Version 4 wrote every cell of a map as a number. */
function from4(file: Fields): Fields {
  const { piece } = file;
  const packed = (part: Fields): Fields =>
    isFields(part['maps'])
      ? {
          ...part,
          maps: Object.fromEntries(
            Object.entries(part['maps']).map(([stepId, map]) => [stepId, packedMap(map)]),
          ),
        }
      : part;
  return {
    ...file,
    version: 5,
    piece: isFields(piece) ? { ...piece, parts: each(piece['parts'], packed) } : piece,
  };
}

/** The first step at the very instant its plan starts began with it: moved later, it begins when it may. */
const withPlan = (step: Fields, isFirst: boolean, startsAt: unknown): Fields => {
  const { rule, at } = fieldsOf(step['start']);
  return isFirst && rule === 'at' && at === startsAt
    ? { ...step, start: { rule: 'state', state: 'recoat', waitMin: 0 } }
    : step;
};

/** Version 5 knew coats of one colour, clear coats of one sheen, and plain parts that look as their surface mostly does. */
function from5(file: Fields): Fields {
  const { piece } = file;
  return {
    ...file,
    version: 6,
    piece: isFields(piece)
      ? {
          ...piece,
          parts: each(piece['parts'], (part) => ({
            ...part,
            ground: { colour: null, grain: 'along' },
            relief: null,
          })),
        }
      : piece,
    finishes: each(file['finishes'], (finish) => ({
      ...finish,
      steps: each(finish['steps'], (filed) => {
        const isFirst = (finish['steps'] as readonly unknown[])[0] === filed;
        const step = withPlan(filed, isFirst, file['startsAt']);
        if (step['kind'] === 'coat') return { ...step, others: [], manner: 'side-by-side', texture: 0 };
        return step['kind'] === 'seal' ? { ...step, sheen: null } : step;
      }),
    })),
  };
}

/** Version 6 did coats, seals, hot air and water all over, in clear water, on square parts, in places without a name. */
function from6(file: Fields): Fields {
  const { piece } = file;
  const placed = (step: Fields): Fields => ({ where: 'all', ...step, only: null, except: [] });
  const zone = (of: Fields): Fields => ({
    ...of,
    name: told(PLACED_ZONE_NAMES, of['kind']) ?? PLACED_ZONE_NAMES.spot,
    oval: false,
  });
  return {
    ...file,
    version: 7,
    piece: isFields(piece)
      ? {
          ...piece,
          parts: each(piece['parts'], (part) => ({ ...part, oval: false, zones: each(part['zones'], zone) })),
        }
      : piece,
    finishes: each(file['finishes'], (finish) => ({
      ...finish,
      steps: each(finish['steps'], (step) => {
        switch (step['kind']) {
          case 'coat':
          case 'seal':
          case 'resist':
          case 'heat':
          case 'wipe':
            return placed(step);
          case 'rewet':
          case 'distress':
            return { ...placed(step), tint: null };
          case 'companion':
            return { ...step, wood: null, print: null };
          default:
            return step;
        }
      }),
    })),
  };
}

/** Version 7 knew the same hours every day, one person, and parts that were all turned as one piece. */
function from7(file: Fields): Fields {
  const { piece, hours, ...rest } = file;
  const body = 'piece';
  const parts = fieldsOf(piece)['parts'];
  const turned = Array.isArray(parts) && parts.some((part: unknown) => fieldsOf(part)['facing'] !== 'loose');
  return {
    ...rest,
    version: 8,
    piece: isFields(piece)
      ? {
          ...piece,
          bodies: turned ? [{ id: body, name: piece['name'] }] : [],
          parts: each(parts, (part) => ({ ...part, body: part['facing'] === 'loose' ? null : body })),
        }
      : piece,
    work: isFields(hours) ? everyDay(hours) : null,
    timing: {
      deadlineAt: null,
      backward: false,
      prepares: false,
      pins: [],
      deliveries: [],
      order: [],
    },
  };
}

/** The hours of version 7: the same stretch on every day, by a clock that is so many minutes off UTC. */
function everyDay({ opensMin, closesMin, offsetMin }: Fields): Fields {
  const off = typeof offsetMin === 'number' ? Math.abs(offsetMin) : 0;
  const two = (number: number): string => String(Math.floor(number)).padStart(2, '0');
  return {
    zone: `${Number(offsetMin) < 0 ? '-' : '+'}${two(off / 60)}:${two(off % 60)}`,
    week: Object.fromEntries(WEEKDAYS.map((name) => [name, [{ opensMin, closesMin }]])),
    daysOff: [],
    extra: [],
    people: 1,
    daylight: null,
    minutes: {},
  };
}

/** Version 8 knew no air but what was told by hand. */
function from8(file: Fields): Fields {
  const { air } = file;
  return { ...file, version: 9, air: isFields(air) ? { origin: 'told', ...air } : air };
}

/** Version 9 had no notes at steps; they may be left out. */
const from9 = (file: Fields): Fields => ({ ...file, version: 10 });

/** Version 10 knew of preparation only whether it is done. */
function from10(file: Fields): Fields {
  const { piece } = file;
  return {
    ...file,
    version: 11,
    piece: isFields(piece)
      ? { ...piece, parts: each(piece['parts'], (part) => ({ ...part, unneeded: [] })) }
      : piece,
  };
}

/** Steps from each version to the next, by the version they read. */
const MIGRATIONS: Readonly<Record<number, (file: Fields) => Fields>> = {
  1: from1,
  2: from2,
  3: from3,
  4: from4,
  5: from5,
  6: from6,
  7: from7,
  8: from8,
  9: from9,
  10: from10,
};

/**
 * Brings a file of an older version to the present one; its content is checked afterwards by the schema.
 * @throws ZaffetError `plan.not-a-plan` or `plan.too-new`
 */
export function migratePlan(file: unknown): unknown {
  if (!isFields(file)) throw new ZaffetError(fault('plan.not-a-plan'));
  let plan = file;
  if (plan['format'] !== PLAN_FORMAT || typeof plan['version'] !== 'number') {
    throw new ZaffetError(fault('plan.not-a-plan'));
  }
  if (plan['version'] > PLAN_VERSION) throw new ZaffetError(fault('plan.too-new'));
  for (let step = MIGRATIONS[plan['version']]; step; step = MIGRATIONS[plan['version'] as number])
    plan = step(plan);
  return plan;
}
