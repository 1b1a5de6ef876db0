import { onTables } from '../basis';
import { asRead, calibrate, type Cell, foretell, type Reading, SCATTER } from '../calibrate';
import {
  type FactorKey,
  type FactorKind,
  type Learned,
  medium,
  type MediumParameter,
  type OwnMedium,
  PARAMETERS,
  PRIOR_SPREAD,
} from '../media';
import { normalQuantile } from '../numeric/normal';
import { uniform } from '../numeric/hash';
import { isFilm, type PanelPlan } from '../plan';
import { after, coat, FIRST, planOf, room } from './plans';

/*
 * Boards whose truth is known: the core's own forecast with factors that the fit is not told, and a structure that may be
 * off; read with the scatter readings have, now and then with a cell that went wrong.
 */

/** A way of making cracks, and what is read off its boards. */
export interface BoardSchool {
  readonly below: string;
  readonly top: string;
  readonly base: string;
  readonly usual: readonly [number, number, number];
  readonly reads: readonly Reading[];
}
export const BOARD_SCHOOLS = {
  medium: {
    below: 'crackle',
    top: 'chalk',
    base: 'latex',
    usual: [100, 85, 2700],
    reads: ['spacing', 'opening', 'first', 'touchBelow', 'touchTop'],
  },
  glue: {
    below: 'pva',
    top: 'latex',
    base: 'latex',
    usual: [110, 100, 90],
    reads: ['spacing', 'opening', 'first', 'touchTop'],
  },
  milk: {
    below: 'polyW',
    top: 'milk',
    base: 'chalk',
    usual: [80, 60, 1500],
    reads: ['spacing', 'opening', 'chips', 'touchBelow'],
  },
} as const satisfies Record<string, BoardSchool>;

/** What the fit is not told. */
export interface World {
  /** Levers of the model are off, and so is what no board is asked of the media. */
  readonly structure: boolean;
  readonly outliers: boolean;
  /** Boards are made in other air than what is asked afterwards. */
  readonly otherAir: boolean;
}

const NO_COVARIANCE = (keys: readonly FactorKey[]): number[][] => keys.map(() => keys.map(() => 0));
const draw = (seed: number, channel: number): number =>
  normalQuantile(Math.min(1 - 1e-9, Math.max(1e-9, uniform(channel, seed, 31))));

export function cellPlan(
  school: BoardSchool,
  below: number,
  top: number,
  wait: number,
  otherAir = false,
): PanelPlan {
  return planOf(
    [
      coat('base', school.base, 90, FIRST),
      coat('below', school.below, below, after(6 * 3600)),
      coat('top', school.top, top, after(wait), { colour: '#c8b090' }),
    ],
    otherAir ? room(17, 0.65) : room(22, 0.45),
  );
}

export const cellOf = (id: string, plan: PanelPlan, read: Cell['read'] = {}): Cell => ({
  id,
  board: 'board',
  basis: onTables(plan),
  top: 'top',
  read,
  cracked: null,
});

/** Factors of a shop, drawn from what is believed of all shops. */
export function hiddenShop(school: BoardSchool, seed: number): Learned {
  const keys: FactorKey[] = [
    'air',
    `dry:${school.below}`,
    `dry:${school.top}`,
    `slip:${school.below}`,
    `strain:${school.top}`,
    `tough:${school.top}`,
    `bond:${school.top}`,
  ];
  return {
    keys,
    mean: keys.map((key, i) => PRIOR_SPREAD[key.split(':')[0] as FactorKind] * draw(seed, i)),
    covariance: NO_COVARIANCE(keys),
  };
}

/**
 * A shop's media as they really are: what no board is asked is another too, drawn as learning's measurements had it [sd of
 * ln]: the strain a film breaks at, how soon it relaxes, the water it holds on to.
 */
function hiddenMedia(school: BoardSchool, seed: number): readonly OwnMedium[] {
  const by = (name: MediumParameter, like: string, sd: number, channel: number): Record<string, number> => {
    const { min, max } = PARAMETERS[name];
    const value = medium(like)[name] * Math.exp(sd * draw(seed, channel));
    return { [name]: Math.min(max, Math.max(min, value)) };
  };
  return [
    {
      key: 'below-as-it-is',
      name: 'below',
      like: school.below,
      changes: by('boundWater', school.below, 0.3, 50),
    },
    {
      key: 'top-as-it-is',
      name: 'top',
      like: school.top,
      changes: {
        ...by('breakStrain', school.top, 0.2, 51),
        ...by('relaxationTime', school.top, 0.5, 52),
      },
    },
  ];
}

/** A plan with the media as they really are. */
function asItIs(plan: PanelPlan, school: BoardSchool, seed: number): PanelPlan {
  const media = hiddenMedia(school, seed);
  const steps = plan.steps.map((step) => {
    const own = media.find(({ key }) => key === `${step.id}-as-it-is`);
    return own === undefined || !isFilm(step) ? step : { ...step, medium: own.key };
  });
  return { ...plan, media, steps };
}

