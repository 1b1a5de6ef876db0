import { type HazardCode } from '@zaffet/core/hazard';

/** A hazard in words: what it is, and the usual cautions. Zaffet never calls something safe. */
export interface HazardWords {
  readonly title: string;
  readonly cautions: readonly string[];
}

/** What stands under every list of cautions. */
export const HAZARD_DEFERENCE =
  "These are the usual cautions. The product's label and safety sheet, local codes and licensed practice come first.";

const HAZARD_WORDS: Readonly<Record<HazardCode, HazardWords>> = {
  'old-paint': {
    title: 'Old paint may hold lead',
    cautions: [
      'Test before you sand, scrape or heat it.',
      'Until you know: no dry sanding, no heat gun.',
      'Local rules and licensed people decide how it is taken off.',
    ],
  },
  dust: {
    title: 'Sanding dust',
    cautions: [
      'Wear a mask rated for fine dust.',
      'Vacuum with a fine filter rather than sweep.',
      'Sand wet where you can.',
    ],
  },
  silica: {
    title: 'Mineral powders',
    cautions: ['Wear a mask while you pour and stir dry powder.', 'Wipe up damp.'],
  },
  'hot-air': {
    title: 'Hot air',
    cautions: [
      'Keep it moving; it burns skin and paint, and lights dust and rags.',
      'Set it down on its stand, away from anything that burns.',
      'Have water at hand; look again half an hour later.',
    ],
  },
  'heat-and-solvent': {
    title: 'Heat and solvent',
    cautions: [
      "No hot air over lacquer, shellac, spray or oil before the label's full dry time.",
      'Solvent trapped under paint cannot be computed; a water-based sealer avoids it.',
    ],
  },
  'spray-mist': {
    title: 'Spray mist',
    cautions: [
      'Outdoors or with strong ventilation, no flame or spark near.',
      'Wear the respirator the can names, goggles and gloves.',
    ],
  },
  'flammable-vapour': {
    title: 'Flammable vapour',
    cautions: ['Ventilate; no flame, spark or heater near.', 'Close tins at once; wear gloves.'],
  },
  'oily-rags': {
    title: 'Oily rags heat themselves',
    cautions: [
      'Lay them flat outdoors to dry, or keep them in water in a closed metal can.',
      'Never crumple them into a bin.',
    ],
  },
  bleach: {
    title: 'Bleach',
    cautions: [
      'Gloves and goggles; open windows; never a bristle brush.',
      'Only on the face that lies up. Rinse and let dry before anything else goes on.',
      'Keep children and pets away.',
    ],
  },
  'bleach-mixing': {
    title: 'Bleach must never meet other cleaners',
    cautions: [
      'Never with acids, ammonia, alcohol or other cleaners: it gives off poisonous gas.',
      'Never a toilet cleaner in its place; many are acidic.',
      'None after alcohol, ammonia or acid without rinsing and drying; no hot air on it.',
    ],
  },
  blade: {
    title: 'Blades',
    cautions: ['Cut away from the body and the holding hand.', 'Change the blade before it needs force.'],
  },
  splinters: { title: 'Splinters', cautions: ['Sand raw edges first; wear gloves until then.'] },
  'casein-keeping': {
    title: 'Mixed casein and ground',
    cautions: ['In a refrigerator closed, labelled and away from food.', 'Smells or shows mould: discard.'],
  },
  cups: {
    title: 'Cups and buckets',
    cautions: ['Keep water and tints out of drinking cups; cover buckets from pets and children.'],
  },
  'food-and-children': {
    title: 'Food and children',
    cautions: [
      "The finish maker's certificate decides what may touch food or be mouthed.",
      'Wait the full cure the label gives.',
    ],
  },
  mould: {
    title: 'Damp and mould',
    cautions: ['Clean mould off first, with mask and gloves; varnish does not cure it.', 'Dry the cause.'],
  },
  'mdf-dust': {
    title: 'MDF dust',
    cautions: ['Finer than wood dust: mask and vacuum.', 'It swells where it is soaked: little water.'],
  },
  lifting: {
    title: 'Heavy piece',
    cautions: ['Two people to turn it; take drawers and loose parts out first.'],
  },
};

export const hazardWords = (code: HazardCode): HazardWords => HAZARD_WORDS[code];
