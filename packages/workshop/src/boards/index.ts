export { type BoardDesign, boardFor } from './board';
export { cellsOf, teaches } from './cells';
export { boardAsk, boardLayers, isBoard, type PhotoTold } from './photo';
export { BOARD_QUESTIONS, BOARD_SIZES, type BoardQuestion, type BoardSize, CELL_MM } from './questions';
export { type Teaches } from './taught';
