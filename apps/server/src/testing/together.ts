import {
  API,
  type EventsAnswer,
  filePlan,
  type KeptEvent,
  type LogPage,
  type PlanSummary,
  type RunAnswer,
  type StaleAnswer,
  type StoredPlan,
} from '@zaffet/contract';
import { createHash, randomFillSync } from 'node:crypto';
import { type Launched, launch, planNamed, send } from './index';
import { type TestPostgres } from './postgres';

/** What came of two Zaffets on one database. */
export interface Together {
  readonly saves: number;
  readonly stale: number;
  readonly events: number;
  readonly photos: number;
  readonly searches: number;
  /** Requests that were answered with a fault of the server's, while the database was away. */
  readonly away: number;
  readonly wrong: string[];
}

const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const JPEG_HEAD = Buffer.from('ffd8ffe000104a46494600010100000100010000ffc0000b080300040001011100', 'hex');
