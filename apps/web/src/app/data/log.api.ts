import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { API, type LogAnswer, type LogQuery, type PhotosKept, type PhotosRoom } from '@zaffet/contract';
import { type Observable } from 'rxjs';

/** The log: runs found by what was said and measured in them. */
@Injectable({ providedIn: 'root' })
export class LogApi {
  private readonly http = inject(HttpClient);

  find(query: LogQuery): Observable<LogAnswer> {
    return this.http.get<LogAnswer>(API.logFind(query));
  }
  photosKept(): Observable<PhotosKept> {
    return this.http.get<PhotosKept>(API.photos);
  }
  photosUnshown(): Observable<PhotosRoom> {
    return this.http.get<PhotosRoom>(API.photosUnshown);
  }
  /** For good. @returns the room they took */
  clearUnshown(): Observable<PhotosRoom> {
    return this.http.delete<PhotosRoom>(API.photosUnshown);
  }
}
