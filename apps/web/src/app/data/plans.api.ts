import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable, signal } from '@angular/core';
import {
  API,
  type BinnedPlan,
  ERRORS,
  type Fault,
  fault,
  filePlan,
  type Plan,
  type PlanSummary,
  type SavedPlan,
  type StaleAnswer,
  type StoredPlan,
  unfilePlan,
} from '@zaffet/contract';
import { isPassing } from './door';
import { catchError, map, type Observable, of, tap } from 'rxjs';
import { PlanCache } from './plan-cache';

const opened = (stored: StoredPlan): SavedPlan => ({ ...stored, plan: unfilePlan(stored.plan) });

/** The server's plans, typed by the contract. */
@Injectable({ providedIn: 'root' })
export class PlansApi {
  private readonly http = inject(HttpClient);
  private readonly cache = inject(PlanCache);
  /** The server was not reached when a list was asked for last: what is listed is what this device has. */
  readonly away = signal(false);
  /** Plans as they were fetched, so that a list fetches only those that changed. */
  private readonly fetched = new Map<string, SavedPlan>();

  list(): Observable<PlanSummary[]> {
    return this.http.get<PlanSummary[]>(API.plans).pipe(
      tap((list) => {
        this.away.set(false);
        void this.cache.keepOnly(list);
      }),
      catchError((error: unknown) => {
        if (!isAway(error)) throw error;
        this.away.set(true);
        return this.cache.list();
      }),
    );
  }
  /** A plan as the server has it; while that is away, as this device saw it last. */
  read(id: string): Observable<SavedPlan> {
    return this.http.get<StoredPlan>(API.plan(id)).pipe(
      tap((stored) => void this.cache.keep(stored)),
      catchError(async (error: unknown) => {
        const cached = isAway(error) ? await this.cache.read(id) : null;
        if (cached === null) throw error;
        return cached;
      }),
      map(opened),
    );
  }
  /** A plan of a list, fetched once for each save. */
  readListed({ id, saveId }: PlanSummary): Observable<SavedPlan> {
    const known = this.fetched.get(id);
    if (known?.saveId === saveId) return of(known);
    return this.read(id).pipe(tap((saved) => this.fetched.set(id, saved)));
  }
  create(plan: Plan): Observable<SavedPlan> {
    return this.bringIn(filePlan(plan));
  }
  /** Makes a plan of what stands in a file, of whatever version. */
  bringIn(file: unknown): Observable<SavedPlan> {
    return this.http.post<StoredPlan>(API.plans, file).pipe(
      tap((stored) => void this.cache.keep(stored)),
      map(opened),
    );
  }
  save(id: string, saveId: string, plan: Plan): Observable<PlanSummary> {
    const filed = filePlan(plan);
    return this.http
      .put<PlanSummary>(API.plan(id), { saveId, plan: filed })
      .pipe(tap((summary) => void this.cache.keep({ ...summary, plan: filed })));
  }
  /** Deleted plans that can still be restored. */
  bin(): Observable<BinnedPlan[]> {
    return this.http.get<BinnedPlan[]>(API.bin);
  }
  remove(id: string): Observable<void> {
    return this.http.delete<void>(API.plan(id));
  }
  restore(id: string): Observable<PlanSummary> {
    return this.http.post<PlanSummary>(API.planRestore(id), null);
  }
}

/** The fault an answer carries, or a plain one when the server could not be reached. */
export function faultOf(error: unknown): Fault {
  const body: unknown = error instanceof HttpErrorResponse ? error.error : null;
  if (typeof body === 'object' && body !== null && 'code' in body && String(body.code) in ERRORS)
    return body as Fault;
  return {
    ...fault('server.failed'),
    message:
      'Zaffet cannot be reached. What you have on the screen is kept; it is saved when Zaffet answers again.',
  };
}

/** Whether no answer came at all. */
const isAway = (error: unknown): boolean => error instanceof HttpErrorResponse && error.status === 0;

/** Whether the server will answer the same to the same each time. */
export function isFinal(error: unknown): boolean {
  return (
    error instanceof HttpErrorResponse &&
    error.status >= 400 &&
    error.status < 500 &&
    !isPassing(error.status)
  );
}

/** What stands on the server, when a save was refused as stale. */
export function currentOf(error: unknown): SavedPlan | null {
  if (!(error instanceof HttpErrorResponse) || error.status !== ERRORS['plan.stale'].status) return null;
  const current = (error.error as StaleAnswer | null)?.current;
  return current === undefined ? null : opened(current);
}
