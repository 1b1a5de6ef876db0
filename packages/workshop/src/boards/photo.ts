import { type Plan } from '@zaffet/contract';
import { type BoardAsk, CELL, CELLS } from '@zaffet/core/board';
import { type Colour, fromHex } from '@zaffet/core/colour';
import { forecast } from '@zaffet/core/forecast';
import { carriedOut, type Worked } from '../bench/carriedOut';
import { type Run } from '../runs/fold';

/** Whether a plan is a sample board: cells of one size, as many as lie in a frame, painted row by row. */
export const isBoard = ({ piece }: Plan): boolean =>
  piece.parts.length > 0 &&
  piece.parts.length <= CELLS &&
  piece.bodies.length === 0 &&
  piece.parts.every(
    ({ widthMm, heightMm, oval }) => !oval && widthMm === CELL.side && heightMm === CELL.side,
  );

/** When the last thing was done to a part [ms since 1970]; null where nothing was. */
export function lastDone(run: Run, partId: string): number | null {
  const done = Object.entries(run.steps).flatMap(([key, { begunAt, doneAt }]) =>
    key.startsWith(`${partId} `) && begunAt !== null ? [doneAt ?? begunAt] : [],
  );
  return done.length === 0 ? null : Math.max(...done);
}

/** A part as it was carried out by the last thing that was done to it. @throws InputError as `forecast` */
export const carriedOutAtEnd = (run: Run, partId: string): Worked =>
  carriedOut(run, partId, lastDone(run, partId) ?? run.begunAt);

/** Colours of what hides, by cell, from the ground up: what a photograph of it can show. */
export const boardLayers = (run: Run): readonly (readonly Colour[])[] =>
  run.plan.piece.parts.map(({ id }) => {
    const { scene } = forecast(carriedOutAtEnd(run, id).basis(run.learned));
    const all = scene.layers.flatMap(({ colour, thicknessUm }) =>
      colour === null ? [] : [{ colour, laid: thicknessUm > 0 }],
    );
    const laid = all.filter((one) => one.laid);
    const seen = [...new Set((laid.length > 1 ? laid : all).map(({ colour }) => colour))];
    return seen.map(fromHex);
  });

/** What is told of a photograph besides it. */
export type PhotoTold = Pick<BoardAsk, 'thicknessMm' | 'focal35' | 'checkLineMm'>;

/** What a photograph of a run's board is read by. */
export const boardAsk = (run: Run, told: PhotoTold): BoardAsk => ({
  ...told,
  cells: run.plan.piece.parts.length,
  layers: boardLayers(run),
});
