export { type Turn, turns } from './turns';
export { FACINGS, type Facing, type Placeable, type Placed, PLACED_ZONES, type PlacedZone } from './types';
export { unfold } from './unfold';
