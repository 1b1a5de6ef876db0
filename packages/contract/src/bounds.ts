import { FITTING_KINDS } from './plan/piece.types';
import { MEDIUM_KEYS, PARAMETERS } from '@zaffet/core/media';
import { PREP_STEPS } from '@zaffet/core/plan';
import { fault, ZaffetError } from './errors';
import { LIMITS } from './plan/limits';

/*
 * How much a file may hold, looked at before its fields are: a schema collects what is wrong with every entry, and a
 * list of a million empty entries would take all memory before it is refused.
 */

const STEPS_IN_ALL = LIMITS.steps.max * LIMITS.finishes.max;
const CELLS_OF_MAP = LIMITS.columns.max * LIMITS.rows.max;

/** Most entries of a list, by its name. */
const LISTS: Readonly<Record<string, number>> = {
  parts: LIMITS.parts.max,
  finishes: LIMITS.finishes.max,
  steps: LIMITS.steps.max,
  zones: LIMITS.zones.max,
  except: LIMITS.except.max,
  fittings: FITTING_KINDS.length,
  prepared: PREP_STEPS.length,
  unneeded: PREP_STEPS.length,
  palette: LIMITS.palette.max,
  mix: LIMITS.ingredients.max,
  media: LIMITS.ownMedia.max,
  later: LIMITS.later.max,
  percent: CELLS_OF_MAP,
  items: LIMITS.shelfItems.max,
  pins: LIMITS.pins.max,
  readings: LIMITS.readings.max,
  events: LIMITS.events.max,
};
/** Most fields of a group, by its name. */
const GROUPS: Readonly<Record<string, number>> = {
  maps: STEPS_IN_ALL,
  shows: STEPS_IN_ALL + 1,
  prices: LIMITS.ownMedia.max + MEDIUM_KEYS.length,
  changes: Object.keys(PARAMETERS).length,
};
const OTHER_LIST = 64;
const OTHER_GROUP = 32;
const DEPTH = 10;
/** A packed map may need a third more than its cells, and a byte in each 128. */
const TEXT = Math.ceil(CELLS_OF_MAP * 1.4);

type Refuse = (path: string, message: string) => never;

/**
 * Looks whether a value is of a size that a schema may be let loose on.
 * @throws ZaffetError of the code given, with the first place that holds too much
 */
export function checkBounds(
  value: unknown,
  code:
    'plan.invalid' | 'shelf.invalid' | 'shop.invalid' | 'air.refused' | 'run.invalid' | 'calibration.invalid',
): void {
  let cells = 0;
  const refuse: Refuse = (path, message) => {
    throw new ZaffetError(fault(code, [{ path, message: `${path} ${message}` }]));
  };
  const look = (node: unknown, name: string, path: string, depth: number): void => {
    if (typeof node === 'string' && node.length > TEXT)
      refuse(path, `holds ${node.length} characters; it must be at most ${TEXT}.`);
    if (typeof node !== 'object' || node === null) return;
    if (depth > DEPTH) refuse(path, `is nested ${depth} deep; it must be at most ${DEPTH}.`);
    const entries = Array.isArray(node) ? node.length : Object.keys(node).length;
    const most = Array.isArray(node) ? (LISTS[name] ?? OTHER_LIST) : (GROUPS[name] ?? OTHER_GROUP);
    if (entries > most) refuse(path, `has ${entries} entries; allowed is at most ${most}.`);
    if ('columns' in node && 'rows' in node && 'percent' in node) {
      const { columns, rows } = node;
      if (typeof columns === 'number' && typeof rows === 'number') cells += columns * rows;
      if (cells > LIMITS.cells.max)
        refuse(path, `brings the maps of the plan to over ${LIMITS.cells.max} cells; take some out.`);
    }
    if (name === 'percent') return;
    for (const [key, child] of Object.entries(node))
      look(child, Array.isArray(node) ? '' : key, path === '' ? key : `${path}.${key}`, depth + 1);
  };
  look(value, '', '', 0);
}
