export { Growth } from './growth';
export { fieldInput, type FieldWindow, MAX_ISLANDS } from './input';
export { type FieldFigures, measureField } from './measure';
export { type CrackField, type Edge, type FieldInput, type LocalLaw, STROKES, type Strokes } from './types';
