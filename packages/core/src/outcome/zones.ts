import { type Zone, ZONES } from '../plan';
import { meanColour, type Appearance } from '../colour';
import { flakeUm } from '../chip';
import { type CrackPattern } from '../crack';
import { type Course } from '../course';
import { type LocalCracks, type Patch } from './places';
import { glossOf } from './sheen';
import { type Shown, type ShownZone } from './show';
import { type ChipForecast, type CrackLook, type ZoneForecast } from './types';

/**
 * One pattern for several patches: crack lengths and open areas add up, so spacing is the mean of cracks per length,
 * opening the mean along the cracks.
 */
export function joinedPattern(patches: readonly Patch[], local: readonly LocalCracks[]): CrackPattern {
  if (local.every(({ pattern, cover }) => pattern === local[0]!.pattern && cover === 1))
    return local[0]!.pattern;
  let area = 0;
  let cracked = 0;
  let openArea = 0;
  let strength = 0;
  let length = 0;
  let opened = 0;
  let weight = 0;
  patches.forEach((patch, k) => {
    const { pattern, cover } = local[k]!;
    area += patch.area;
    cracked += patch.area * cover * pattern.crackedShare;
    openArea += patch.area * cover * pattern.openArea;
    strength += patch.area * cover * pattern.strength;
    if (!(pattern.spacingUm > 0)) return;
    // Where hardly anything cracks its spacing hardly counts.
    const counts = patch.area * Math.max(1e-6, cover * pattern.crackedShare);
    weight += counts;
    length += counts / pattern.spacingUm;
    opened += (counts / pattern.spacingUm) * pattern.openingUm;
  });
  return {
    crackedShare: cracked / area,
    spacingUm: length > 0 ? weight / length : 0,
    openingUm: length > 0 ? opened / length : 0,
    openArea: openArea / area,
    strength: strength / area,
  };
}

/** A pattern in SI. */
export const lookOf = ({ spacingUm, openingUm, ...shares }: CrackPattern): CrackLook => ({
  ...shares,
  spacing: spacingUm * 1e-6,
  opening: openingUm * 1e-6,
});

/** Share of chips under which no flake size is told. */
const FLAKES_SEEN = 0.005;

/** What the panel and each of its zones come to. */
export function zoneForecasts(
  patches: readonly Patch[],
  local: readonly (readonly LocalCracks[])[],
  course: Course,
  crackedCoat: number | null,
  shown: Shown,
  looks: Appearance,
): { readonly whole: ZoneForecast; readonly zones: Readonly<Record<Zone, ZoneForecast>> } {
  const most = shown.chips.reduce<ChipForecast | null>(
    (best, chip) => (best === null || chip.share > best.share ? chip : best),
    null,
  );
  const of = (part: ShownZone, within: readonly number[]): ZoneForecast => {
    const patternOf = (film: number): CrackPattern =>
      joinedPattern(
        within.map((k) => patches[k]!),
        within.map((k) => local[film]![k]!),
      );
    const firstAt = crackedCoat === null ? null : (course.cracks[crackedCoat]?.firstAt ?? null);
    const laidAt = crackedCoat === null ? 0 : course.films[crackedCoat]!.laidAt;
    const firstRatio =
      crackedCoat === null ? 1 : Math.min(...within.map((k) => local[crackedCoat]![k]!.firstRatio));
    return {
      ...part,
      crack: crackedCoat === null ? null : lookOf(patternOf(crackedCoat)),
      firstAfter: firstAt === null ? null : (firstAt - laidAt) * firstRatio,
      flake:
        most === null || (most.share <= FLAKES_SEEN && part.chippedShare <= FLAKES_SEEN)
          ? null
          : flakeUm(patternOf(most.by).spacingUm) * 1e-6,
      gloss: glossOf(course.films, shown, part.seen),
      colour: meanColour(looks, shown.layers, part.seen),
    };
  };
  const all = patches.map((_, k) => k);
  const whole = of(shown.whole, all);
  return {
    whole,
    zones: Object.fromEntries(
      ZONES.map((zone) => {
        const within = all.filter((k) => patches[k]!.zone === zone);
        // One patch that stands for all has no zones of its own.
        return [zone, patches.length === 1 || within.length === 0 ? whole : of(shown.zones[zone], within)];
      }),
    ) as Record<Zone, ZoneForecast>,
  };
}
