import { type LearnedFile } from '../calibration/types';
import { type LiveState } from '@zaffet/core/live';
import { type PlanFile } from '../plan/file';
import { type PlanStep } from '../plan/steps.types';

/*
 * A run: a plan carried out at the bench. It is a list of events that only grows; what stands now is folded from them.
 * Nothing is overwritten: what was wrong is taken back by another event.
 */

/** How much of a place something is so in. */
export const SEEN_PLACES = ['none', 'some', 'most'] as const;
export type SeenPlaces = (typeof SEEN_PLACES)[number];
/** How a mix runs off the brush, against what was meant. */
export const MIX_BODIES = ['thinner', 'as-meant', 'thicker'] as const;
export type MixBody = (typeof MIX_BODIES)[number];

/** When somebody judges how it came out. */
export const VERDICT_TIMES = ['at-once', 'after-a-day', 'after-use'] as const;
export type VerdictTime = (typeof VERDICT_TIMES)[number];
export const VERDICTS = ['good', 'middling', 'bad'] as const;
export type Verdict = (typeof VERDICTS)[number];

/** What a photograph shows a piece as. */
export const PHOTO_TIMES = ['before', 'wet', 'drying', 'dry', 'sealed', 'in-use'] as const;
export type PhotoTime = (typeof PHOTO_TIMES)[number];
/** Pictures that can be kept, as they came out of a camera. */
export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
export type PhotoType = (typeof PHOTO_TYPES)[number];

/** What became of a piece. */
export const FATES = ['kept', 'sold', 'given', 'stripped'] as const;
export type Fate = (typeof FATES)[number];

/** A step of a part; of a seal, one of its coats, from 0. */
interface OfStep {
  readonly partId: string;
  readonly stepId: string;
  readonly coat: number;
}
/** What is told some time after it happened. */
interface Told {
  /** So long before it was told [min]. */
  readonly minutesAgo: number;
}

/** What can happen at the bench, by its kind. */
export interface RunBodies {
  /** The first of every run: the plan as it was then, so that nothing else is needed. */
  readonly 'run-begun': {
    readonly planId: string | null;
    readonly plan: PlanFile;
    /** What the shop had learned by then; left out, or null, where it was nothing. */
    readonly learned?: LearnedFile | null;
  };
  readonly begun: OfStep & Told;
  readonly done: OfStep & Told;
  readonly skipped: OfStep & { readonly reason: string };
  /** A step that was not in the plan, after another one, or first of all where that is null. */
  readonly 'put-in': {
    readonly partId: string;
    readonly afterStepId: string | null;
    readonly step: PlanStep;
  };
  /** A look: past one state, or not yet in another, in no, some or most places; told as it happened, or found so. */
  readonly seen: OfStep &
    Told & {
      readonly after: LiveState | null;
      readonly before: LiveState | null;
      readonly now: boolean;
      readonly places: SeenPlaces;
    };
  /** Brush passes over the same place. */
  readonly passes: OfStep & { readonly count: number };
  /** A section of glue laid, or painted over; from 0. */
  readonly section: OfStep & Told & { readonly index: number; readonly painted: boolean };
  /** Wet film as it was weighed or gauged. */
  readonly film: OfStep & { readonly thicknessUm: number };
  readonly mix: OfStep & { readonly body: MixBody; readonly addedMl: number };
  readonly air: { readonly source: string; readonly temperatureC: number; readonly humidity: number };
  /** A caution at a step was read. */
  readonly caution: OfStep & { readonly code: string };
  /** Of a part, or of a step of it, or of all. */
  readonly note: { readonly partId: string | null; readonly stepId?: string | null; readonly text: string };
  /** A photograph, by the SHA-256 of its bytes: those go their own way. */
  readonly photo: {
    readonly partId: string | null;
    readonly stepId: string | null;
    readonly when: PhotoTime;
    readonly hash: string;
    readonly text: string;
    /** How wide what it shows is, so that two can be laid side by side at one scale; left out where nobody said. */
    readonly wideMm?: number | null;
  };
  /** What is said of the piece and not of a step; null where nobody said. */
  readonly details: {
    readonly forWhom: string;
    readonly fate: Fate | null;
    /** In the shop's currency. */
    readonly price: number | null;
    /** When it left the shop. */
    readonly leftOn: string | null;
    /** Of work with the hands. */
    readonly hours: number | null;
    /** Of paint and sandpaper, in the shop's currency. */
    readonly cost: number | null;
  };
  /** What came out on a part, as far as somebody measured it; null where nobody did. */
  readonly outcome: {
    readonly partId: string;
    readonly spacingMm: number | null;
    readonly openingMm: number | null;
    /** Shares of the part. */
    readonly chipped: number | null;
    readonly worn: number | null;
    /** Whether it cracked at all; left out, or null, where nobody said. */
    readonly cracked?: boolean | null;
    /**
     * Share of the part on which each colour is seen, by the step that put it on; `panel` is the bare surface. Left out
     * where nobody said.
     */
    readonly shares?: Readonly<Record<string, number>>;
  };
  /** What was taken off the shelf, as it comes out of its tin. */
  readonly used: { readonly itemId: string; readonly name: string; readonly amountMl: number };
  /** How it is liked, null where nobody said, and what to do otherwise next time. */
  readonly verdict: { readonly when: VerdictTime; readonly verdict: Verdict | null; readonly text: string };
  /** What was told by mistake, by the id of its event. */
  readonly 'taken-back': { readonly eventId: string };
  readonly paused: object;
  readonly resumed: object;
  readonly finished: object;
  readonly reopened: object;
}
export type RunEventKind = keyof RunBodies;

/** Where and when an event was made: on a device, whose events count from 1. */
export interface RunStamp {
  readonly id: string;
  readonly device: string;
  readonly n: number;
  /** By the device's clock, ISO 8601; and how far that is behind the server's, where it was known [ms]. */
  readonly at: string;
  readonly offsetMs: number;
}

export type RunEvent = {
  readonly [Kind in RunEventKind]: RunStamp & { readonly kind: Kind } & RunBodies[Kind];
}[RunEventKind];

/** An event as the server keeps it: counted within its run without a gap, in the order it became visible. */
export interface KeptEvent {
  readonly seq: number;
  readonly event: RunEvent;
}

/** Events on their way to the server. */
export interface EventsRequest {
  readonly events: readonly RunEvent[];
}

/** An event that cannot be kept: its id stands for another, or its device has told another by its number already. */
export interface Refused {
  readonly id: string;
  readonly message: string;
  readonly reason: 'id-taken' | 'number-taken';
}

/** What tells the time as well: the workshop's clock, ISO 8601. */
export interface ClockAnswer {
  readonly now: string;
}

/** What came of them: by their ids the counts they have now, and those that cannot be kept, with why. */
export interface EventsAnswer extends ClockAnswer {
  readonly taken: Readonly<Record<string, number>>;
  readonly refused: readonly Refused[];
}

/** The events of a run after some count. */
export interface RunAnswer extends ClockAnswer {
  readonly events: readonly KeptEvent[];
  readonly upTo: number;
}

/** A run in the list of them. */
export interface RunSummary {
  readonly id: string;
  readonly planId: string | null;
  readonly name: string;
  readonly begunAt: string;
  readonly upTo: number;
}
