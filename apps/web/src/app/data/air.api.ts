import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { API, type KeptReading, type ReadingsAnswer } from '@zaffet/contract';
import { type AirPoint, pointOf } from '@zaffet/workshop';
import { map, Observable } from 'rxjs';

/** The air as instruments read it. */
@Injectable({ providedIn: 'root' })
export class AirApi {
  private readonly http = inject(HttpClient);

  /** What was read from one instant until another [ms since 1970], by the hour. */
  between(from: number, until: number): Observable<AirPoint[]> {
    const params = { from: new Date(from).toISOString(), until: new Date(until).toISOString() };
    return this.http
      .get<ReadingsAnswer>(API.air, { params })
      .pipe(map(({ readings }) => readings.map(pointOf)));
  }

  /** Every reading as it comes in, for as long as somebody listens; the browser calls again where the line breaks. */
  readings(simulated: boolean): Observable<KeptReading> {
    return new Observable((listener) => {
      const source = new EventSource(API.airStream(simulated));
      source.onmessage = ({ data }: MessageEvent<string>): void =>
        listener.next(JSON.parse(data) as KeptReading);
      return () => source.close();
    });
  }
}
