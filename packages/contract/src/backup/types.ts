import { type PlanFile } from '../plan/file';
import { type KeptEvent } from '../runs/types';
import { type ShelfItem } from '../shelf/types';
import { type CalibrationFile } from '../calibration/types';

/*
 * A backup is a zip file (PKWARE APPNOTE 6.3) of JSON, CSV and photographs, laid out as docs/formats.md says. It holds
 * everything a shop has told Zaffet; two of the same shop are the same bytes.
 */

export const BACKUP_FORMAT = 'zaffet-backup';
export const BACKUP_VERSION = 2;

/** What a backup is of. */
export const BACKUP_KINDS = ['plans', 'runs', 'photos', 'shelf', 'calibrations', 'settings', 'air'] as const;
export type BackupKind = (typeof BACKUP_KINDS)[number];

/** `zaffet.json`: the last entry since version 2, since what is written is counted. */
export interface BackupHead {
  readonly format: typeof BACKUP_FORMAT;
  readonly version: number;
  readonly counts: Readonly<Record<BackupKind, number>>;
}

/** `plans/ID.json` */
export interface BackupPlan {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly savedAt: string;
  /** Null while it was not removed. */
  readonly removedAt: string | null;
  readonly plan: PlanFile;
}

/** `runs/ID.json` */
export interface BackupRun {
  readonly id: string;
  readonly planId: string | null;
  readonly name: string;
  readonly begunAt: string;
  readonly events: readonly KeptEvent[];
}

/** Of `shelf.json` */
export interface BackupItem {
  readonly putAt: string;
  readonly item: ShelfItem;
}

/** Of `calibrations.json` */
export interface BackupCalibration {
  readonly at: string;
  readonly file: CalibrationFile;
}

/** A backup that is kept beside the data. */
export interface KeptBackup {
  readonly name: string;
  readonly bytes: number;
}

/** What is done with what stands here otherwise than in the backup. */
export const RESTORE_WAYS = ['mine', 'theirs', 'both'] as const;
export type RestoreWay = (typeof RESTORE_WAYS)[number];

/** How one kind of things in a backup compares with what is here. */
export interface RestoreCount {
  /** Not here; here just so; here otherwise. */
  readonly fresh: number;
  readonly same: number;
  readonly other: number;
  /** Names of those that are here otherwise, as many as may be told. */
  readonly others: readonly string[];
}

export interface RestoreReport {
  readonly kinds: Readonly<Record<BackupKind, RestoreCount>>;
  /** What in it cannot be read, by its name in the zip: left out, the rest is brought in. */
  readonly unreadable: readonly string[];
  /** True once it was brought in; false while it was only looked at. */
  readonly done: boolean;
}
