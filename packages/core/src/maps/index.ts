export { type Dab, fillMap, fillRegion, paintMap } from './paint';
export { outlineMap, withinOutline } from './outline';
export { type Touch, USUAL_TOUCHES, WEAR_CAUSES, type WearCause, wearByUse } from './use';
export { type Area, AREAS, isRegion, MAP_ZONES, type MapZone, type Region, type Where } from './zones';
