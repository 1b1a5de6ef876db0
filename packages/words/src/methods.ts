import { type School } from '@zaffet/workshop';

/** What each way of working is, in a sentence a painter would say. */
export const METHOD_WORDS: Readonly<Record<School, string>> = {
  'dried-medium': 'Base, crackle medium dry to the touch, a contrasting coat brushed on once and left.',
  'wet-glue': 'Paint into white glue while it is wet or grabs; long strokes, then hands off.',
  'hide-glue': 'Glue cured overnight, then a coat that cracks within seconds into a fine web.',
  fissures: 'Medium under a clear coat; dark wax brings out hairlines as in old varnish.',
  'warm-air': 'Thick paint, left to thicken, cracked in places with a gentle hairdryer; waxes over it.',
  'chippy-milk': 'Milk paint on a sealer that still grabs: it chips as it dries, and wet work takes more.',
  'forced-chips': 'Milk paint that will not chip by itself: wetted again, hot air kept moving, fine paper.',
  'lacquer-layers': 'Colours between two lacquers; milk paint on the tacky one lifts in patches.',
  'brittle-ground': 'Three coats of chalk ground crack and flake off in jagged pieces under milk paint.',
  'wax-resist': 'Wax rubbed on a layer; scraping goes down to exactly that layer.',
  'jelly-resist': 'Petroleum jelly where the colour below shall show; soupy paint over it, wiped next day.',
  'salt-resist': 'Coarse salt in wet paint, scraped off the next day, leaves craters down to the base.',
  'thick-base': 'A thickened base in patches, later coats cut back with a blade after two hours.',
  softened: 'Household bleach softens dry paint; scraped and smeared back, colour by colour.',
  'wet-distress': 'Chalk or clay paint wiped back with a damp cloth while it still dissolves.',
  'dry-brushed': 'Colour over colour with a nearly dry brush; none covers, all show.',
  barrier: 'Water-based coats over an oil enamel: sanding stops at the enamel.',
};