/** What a cell would come to on the mean of many boards, in the readings' own units; null where there is nothing. */
export function trueReadings(
  school: BoardSchool,
  [below, top, wait]: readonly [number, number, number],
  shop: Learned,
  seed: number,
  { structure }: World,
  otherAir: boolean,
): Partial<Record<Reading, number>> {
  const known = cellPlan(school, below, top, wait, otherAir);
  const plan = structure ? asItIs(known, school, seed) : known;
  const every = cellOf('true', plan, {
    chips: school.reads.includes('chips' as Reading) ? 0.5 : undefined,
  } as Cell['read']);
  const told = foretell(every, shop, shop.keys);
  const [lb, lt] = [Math.log(below / school.usual[0]), Math.log(top / school.usual[1])];
  const damp = otherAir ? 0.75 : -0.25;
  const off = (reading: Reading): number => {
    if (!structure) return 0;
    const lever = (channel: number, sd: number): number => sd * draw(seed, 40 + channel);
    const spacing =
      (uniform(60, seed, 31) < 0.5 ? -0.15 : 0.15) * lt + lever(1, 0.1) * lb + lever(2, 0.15) * damp;
    if (reading === 'spacing') return spacing;
    if (reading === 'opening') return spacing + lever(3, 0.1) + lever(4, 0.1) * lt;
    return reading === 'first' ? lever(5, 0.2) : reading === 'chips' ? 0 : lever(6, 0.08);
  };
  return Object.fromEntries(
    school.reads.flatMap((reading) => {
      const { value } = told[reading];
      if (value === null) return [];
      return [[reading, shifted(reading, value, off(reading))]];
    }),
  );
}

/** A value with its logarithm, or its log odds, moved. */
function shifted(reading: Reading, value: number, by: number): number {
  if (reading !== 'chips') return value * Math.exp(by);
  const share = Math.min(0.995, Math.max(0.005, value));
  return asRead(reading, Math.log(share / (1 - share)) + by);
}

/** A board of three thicknesses by three, or of three waits by three where waits decide; read once. */
export function boardOf(school: BoardSchool, seed: number, shop: Learned, world: World): Cell[] {
  const [below, top, wait] = school.usual;
  const byWait = school.reads.includes('chips' as Reading);
  const steps = [0.7, 1, 1.4];
  return steps.flatMap((first, i) =>
    steps.map((second, k): Cell => {
      const n = 3 * i + k;
      const cell = [
        byWait ? below : below * first,
        top * second,
        byWait ? wait * [0.4, 1, 2][i]! : wait,
      ] as const;
      // Laid a little off; the fit believes what was weighed.
      const laid = [
        cell[0] * Math.exp(0.06 * draw(seed, 100 + n)),
        cell[1] * Math.exp(0.06 * draw(seed, 200 + n)),
        cell[2],
      ] as const;
      const wrong = world.outliers && n === seed % 9;
      const by = wrong ? (seed % 2 === 0 ? 1 : -1) * 0.8 : 0;
      const truth = trueReadings(school, laid, shop, seed, world, world.otherAir);
      const read = Object.fromEntries(
        Object.entries(truth).map(([key, value], r) => {
          const reading = key as Reading;
          const scatter = SCATTER[reading] * draw(seed, 300 + 10 * n + r);
          return [reading, shifted(reading, value, scatter + (reading === 'chips' ? 2 : 1) * by)];
        }),
      );
      return { ...cellOf(`c${n}`, cellPlan(school, ...cell, world.otherAir), read), board: `board ${seed}` };
    }),
  );
}

/** Cells nobody has made, between those of the board and a little beyond. */
const UNSEEN = [
  [0.85, 0.85, 0.7],
  [1.2, 0.8, 1.4],
  [0.8, 1.25, 1],
  [1.15, 1.2, 0.6],
  [1.5, 1, 1.6],
] as const;

/** How far unseen cells are foretold off, before a board and after it, by reading; and whether new readings lie in their bands. */
export interface Judged {
  readonly reading: Reading;
  readonly before: number;
  readonly after: number;
  readonly held: number;
}

/** Calibrates on boards of hidden shops, and judges what is foretold of cells that were not made. */
export function judgeBoards(school: BoardSchool, truths: number, world: World): Judged[] {
  const sums = new Map<Reading, { before: number; after: number; held: number; count: number }>();
  for (let seed = 1; seed <= truths; seed++) {
    const shop = hiddenShop(school, seed);
    const { learned } = calibrate(boardOf(school, seed, shop, world));
    UNSEEN.forEach((by, n) => {
      const at = school.usual.map((value, i) => value * by[i]!) as unknown as readonly [
        number,
        number,
        number,
      ];
      const plan = cellPlan(school, ...at);
      const truth = trueReadings(school, at, shop, seed, world, false);
      const asked = cellOf('asked', plan, 'chips' in truth ? { chips: 0.5 } : {});
      const [tables, fitted] = [foretell(asked, null, learned.keys), foretell(asked, learned, learned.keys)];
      for (const [key, value] of Object.entries(truth)) {
        const reading = key as Reading;
        const [was, is] = [tables[reading], fitted[reading]];
        if (was.value === null || is.value === null) continue;
        const off = (told: number): number =>
          reading === 'chips' ? Math.abs(odds(value) - odds(told)) : Math.abs(Math.log(value / told));
        const sum = sums.get(reading) ?? { before: 0, after: 0, held: 0, count: 0 };
        const again = shifted(
          reading,
          value,
          SCATTER[reading] * draw(seed, 700 + 10 * n + Object.keys(truth).indexOf(key)),
        );
        sum.before += off(was.value);
        sum.after += off(is.value);
        sum.held += again >= is.low! && again <= is.high! ? 1 : 0;
        sum.count += 1;
        sums.set(reading, sum);
      }
    });
  }
  return [...sums].map(([reading, { before, after, held, count }]) => ({
    reading,
    before: before / count,
    after: after / count,
    held: held / count,
  }));
}
const odds = (share: number): number => {
  const inside = Math.min(0.995, Math.max(0.005, share));
  return Math.log(inside / (1 - inside));
};

export const KNOWN_WORLD: World = { structure: false, outliers: false, otherAir: false };
export const WORLDS: Readonly<Record<string, World>> = {
  'model right': KNOWN_WORLD,
  'structure off': { structure: true, outliers: false, otherAir: false },
  'and outliers': { structure: true, outliers: true, otherAir: false },
  'and other air': { structure: true, outliers: true, otherAir: true },
};
