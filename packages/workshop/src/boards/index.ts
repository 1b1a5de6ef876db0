export {
  BOARD_QUESTIONS,
  BOARD_SIZES,
  type BoardDesign,
  boardFor,
  type BoardQuestion,
  type BoardSize,
  type Teaches,
  CELL_MM,
} from './board';
export { cellsOf, teaches } from './cells';
export { boardAsk, boardLayers, isBoard, type PhotoTold } from './photo';
