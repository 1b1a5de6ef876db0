export { type Lens, lensOfQuad, middleOf, scaleAt, toPixel } from './lens';
export { CLIPPED, type Light, lightFrom, LUMINANCE, type Paper, whiteAt } from './light';
export { areApart, coloursIn, halved, layersIn, type LayersSeen } from './layers';
export { medianOf } from './kernels';
export { lengthsIn, type Look, lookAt, measureLuma, measurePhoto, readingOf } from './measure';
export { rectified, rectifiedBox, squareOn } from './rectify';
export * from './types';
