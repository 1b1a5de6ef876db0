import { type Plan } from './plan/types';
import { type PlanFile } from './plan/file';
import { type RestoreWay } from './backup/types';
import { type Fault } from './errors';
import { type LogQuery } from './log/types';
import { type Notation } from './notation';

const inQuery = ({ units, clock }: Notation): string => `units=${units}&clock=${clock}`;

/** Paths of the API; `:id` is a plan's id. */
export const API = {
  health: '/api/health',
  plans: '/api/plans',
  plan: (id: string): string => `/api/plans/${encodeURIComponent(id)}`,
  planFile: (id: string): string => `/api/plans/${encodeURIComponent(id)}/file`,
  jobSheet: (id: string, zone: string, notation: Notation): string =>
    `/api/plans/${encodeURIComponent(id)}/sheet?zone=${encodeURIComponent(zone)}&${inQuery(notation)}`,
  /** The sheet of a sample board as a PDF, or one page of it as SVG. */
  boardSheet: (id: string, notation: Notation, page?: string): string =>
    `/api/plans/${encodeURIComponent(id)}/board-sheet?${inQuery(notation)}${page === undefined ? '' : `&page=${encodeURIComponent(page)}`}`,
  /** A step's map on a part at its own size, to trace from: all tiles as a PDF, or one as SVG. */
  trace: (id: string, partId: string, stepId: string, tile?: string): string =>
    `/api/plans/${encodeURIComponent(id)}/map/${encodeURIComponent(partId)}/${encodeURIComponent(stepId)}${tile === undefined ? '' : `?tile=${encodeURIComponent(tile)}`}`,
  /** How many sheets are being made, and how long the next would take. */
  sheets: '/api/sheets',
  shelf: '/api/shelf',
  shelfCsv: '/api/shelf/list.csv',
  shelfItem: (id: string): string => `/api/shelf/items/${encodeURIComponent(id)}`,
  measures: '/api/shelf/measures',
  shop: '/api/shop',
  air: '/api/air',
  /** Every reading as it comes in; with the stand-in for an instrument where that is asked for. */
  airStream: (simulated: boolean): string => `/api/air/stream${simulated ? '?simulated=yes' : ''}`,
  calibrations: '/api/calibrations',
  /** What the workshop's clock says. */
  clock: '/api/clock',
  runs: '/api/runs',
  runEvents: (id: string): string => `/api/runs/${encodeURIComponent(id)}/events`,
  /** How many events a run has, each time there are more. */
  runStream: (id: string): string => `/api/runs/${encodeURIComponent(id)}/stream`,
  log: '/api/log',
  logFind: (query: LogQuery): string =>
    `/api/log?${new URLSearchParams(Object.entries(query).map(([key, value]): [string, string] => [key, String(value)])).toString()}`,
  logCsv: '/api/log/list.csv',
  photos: '/api/photos',
  /** Photographs that were taken back everywhere, and that nothing shows any more. */
  photosUnshown: '/api/photos/unshown',
  /** A photograph as it came out of the camera, by the hash of its bytes; and no larger than a screen. */
  photo: (hash: string): string => `/api/photos/${encodeURIComponent(hash)}`,
  photoScreen: (hash: string): string => `/api/photos/${encodeURIComponent(hash)}/screen`,
  backup: '/api/backup',
  /** Backups that are kept beside the data, and one of them. */
  backups: '/api/backups',
  keptBackup: (name: string): string => `/api/backups/${encodeURIComponent(name)}`,
  /** Brings a backup in, or only looks what it would change. */
  restore: (way: RestoreWay, look: boolean): string => `/api/restore?way=${way}${look ? '&look=yes' : ''}`,
  /** Whether a device is signed in; signs it in, and out. */
  session: '/api/session',
  sessions: '/api/sessions',
  oneSession: (id: string): string => `/api/sessions/${encodeURIComponent(id)}`,
  invitations: '/api/invitations',
  bin: '/api/bin',
  planRestore: (id: string): string => `/api/plans/${encodeURIComponent(id)}/restore`,
} as const;

/** How it stands with sheets to print: one is made at a time. */
export interface SheetQueue {
  /** How many come before the next. */
  readonly before: number;
  /** Until the next would be there, by those made lately [s]; null where none was. */
  readonly seconds: number | null;
  /** How much of the one that is being made is done, 0 to 1; null where none is made. */
  readonly share: number | null;
  /** Why no more are taken just now; null where they are. */
  readonly refused: Fault | null;
}

/** A stored plan without its content. */
export interface PlanSummary {
  readonly id: string;
  readonly name: string;
  /** Counts saves, for people. */
  readonly revision: number;
  /** New at every save, also after a restore: names what a browser knows, and what its next save starts from. */
  readonly saveId: string;
  readonly savedAt: string;
}

/** Days that a deleted plan stays in the bin. */
export const BIN_DAYS = 30;

/** A deleted plan that can still be restored. */
export interface BinnedPlan extends PlanSummary {
  readonly removedAt: string;
}

/** A plan as the server holds and sends it. */
export interface StoredPlan extends PlanSummary {
  readonly plan: PlanFile;
}

/** A plan as it is worked with: its maps unpacked. */
export interface SavedPlan extends PlanSummary {
  readonly plan: Plan;
}

/** A save names the save it started from; a stale one is refused with what stands there now. */
export interface SaveRequest {
  readonly saveId: string;
  readonly plan: PlanFile;
}

/** What a stale save is refused with, beside the fault: the plan as it stands now. */
export interface StaleAnswer extends Fault {
  readonly current: StoredPlan;
}
