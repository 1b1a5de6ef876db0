import { type Fate, type PhotoTime, type Verdict } from '../runs/types';

/** A colour of an entry, as the painter named it. */
export interface LogColour {
  readonly name: string;
  /** sRGB, `#rrggbb`. */
  readonly hex: string;
}

/** What the log tells of a run at a glance; null where nobody said or measured. */
export interface LogEntry {
  readonly runId: string;
  readonly name: string;
  readonly piece: string;
  readonly parts: readonly string[];
  /** ISO 8601. */
  readonly begunAt: string;
  readonly finishedAt: string | null;
  /** Told after it was done, without the bench. */
  readonly afterwards: boolean;
  /** Keys of the ways of working its finishes are most like, and of what they are made with. */
  readonly schools: readonly string[];
  readonly media: readonly string[];
  readonly colours: readonly LogColour[];
  /** As measured, the mean over its parts. */
  readonly spacingMm: number | null;
  readonly openingMm: number | null;
  readonly chipped: number | null;
  readonly worn: number | null;
  /** The last that was told. */
  readonly verdict: Verdict | null;
  /** What to do otherwise next time. */
  readonly next: string;
  readonly forWhom: string;
  readonly fate: Fate | null;
  readonly price: number | null;
  readonly cost: number | null;
  readonly hours: number | null;
  /** Mean of the air while it was made. */
  readonly temperatureC: number | null;
  readonly humidity: number | null;
  /** Hashes of its photographs with what they show it as, oldest first. */
  readonly photos: readonly { readonly hash: string; readonly when: PhotoTime }[];
}

/** What is looked for; what is not told is free. */
export interface LogQuery {
  readonly words?: string;
  /** Something like this colour, `#rrggbb`, nearer than so much [CIEDE2000]. */
  readonly colour?: string;
  readonly within?: number;
  readonly school?: string;
  readonly medium?: string;
  readonly verdict?: Verdict;
  /** Days, `2026-05-14`: finished, or else begun. */
  readonly from?: string;
  readonly until?: string;
  readonly spacingFromMm?: number;
  readonly spacingToMm?: number;
  readonly chippedFrom?: number;
  readonly chippedTo?: number;
  readonly humidityFrom?: number;
  readonly humidityTo?: number;
  readonly skip?: number;
}

/** An entry that was found. */
export interface LogFound extends LogEntry {
  /** Where the words were found, in words of the entry; empty where none were looked for. */
  readonly where: string;
  /** How far its nearest colour is off the one that was looked for [CIEDE2000]; null where none was. */
  readonly off: number | null;
}

export interface LogAnswer {
  readonly found: readonly LogFound[];
  /** How many there are, of which `found` begins with the one after `skip`. */
  readonly count: number;
  /** Runs that were not looked through yet: the log is still reading them. */
  readonly behind: number;
}

/** So many entries are told at once. */
export const LOG_PAGE = 60;
/** Photographs that are taken [bytes], and how large one for a screen may be [bytes, px]. */
export const PHOTO_BYTES = 25e6;
export const SCREEN_BYTES = 3e6;
export const SCREEN_SIDE = 1600;

/** Colours further off than this nobody would call alike [CIEDE2000]; about where two are plainly two. */
export const ALIKE_WITHIN = 12;

/** How many photographs, and the room they take. */
export interface PhotosRoom {
  readonly count: number;
  readonly bytes: number;
}

/** What photographs take. */
export interface PhotosKept extends PhotosRoom {
  /** No more is taken. */
  readonly most: number;
}
