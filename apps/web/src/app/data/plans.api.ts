import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  API,
  ERRORS,
  type Fault,
  fault,
  type Plan,
  type PlanSummary,
  type SavedPlan,
  type StaleAnswer,
} from '@zaffet/contract';
import { type Observable } from 'rxjs';

/** The server's plans, typed by the contract. */
@Injectable({ providedIn: 'root' })
export class PlansApi {
  private readonly http = inject(HttpClient);

  list(): Observable<SavedPlan[]> {
    return this.http.get<SavedPlan[]>(API.plans);
  }
  read(id: string): Observable<SavedPlan> {
    return this.http.get<SavedPlan>(API.plan(id));
  }
  create(plan: unknown): Observable<SavedPlan> {
    return this.http.post<SavedPlan>(API.plans, plan);
  }
  save(id: string, revision: number, plan: Plan): Observable<PlanSummary> {
    return this.http.put<PlanSummary>(API.plan(id), { revision, plan });
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

/** What stands on the server, when a save was refused as stale. */
export function currentOf(error: unknown): SavedPlan | null {
  if (!(error instanceof HttpErrorResponse) || error.status !== ERRORS['plan.stale'].status) return null;
  return (error.error as StaleAnswer | null)?.current ?? null;
}
