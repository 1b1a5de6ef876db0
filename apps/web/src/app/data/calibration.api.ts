import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  API,
  type CalibrationFile,
  type KeptCalibration,
  type RunAnswer,
  type RunEvent,
  type RunSummary,
} from '@zaffet/contract';
import { firstValueFrom, type Observable } from 'rxjs';

/** What the shop has learned, and the runs it learns from. */
@Injectable({ providedIn: 'root' })
export class CalibrationApi {
  private readonly http = inject(HttpClient);

  /** The newest first. */
  read(): Observable<KeptCalibration[]> {
    return this.http.get<KeptCalibration[]>(API.calibrations);
  }
  keep(file: CalibrationFile): Observable<KeptCalibration> {
    return this.http.post<KeptCalibration>(API.calibrations, file);
  }
  runs(): Promise<RunSummary[]> {
    return firstValueFrom(this.http.get<RunSummary[]>(API.runs));
  }
  /** All that was told of a run. */
  async eventsOf(runId: string): Promise<RunEvent[]> {
    const events: RunEvent[] = [];
    for (let after = 0; ;) {
      const answer = await firstValueFrom(this.http.get<RunAnswer>(`${API.runEvents(runId)}?after=${after}`));
      events.push(...answer.events.map(({ event }) => event));
      after = answer.events.at(-1)?.seq ?? answer.upTo;
      if (answer.events.length === 0 || after >= answer.upTo) return events;
    }
  }
}
