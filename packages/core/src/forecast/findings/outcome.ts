import { isClear, isOf, substrate } from '../../media';
import { type PanelPlan } from '../../plan';
import { type Forecast } from '../types';
import { type AddFinding } from './codes';
import { BARE_SEEN, INVISIBLE, MAX_PASSES, MISSING, POOR_BASE, THIN_TOP, WEAK } from './limits';

type Outcome = Omit<Forecast, 'findings'>;

/** What comes of it: cracks that fail, hold that is poor, layers nobody will see. */
export function outcomeRules(plan: PanelPlan, result: Outcome, add: AddFinding): void {
  const { coats, crackedCoat } = result;
  coats.forEach((coat, i) => {
    const { id } = coat.coat;
    const below = coats[i - 1];
    const strength = coat.crack?.pattern.strength ?? 0;
    const onSlip = below !== undefined && below.medium.slipRate > 0 && below.medium.kind !== 'clear';
    if (onSlip) {
      if (coat.coat.passes > MAX_PASSES)
        add('overworked', 'warn', id, { passes: coat.coat.passes, strength });
      if (coat.dryThickness < THIN_TOP && !isClear(coat.medium))
        add('too-thin', 'warn', id, { thickness: coat.dryThickness });
      if (strength < MISSING) add('crackle-missing', 'warn', id, { strength });
      else if (strength < WEAK) add('weak-crackle', 'tip', id, { strength });
    }
    const lower = coats[i - 2];
    if (
      lower !== undefined &&
      below !== undefined &&
      lower.medium.slipRate > 0 &&
      lower.medium.kind !== 'clear' &&
      below.medium.slipRate === 0 &&
      coat.coat.kind === 'coat' &&
      !isClear(coat.medium)
    ) {
      add('second-coat-closes', 'warn', id, { left: below.crack?.law.fillLeft ?? 0 });
    }
  });
  const top = coats.at(-1);
  const slips = coats.some((coat) => coat.medium.slipRate > 0);
  // Where something else makes the look, paint need not crack.
  const works = plan.steps.some(
    (step) =>
      step.kind === 'distress' ||
      step.kind === 'resist' ||
      step.kind === 'heat' ||
      (step.kind === 'coat' && step.cover.share < 0.9),
  );
  if (top && !slips && !works && crackedCoat === null && coats.length > 1 && result.whole.chippedShare < 0.01)
    add('paint-before-paint', 'tip', top.coat.id);

  const cracked = crackedCoat === null ? undefined : coats[crackedCoat];
  const slipping = crackedCoat === null ? undefined : coats[crackedCoat - 1];
  if (cracked && slipping && (cracked.crack?.pattern.strength ?? 0) >= WEAK) {
    if (slipping.medium.kind === 'wet-glue') add('lever-glue', 'tip', cracked.coat.id);
    if (slipping.medium.kind === 'crackle-medium') add('lever-top', 'tip', cracked.coat.id);
    const everywhere = cracked.coat.cover.share * slipping.coat.cover.share;
    if (everywhere > 0.9 && !works) add('crackle-everywhere', 'tip', cracked.coat.id, { share: everywhere });
  }
  const { contrast } = result.appearance;
  if (top && contrast !== null && contrast < INVISIBLE && (cracked || result.whole.chippedShare > 0.02))
    add('contrast-low', 'warn', (cracked ?? top).coat.id, { contrast });
  holdRules(plan, result, add);
}

function holdRules(plan: PanelPlan, result: Outcome, add: AddFinding): void {
  const { coats } = result;
  const ground = substrate(plan.panel.substrate);
  const first = coats[0];
  if (first && ground.baseBond < POOR_BASE && first.medium.kind !== 'primer')
    add('poor-hold', 'warn', first.coat.id, { bond: ground.baseBond });
  coats.forEach((coat, i) => {
    if (!isOf(coat.medium, 'casein')) return;
    const below = coats[i - 1];
    const porous = below === undefined ? ground.porosity >= 0.5 : below.medium.suctionUm > 0.3;
    const chips = Math.max(0, ...result.chips.filter((chip) => chip.film <= i).map((chip) => chip.share));
    if (porous && chips < 0.02 && !(below && isOf(below.medium, 'casein')))
      add('soaks-in', 'tip', coat.coat.id);
  });
  const most = Math.max(0, ...result.chips.map((chip) => chip.share));
  const worst = result.chips.find((chip) => chip.share === most);
  if (worst && most > 0.6) add('flakes-badly', 'warn', coats[worst.film]!.coat.id, { share: most });
  if (ground.bare && result.whole.bareShare > BARE_SEEN && coats.length > 0) {
    const step = plan.steps.findLast((s) => s.kind === 'distress') ?? coats[0]!.coat;
    add('bare-shows', 'warn', step.id, { share: result.whole.bareShare });
  }
}
