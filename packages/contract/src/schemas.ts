export { parseReadings } from './air/schema';
export { parsePlan, parseSave } from './plan/schema';
export { parseItemChanges, parseMeasures, parseShelf, parseShelfItem } from './shelf/schema';
export { parseShop } from './shop/schema';
