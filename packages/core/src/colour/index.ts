export { appearance, type Appearance, contrastWith, type LayerLook, meanColour } from './appearance';
export { contrastWord, deltaE2000, differenceFrom, opposite, painterOpposite } from './difference';
export { type Blend, blendOf, type Manner, MANNERS, MIXTURES, stepAt, type Toned } from './blend';
export { type Colour, ENCODED, fromHex, LINEAR, toHex } from './rgb';
export { mixParts } from './mix';
export { hidingFactor, layered, opacityOf, sealedColour, wetColour } from './film';
