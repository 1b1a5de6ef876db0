import { type Course, tooThickToTell, TRIED } from '../course';
import { isClear, isOf } from '../media';
import { type Outcome } from '../outcome';
import { groundOf } from '../plan';
import { umToMetres } from '../units';
import { type AddFinding } from './codes';
import {
  BARE_SEEN,
  INVISIBLE,
  MAX_PASSES,
  MISSING,
  MORE_THAN_WANTED,
  POOR_BASE,
  THIN_TOP,
  WEAK,
} from './limits';

/** What comes of it: cracks that fail, hold that is poor, layers nobody will see. */
export function outcomeRules(course: Course, result: Outcome, add: AddFinding): void {
  const { plan, films, cracks } = course;
  const { crackedCoat } = result;
  films.forEach((coat, i) => {
    const { id } = coat.step;
    const below = films[i - 1];
    const strength = cracks[i]?.pattern.strength ?? 0;
    if (tooThickToTell(coat)) {
      const most = umToMetres(TRIED * coat.medium.wetFilmUm);
      add('cracks-unknown', 'warn', id, { thickness: coat.step.thickness, most });
      return;
    }
    const onSlip = below !== undefined && below.medium.slipRate > 0 && below.medium.kind !== 'clear';
    if (onSlip) {
      if (coat.step.passes > MAX_PASSES)
        add('overworked', 'warn', id, { passes: coat.step.passes, strength });
      const thickness = umToMetres(coat.solidsUm);
      if (thickness < THIN_TOP && !isClear(coat.medium)) add('too-thin', 'warn', id, { thickness });
      if (strength < MISSING) add('crackle-missing', 'warn', id, { strength });
      else if (strength < WEAK) add('weak-crackle', 'tip', id, { strength });
    }
    const lower = films[i - 2];
    if (
      lower !== undefined &&
      below !== undefined &&
      lower.medium.slipRate > 0 &&
      lower.medium.kind !== 'clear' &&
      below.medium.slipRate === 0 &&
      coat.step.kind === 'coat' &&
      !isClear(coat.medium)
    ) {
      add('second-coat-closes', 'warn', id, { left: cracks[i - 1]?.law.fillLeft ?? 0 });
    }
  });
  const top = films.at(-1);
  const slips = films.some((coat) => coat.medium.slipRate > 0);
  // Where something else makes the look, paint need not crack.
  const works = plan.steps.some(
    (step) =>
      step.kind === 'distress' ||
      step.kind === 'resist' ||
      step.kind === 'heat' ||
      (step.kind === 'coat' && step.cover.share < 0.9),
  );
  if (top && !slips && !works && crackedCoat === null && films.length > 1 && result.whole.chippedShare < 0.01)
    add('paint-before-paint', 'tip', top.step.id);

  const cracked = crackedCoat === null ? undefined : films[crackedCoat];
  const slipping = crackedCoat === null ? undefined : films[crackedCoat - 1];
  if (cracked && slipping && (cracks[crackedCoat!]?.pattern.strength ?? 0) >= WEAK) {
    if (slipping.medium.kind === 'wet-glue') add('lever-glue', 'tip', cracked.step.id);
    if (slipping.medium.kind === 'crackle-medium') add('lever-top', 'tip', cracked.step.id);
    const everywhere = cracked.step.cover.share * slipping.step.cover.share;
    if (everywhere > 0.9 && !works) add('crackle-everywhere', 'tip', cracked.step.id, { share: everywhere });
  }
  const { contrast } = result.appearance;
  if (top && contrast !== null && contrast < INVISIBLE && (cracked || result.whole.chippedShare > 0.02))
    add('contrast-low', 'warn', (cracked ?? top).step.id, { contrast });
  holdRules(course, result, add);
}

function holdRules({ plan, films }: Course, result: Outcome, add: AddFinding): void {
  const ground = groundOf(plan.panel);
  const first = films[0];
  if (first && ground.baseBond < POOR_BASE && first.medium.kind !== 'primer')
    add('poor-hold', 'warn', first.step.id, { bond: ground.baseBond });
  films.forEach((coat, i) => {
    if (!isOf(coat.medium, 'casein')) return;
    const below = films[i - 1];
    const porous = below === undefined ? ground.porosity >= 0.5 : below.medium.suctionUm > 0.3;
    const chips = Math.max(0, ...result.chips.filter((chip) => chip.film <= i).map((chip) => chip.share));
    if (porous && chips < 0.02 && !(below && isOf(below.medium, 'casein')))
      add('soaks-in', 'tip', coat.step.id);
  });
  const most = Math.max(0, ...result.chips.map((chip) => chip.share));
  const worst = result.chips.find((chip) => chip.share === most);
  if (worst && most > 0.6) add('flakes-badly', 'warn', films[worst.film]!.step.id, { share: most });
  // Where the look asks for bare board, so much of it is no fault.
  const wanted = (plan.bareWanted ?? 0) * MORE_THAN_WANTED;
  if (ground.bare && result.whole.bareShare > Math.max(BARE_SEEN, wanted) && films.length > 0) {
    const step = plan.steps.findLast((s) => s.kind === 'distress') ?? films[0]!.step;
    add('bare-shows', 'warn', step.id, { share: result.whole.bareShare });
  }
}
