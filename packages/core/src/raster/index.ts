export { blurred } from './blur';
export { findIslands, type Islands } from './islands';
export { rasterise, type RasterWindow } from './raster';
export { type Grid, levelOf, sampled, scores, soft, type Strand } from './scores';
export { type CrackRaster } from './types';
