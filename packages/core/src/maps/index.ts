export { type Dab, fillMap, fillRegion, paintMap, type PanelSize } from './paint';
export { type Touch, USUAL_TOUCHES, WEAR_CAUSES, type WearCause, wearByUse } from './use';
export { MAP_ZONES, type MapZone, type Region } from './zones';
