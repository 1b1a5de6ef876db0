import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { API, fault, type ShelfItem, USUAL_MEASURES } from '@zaffet/contract';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { OUTBOX_PAUSES } from '../data/outbox';
import { nextRequest, rest, until } from '../testing/requests';
import { ShelfEditor, ShelfServer } from './shelf.actions';
import * as effects from './shelf.effects';
import { shelfFeature } from './shelf.feature';

const paper: ShelfItem = { id: 'p', kind: 'abrasive', name: 'Paper', grit: 220, sheets: 4 };

describe('saving the shelf', () => {
  let store: Store;
  let http: HttpTestingController;

  beforeEach(async () => {
    localStorage.clear();
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideStore({ [shelfFeature.name]: shelfFeature.reducer }),
        provideEffects(effects),
        { provide: OUTBOX_PAUSES, useValue: { send: 100, keep: 20, retry: 200 } },
      ],
    });
    store = TestBed.inject(Store);
    http = TestBed.inject(HttpTestingController);
    store.dispatch(ShelfServer.shelfAsked());
    (await nextRequest(http, 'GET', API.shelf)).flush({ items: [], measures: USUAL_MEASURES });
  });
  afterEach(() => {
    http.verify();
    localStorage.clear();
  });
  const text = (): string => store.selectSignal(shelfFeature.selectSaveText)();

  it('sends one change after the other, each once', async () => {
    store.dispatch(ShelfEditor.itemPut({ item: paper }));
    store.dispatch(ShelfEditor.itemPut({ item: { ...paper, sheets: 5 } }));
    store.dispatch(ShelfEditor.measuresSet({ measures: { ...USUAL_MEASURES, dishMl: 90 } }));
    const first = await nextRequest(http, 'PUT', API.shelfItem('p'));
    expect(first.request.body).toEqual({ ...paper, sheets: 5 });
    first.flush(first.request.body as object);
    (await nextRequest(http, 'PUT', API.measures)).flush({ ...USUAL_MEASURES, dishMl: 90 });
    await until(() => text() === 'saved');
    expect(text()).toBe('saved');
  });

  it('sends what failed again, without another edit, and keeps it in the browser meanwhile', async () => {
    const kept = (): string | undefined =>
      Object.entries(localStorage).find(([name]) => name.includes('shelf p'))?.[1] as string | undefined;
    store.dispatch(ShelfEditor.itemPut({ item: paper }));
    (await nextRequest(http, 'PUT', API.shelfItem('p'))).error(new ProgressEvent('offline'));
    await until(() => text() === 'not saved yet, kept in this browser');
    expect(text()).toBe('not saved yet, kept in this browser');
    expect(kept()).toContain('"sheets":4');
    store.dispatch(ShelfServer.retryAsked());
    (await nextRequest(http, 'PUT', API.shelfItem('p'))).flush(paper);
    await until(() => text() === 'saved');
    expect(text()).toBe('saved');
    expect(kept()).toBeUndefined();
  });

  it('does not send again what the server will never take, until it is changed', async () => {
    store.dispatch(ShelfEditor.itemPut({ item: paper }));
    (await nextRequest(http, 'PUT', API.shelfItem('p'))).flush(fault('shelf.full'), {
      status: 409,
      statusText: 'Conflict',
    });
    await rest(350);
    expect(store.selectSignal(shelfFeature.selectFault)()!.code).toBe('shelf.full');
    store.dispatch(ShelfEditor.itemTaken({ id: 'p' }));
    const taken = await nextRequest(http, 'DELETE', API.shelfItem('p'));
    expect(taken.request.method).toBe('DELETE');
    taken.flush(null);
    await until(() => text() === 'saved');
    expect(text()).toBe('saved');
  });

  it('sends the fields that changed alone, shows what another window changed, and brings back what it took', async () => {
    store.dispatch(ShelfEditor.itemPut({ item: paper }));
    (await nextRequest(http, 'PUT', API.shelfItem('p'))).flush(paper);
    await rest(5);
    store.dispatch(ShelfEditor.itemChanged({ id: 'p', changes: { sheets: 2 } }));
    const change = await nextRequest(http, 'PATCH', API.shelfItem('p'));
    expect([change.request.method, change.request.body]).toEqual(['PATCH', { sheets: 2 }]);
    change.flush({ ...paper, sheets: 2, name: 'Theirs' });
    await rest(5);
    expect(store.selectSignal(shelfFeature.selectShelf)()!.items[0]!.name).toBe('Theirs');

    store.dispatch(ShelfEditor.itemChanged({ id: 'p', changes: { sheets: 1 } }));
    (await nextRequest(http, 'PATCH', API.shelfItem('p'))).flush(fault('shelf.not-found'), {
      status: 404,
      statusText: 'Not Found',
    });
    const back = await nextRequest(http, 'PUT', API.shelfItem('p'));
    expect([back.request.method, back.request.body]).toEqual([
      'PUT',
      { ...paper, sheets: 1, name: 'Theirs' },
    ]);
    back.flush(back.request.body as object);
    await rest(5);
  });
});
