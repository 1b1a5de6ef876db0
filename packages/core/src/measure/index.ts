export {
  marksOf,
  NATURAL_CODES,
  NATURAL_LIMITS,
  type NaturalCode,
  type Naturalness,
  naturalness,
  type SurfaceMarks,
} from './naturalness';
export { measurePanel, type PanelShares } from './shares';
