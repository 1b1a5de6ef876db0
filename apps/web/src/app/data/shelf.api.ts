import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { API, type ItemChanges, type MeasuresFile, type Shelf, type ShelfItem } from '@zaffet/contract';
import { type Observable } from 'rxjs';

/** The shop's shelf, typed by the contract. */
@Injectable({ providedIn: 'root' })
export class ShelfApi {
  private readonly http = inject(HttpClient);

  read(): Observable<Shelf> {
    return this.http.get<Shelf>(API.shelf);
  }
  put(item: ShelfItem): Observable<ShelfItem> {
    return this.http.put<ShelfItem>(API.shelfItem(item.id), item);
  }
  change(id: string, changes: ItemChanges): Observable<ShelfItem> {
    return this.http.patch<ShelfItem>(API.shelfItem(id), changes);
  }
  take(id: string): Observable<void> {
    return this.http.delete<void>(API.shelfItem(id));
  }
  measure(measures: MeasuresFile): Observable<MeasuresFile> {
    return this.http.put<MeasuresFile>(API.measures, measures);
  }
}
