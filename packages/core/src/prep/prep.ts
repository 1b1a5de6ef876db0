import { mayHoldLead, type Panel, type PrepStep } from '../plan';
import { moistureReady } from '../wood';

/** What is known of a part beside its surface and past. */
export interface Circumstances {
  /** Moisture of the wood as measured, share of its dry mass; null where nobody measured. */
  readonly moisture?: number | null;
  /** The shop's air; temperature in K. */
  readonly air?: { readonly temperature: number; readonly humidity: number };
  /** Hardware, drawers and the like come off. */
  readonly takenOff?: boolean;
  /** Glass, hinges and the like stay and are masked. */
  readonly masked?: boolean;
}

/** A step with why it follows from this panel. */
export interface PrepHint {
  readonly step: PrepStep;
  readonly because: PrepReason;
  /** A caution stands before everything else and must be acknowledged. */
  readonly caution: boolean;
}

export type PrepReason =
  | 'age-unknown'
  | 'age-old'
  | 'comes-off'
  | 'stays-on'
  | 'flaking'
  | 'always'
  | 'handled'
  | 'waxed'
  | 'fresh-oil'
  | 'old-oil'
  | 'unknown-coat'
  | 'slick'
  | 'holds-poorly'
  | 'damp-wood'
  | 'tannin-wood'
  | 'raw-wood-drinks'
  | 'mdf-swells';

/**
 * Preparation that follows from a panel's surface and past, in working order. Common practice, no source.
 */
export function prepHints(panel: Panel, around: Circumstances = {}): PrepHint[] {
  const { substrate, history } = panel;
  const hints: PrepHint[] = [];
  const add = (step: PrepStep, because: PrepReason, caution = false): void =>
    void hints.push({ step, because, caution });
  const bareWood = substrate === 'raw-softwood' || substrate === 'raw-hardwood' || substrate === 'plywood';
  const lead = mayHoldLead(history);
  if (lead) add('test-old-paint', history.age === 'old' ? 'age-old' : 'age-unknown', true);
  if (around.takenOff === true) add('take-off', 'comes-off');
  if (around.masked === true) add('mask', 'stays-on');
  if (history.condition === 'flaking') add('loosen-flakes', 'flaking', lead);
  add('degrease', history.handled ? 'handled' : 'always');
  if (substrate === 'waxed' || history.coat === 'wax') add('dewax', 'waxed');
  if (history.coat === 'oil') add('wait-oil', history.age === 'fresh' ? 'fresh-oil' : 'old-oil');
  if (history.coat === 'unknown') add('test-hold', 'unknown-coat');
  if (substrate === 'gloss' || substrate === 'sealed') add('scuff', 'slick');
  if (substrate === 'vinyl' || substrate === 'metal') add('bond', 'holds-poorly');
  const { moisture, air } = around;
  if (moisture != null && air !== undefined && !moistureReady(moisture, air.temperature, air.humidity))
    add('dry-wood', 'damp-wood');
  if (history.tannin && substrate !== 'sealed') add('stop-tannin', 'tannin-wood');
  if (bareWood && !history.tannin) add('seal-raw-wood', 'raw-wood-drinks');
  if (substrate === 'mdf-face' || substrate === 'mdf-edge') add('seal-mdf', 'mdf-swells');
  return hints;
}
