import { type Substrate, substrate } from '../media';
import { type Panel } from './types';

/** Bond of a scuffed surface, of one with a bonding primer on it, and of wax that was taken off; factors as tables'. */
const SCUFFED = 1;
const PRIMED = 2.5;
const DEWAXED = 0.45;
/** Scuffing a slick surface helps a coat this much, and no further than a scuffed one; common practice. */
const BY_SCUFFING = 2.2;
/** Grease nobody took off leaves so much of the hold; assumed. */
const GREASY = 0.55;

/**
 * The surface that meets the first coat: as the table has it, and as it was prepared. What the preparation changes is
 * common practice, how much is assumed.
 * @throws InputError when the substrate is not known
 */
export function groundOf({
  substrate: key,
  history,
  prepared = [],
}: Pick<Panel, 'substrate' | 'history' | 'prepared'>): Substrate {
  const row = substrate(key);
  const done = (step: (typeof prepared)[number]): boolean => prepared.includes(step);
  const closed = row.porosity > 0.3 && (done('seal-raw-wood') || done('seal-mdf') || done('stop-tannin'));
  const ground: Substrate = closed
    ? { ...row, suctionUm: 0, capacityUm: 1, porosity: 0, baseBond: SCUFFED }
    : row;
  let bond = ground.baseBond;
  if (done('dewax')) bond = Math.max(bond, DEWAXED);
  if (done('scuff')) bond = Math.max(bond, Math.min(SCUFFED, bond * BY_SCUFFING));
  if (history.handled && !done('degrease') && ground.porosity < 0.3) bond *= GREASY;
  if (done('bond')) bond = Math.max(bond, PRIMED);
  return { ...ground, baseBond: bond };
}
