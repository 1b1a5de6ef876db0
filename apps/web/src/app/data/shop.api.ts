import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { API, type Shop } from '@zaffet/contract';
import { type Observable } from 'rxjs';

/** The shop itself: what new plans begin with. */
@Injectable({ providedIn: 'root' })
export class ShopApi {
  private readonly http = inject(HttpClient);

  read(): Observable<Shop> {
    return this.http.get<Shop>(API.shop);
  }
  keep(shop: Shop): Observable<Shop> {
    return this.http.put<Shop>(API.shop, shop);
  }
}
