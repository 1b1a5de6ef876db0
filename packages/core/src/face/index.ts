export { rasterise, type RasterWindow } from './raster';
export { faceTexture, type FaceTexture, shade } from './shade';
export { type CrackRaster, type Finish, type Rgb } from './types';
export { FACE_VIEWS, faceView, type FaceView, type FaceViewKey } from './view';
