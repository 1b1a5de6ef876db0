/** More brush passes than this over one place spoil a crackle; common practice. */
export const MAX_PASSES = 3;
/** Below these a crackle reads as weak, or as missing. */
export const WEAK = 0.45;
export const MISSING = 0.12;
/** Relative humidity from which everything dries slower and weaker; common practice. */
export const DAMP = 0.8;
/** Below this air temperature water-borne films do not form well [K]; common practice. */
export const COLD = 283.15;
/** A top coat thinner than this when dry gives hairlines at best [m]; common practice. */
export const THIN_TOP = 12e-6;
/** A natural finish keeps dark wax to this share; common practice. */
export const DARK_WAX_SHARE = 0.15;
/** Under this bond to the base, paint peels where it is handled. */
export const POOR_BASE = 0.35;
/** Bare board showing on more of the panel than this is seen at once. */
export const BARE_SEEN = 0.004;
/** Bare board is told of from so much more than the look asks for; common practice. */
export const MORE_THAN_WANTED = 1.5;
/** Contrast under which nobody sees one layer in another; common practice. */
export const INVISIBLE = 3;
/** Spray enamel takes its next coat within an hour, or after a day; common practice [s]. */
export const SPRAY_SOON = 3600;
export const SPRAY_LATE = 86400;
/** Fresh oil takes water-borne paint badly until about then [s]; common practice. */
export const FRESH_OIL = 3 * 86400;
/** How long a label's full dry time may be; heat stays locked that long over solvent films [s]. */
export const SOLVENT_LOCK = 7 * 86400;
/** Changing brush and pot takes so long [s]; common practice. */
export const TOOL_CHANGE = 30;
/** Most panels are taken as large that stand taller than this [m]. */
export const TALL = 0.3;
/** Wet film boils and paint softens from here, and scorches from there [K]; common practice. */
export const BLISTERS = 368.15;
export const SCORCHES = 423.15;
/** Effort from which a blade goes hard. */
export const HARD = 0.85;
/** A wax is buffed before so many times what it takes to be ready; common practice. */
export const BUFFED_BY = 4;
