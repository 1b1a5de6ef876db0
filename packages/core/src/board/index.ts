export {
  ARM,
  BOARD,
  CELL,
  cellBox,
  CELLS,
  CHECK_LINE,
  MARK,
  MARKS,
  MODULES,
  PATCH,
  patchesOf,
  PIECES,
} from './frame';
export { markModules } from './marks';
export {
  type BoardAsk,
  type BoardNote,
  type BoardReading,
  boardReading,
  type LookedAt,
  lookAtBoard,
  putRight,
  type CellReading,
  readBoard,
} from './read';
export { type Painted, photograph, PLAIN_SHOT, type Shot, SHOT_FOCAL } from './shot';
export { paintedCell } from './paint';
