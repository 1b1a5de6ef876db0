import { type Colour } from '@zaffet/core/colour';
import { type Painted, paintedCell, photograph, PLAIN_SHOT, type Shot, SHOT_FOCAL } from '@zaffet/core/board';
import { forecast } from '@zaffet/core/forecast';
import { type FactorKey, type FactorKind, type Learned, PRIOR_SPREAD } from '@zaffet/core/media';
import { type Picture } from '@zaffet/core/photo';
import { normalQuantile, uniform } from '@zaffet/core/numeric';
import { type Run } from '../runs/fold';
import { boardLayers, carriedOutAtEnd } from '../boards/photo';
import { hashOf } from './hashOf';

/*
 * A camera over a sample board that ships with Zaffet, where there is none: simulated, and always called so. The board it
 * sees was made by a shop whose paints, air and hands are not those of the tables, and it tells nobody how far they are.
 */

/** What a shop's paints are off the tables by, at most [standard deviations of what shops are off]. */
const MOST = 1.5;
const KINDS: readonly FactorKind[] = ['dry', 'slip', 'strain', 'tough', 'bond'];

/** How far off the tables the media are that this camera's shop works with: the same on every board of it. */
export function hiddenShop(media: readonly string[]): Learned {
  const keys: FactorKey[] = [
    'air',
    ...[...new Set(media)].flatMap((medium) => KINDS.map((kind) => `${kind}:${medium}` as FactorKey)),
  ];
  const mean = keys.map((key) => {
    const drawn = normalQuantile(uniform(hashOf(key), 5, 41));
    return PRIOR_SPREAD[key.split(':')[0] as FactorKind] * Math.min(MOST, Math.max(-MOST, drawn));
  });
  return { keys, mean, covariance: keys.map(() => keys.map(() => 0)) };
}

/** A cell after the other as it came out; it takes a second or so each. @throws InputError as `forecast` */
export function* boardCells(run: Run): Generator<Painted> {
  const media = run.plan.finishes.flatMap(({ steps }) =>
    steps.flatMap((step) => ('medium' in step ? [step.medium] : [])),
  );
  const shop = hiddenShop(media);
  for (const { id } of run.plan.piece.parts)
    yield paintedCell(forecast(carriedOutAtEnd(run, id).basis(shop)).scene);
}

/** Photographs a board: from a little aslant, in light from one side, the same way each time. */
export function boardPhoto(run: Run, cells: readonly Painted[], shot: Partial<Shot> = {}): Picture {
  const ground: Colour = boardLayers(run)[0]?.[0] ?? [0.3, 0.25, 0.2];
  const { id } = run.plan.piece.parts[0]!;
  return photograph(cells, ground, { ...PLAIN_SHOT, seed: hashOf(id), ...shot });
}

/** Focal length of this camera as for 35 mm film [mm]. */
export const BOARD_CAMERA_FOCAL = SHOT_FOCAL;
