import { type LookZone } from '@zaffet/contract';
import { type FaceMode } from '@zaffet/core/face';
import { type Area, type MapZone, type WearCause } from '@zaffet/core/maps';
import { type FigureKey } from '@zaffet/core/readout';
import { type WishKey } from '@zaffet/core/solve';

/** Parts of the panel that figures are told of. */
export const AREA_NAMES: Readonly<Record<Area, string>> = {
  panel: 'Whole',
  field: 'Field',
  edge: 'Edges',
  corner: 'Corners',
};

/** All colours of the panel as one. */
export const MEAN_COLOUR_WORDS = {
  name: 'From across the room',
  meaning:
    'All that is seen, mixed by area as the eye does from afar; 8 in 10 boards come out within the distance.',
};

/** What a figure is called, its unit, and a plain sentence on what it means. */
export const FIGURE_WORDS: Readonly<Record<FigureKey, { name: string; unit: string; meaning: string }>> = {
  spacing: {
    name: 'Crack spacing',
    unit: 'mm',
    meaning: 'How far a pin drawn across the panel travels between cracks, on average.',
  },
  opening: { name: 'Crack opening', unit: 'mm', meaning: 'How wide the cracks stand when the coat is dry.' },
  openArea: {
    name: 'Shows in cracks',
    unit: '%',
    meaning: 'Share of the panel where the colour below shows in the cracks.',
  },
  firstCracks: {
    name: 'First cracks',
    unit: 'min',
    meaning: 'How long after brushing on the first cracks can be seen.',
  },
  strength: {
    name: 'How well it reads',
    unit: '%',
    meaning: '100 is a full, clear crackle; below 45 it looks weak, below 12 there is hardly any.',
  },
  chips: {
    name: 'Comes off',
    unit: '%',
    meaning: 'Share of the panel where flakes, wax, jelly or salt let the paint go.',
  },
  flake: { name: 'Flake size', unit: 'mm', meaning: 'Mean size of a flake that lets go.' },
  worn: {
    name: 'Worn through',
    unit: '%',
    meaning: 'Share of the panel where sanding, wiping or cutting brings another layer to light.',
  },
  bare: {
    name: 'Bare board',
    unit: '%',
    meaning: 'Share of the panel on which nothing but clear films lies over the board.',
  },
  gloss: {
    name: 'Sheen',
    unit: 'GU',
    meaning: 'Gloss units at 60 degrees: under 10 matte, about 25 satin, over 60 gloss.',
  },
  contrast: {
    name: 'Contrast',
    unit: 'ΔE',
    meaning:
      'Colour difference ΔE00 of the topmost colour to the one below: under 3 nobody sees it, over 20 it is strong.',
  },
};

/** What a picture of the panel can show. */
export const FACE_MODE_NAMES: Readonly<Record<FaceMode, string>> = {
  colour: 'As it looks',
  wet: 'Sprayed with water',
  top: 'Layer on top',
  thickness: 'Film thickness',
  width: 'Crack width',
  time: 'When it cracked',
};

export const MAP_ZONE_NAMES: Readonly<Record<MapZone, string>> = {
  all: 'All of it',
  field: 'Field',
  edges: 'Edges and corners',
  corners: 'Corners',
  top: 'Upper edge',
  bottom: 'Lower edge',
  left: 'Left edge',
  right: 'Right edge',
};

/** Zones that a look can be wished for. */
export const LOOK_ZONE_NAMES: Readonly<Record<LookZone, string>> = {
  field: 'Field',
  edge: 'Edges',
  corner: 'Corners',
  pull: 'Round the pulls',
  rail: 'Rails',
  recess: 'Recesses',
  relief: 'Relief',
  spot: 'Places',
};

export const WEAR_CAUSE_NAMES: Readonly<Record<WearCause, { name: string; meaning: string }>> = {
  handled: { name: 'Handled', meaning: 'worn blots where hands take hold' },
  'hung-on': { name: 'Hung on', meaning: 'streaks below what hangs from it' },
  knocked: { name: 'Knocked', meaning: 'small dents, most of them low down' },
  'stood-on': { name: 'Stood on', meaning: 'rings where things stood and turned' },
  sun: { name: 'Sun', meaning: 'weathered from above and from one side' },
  damp: { name: 'Damp', meaning: 'lifted from below, up to a tide line' },
};

/** What a painter can wish for. */
export const WISH_WORDS: Readonly<Record<WishKey, { name: string; meaning: string }>> = {
  spacing: { name: 'Crack spacing', meaning: 'how far apart the cracks run' },
  opening: { name: 'Crack opening', meaning: 'how wide they stand' },
  chips: { name: 'Comes off', meaning: 'share that flakes, wax, jelly or salt let go' },
  worn: { name: 'Worn through', meaning: 'share that is rubbed, wiped or cut through' },
  under: { name: 'Under colours show', meaning: 'share on which the last colour is not seen' },
};

export const UNDER_MEANING = 'Share of it on which something else than the last colour is seen.';
