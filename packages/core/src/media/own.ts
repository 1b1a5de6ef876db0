import { checkRange, InputError } from '../errors';
import { asLearned, checkLearned, type Learned } from './learned';
import { medium, MEDIUM_KEYS } from './media';
import { PARAMETERS } from './parameters';
import { type Medium, type MediumParameter, type OwnMedium } from './types';

/** Looks up media by key: a painter's own first, then the generic ones. */
export type MediumLookup = (key: string) => Medium;

/**
 * Builds the lookup for a plan with a painter's own media, with what the shop has learned of them multiplied in.
 * @throws InputError naming the own medium and its field when a value is out of range, a key taken or unknown
 */
export function mediumLookup(own: readonly OwnMedium[] = [], learned: Learned | null = null): MediumLookup {
  const listed = own.length === 0 ? medium : listedMedia(own);
  if (learned === null) return listed;
  checkLearned(learned);
  const rows = new Map<string, Medium>();
  return (key) => {
    const row = rows.get(key) ?? asLearned(listed(key), learned);
    rows.set(key, row);
    return row;
  };
}

function listedMedia(own: readonly OwnMedium[]): MediumLookup {
  const known = new Map<string, Medium>();
  for (const entry of own) {
    if (known.has(entry.key) || (MEDIUM_KEYS as readonly string[]).includes(entry.key)) {
      throw new InputError({
        code: 'media.key',
        field: `media.${entry.key}.key`,
        value: entry.key,
        allowed: 'a key that no other medium has',
      });
    }
    known.set(entry.key, ownMedium(entry));
  }
  return (key) => known.get(key) ?? medium(key);
}

function ownMedium(entry: OwnMedium): Medium {
  for (const [name, value] of Object.entries(entry.changes)) {
    const info = PARAMETERS[name as MediumParameter] as (typeof PARAMETERS)[MediumParameter] | undefined;
    if (info === undefined) {
      throw new InputError({
        code: 'media.parameter',
        field: `media.${entry.key}.${name}`,
        value,
        allowed: `one of ${Object.keys(PARAMETERS).join(', ')}`,
      });
    }
    checkRange(`media.${entry.key}.${name}`, value, info, info.unit);
  }
  return { ...medium(entry.like), ...entry.changes, key: entry.key, name: entry.name };
}
