import { isOf, type Medium, type MediumLookup } from '../media';
import { mayHoldLead, type Panel, type PrepStep, type Step } from '../plan';
import { toolOf } from '../tools';
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
  /** What the plan does first, which may itself be preparation or want a bare surface. */
  readonly begins?: Beginning;
}

/** What the first steps of a plan do to the surface. */
export interface Beginning {
  /** It is sanded before its first coat. */
  readonly sands: boolean;
  /** First material on it; null where nothing is put on. */
  readonly first: Medium | null;
  /** It is coloured before its first coat: a wash or a reactive stain. */
  readonly washes: boolean;
}

/** How a plan begins on its part. */
export function beginningOf(steps: readonly Step[], media: MediumLookup): Beginning {
  const index = steps.findIndex((step) => 'medium' in step);
  const film = steps[index];
  const before = index < 0 ? steps : steps.slice(0, index);
  return {
    first: film !== undefined && 'medium' in film ? media(film.medium) : null,
    sands: before.some((step) => step.kind === 'distress' && toolOf(step.tool).action === 'sand'),
    washes: before.some(
      (step) => step.kind === 'companion' && (step.task === 'wash' || step.task === 'reactive-stain'),
    ),
  };
}

const NOTHING: Beginning = { sands: false, first: null, washes: false };

/**
 * What a sealer on bare wood would do to a plan: spoil it where it stains, soaks in or leaves wood bare on purpose; nothing
 * new where the plan itself begins with a coat that seals. Common practice.
 */
function wantsSealer({ first, washes }: Beginning): boolean {
  if (washes) return false;
  if (first === null) return true;
  const soaksIn =
    isOf(first, 'stains') || isOf(first, 'casein') || first.kind === 'wax' || first.kind === 'resist';
  return !soaksIn && !seals(first);
}
const seals = ({ kind }: Medium): boolean => kind === 'clear' || kind === 'primer';

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
  const begins = around.begins ?? NOTHING;
  const { first } = begins;
  const lead = mayHoldLead(history);
  if (lead) add('test-old-paint', history.age === 'old' ? 'age-old' : 'age-unknown', true);
  if (around.takenOff === true) add('take-off', 'comes-off');
  if (around.masked === true) add('mask', 'stays-on');
  if (history.condition === 'flaking') add('loosen-flakes', 'flaking', lead);
  add('degrease', history.handled ? 'handled' : 'always');
  if (substrate === 'waxed' || history.coat === 'wax') add('dewax', 'waxed');
  if (history.coat === 'oil') add('wait-oil', history.age === 'fresh' ? 'fresh-oil' : 'old-oil');
  if (history.coat === 'unknown') add('test-hold', 'unknown-coat');
  if ((substrate === 'gloss' || substrate === 'sealed') && !begins.sands) add('scuff', 'slick');
  if ((substrate === 'vinyl' || substrate === 'metal') && first?.kind !== 'primer')
    add('bond', 'holds-poorly');
  const { moisture, air } = around;
  if (moisture != null && air !== undefined && !moistureReady(moisture, air.temperature, air.humidity))
    add('dry-wood', 'damp-wood');
  const stopsTannin = first !== null && first.kind === 'clear' && first.carrier === 'alcohol';
  const colours = begins.washes || (first !== null && isOf(first, 'stains'));
  if (history.tannin && substrate !== 'sealed' && !stopsTannin && !colours) add('stop-tannin', 'tannin-wood');
  if (bareWood && !history.tannin && wantsSealer(begins)) add('seal-raw-wood', 'raw-wood-drinks');
  if ((substrate === 'mdf-face' || substrate === 'mdf-edge') && !(first !== null && seals(first)))
    add('seal-mdf', 'mdf-swells');
  return hints;
}
