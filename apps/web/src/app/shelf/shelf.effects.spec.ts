import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { API, fault, type ShelfItem, USUAL_MEASURES } from '@zaffet/contract';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { ShelfEditor, ShelfServer } from './shelf.actions';
import * as effects from './shelf.effects';
import { shelfFeature } from './shelf.feature';

const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const PAUSE = 520;
const paper: ShelfItem = { id: 'p', kind: 'abrasive', name: 'Paper', grit: 220, sheets: 4 };

describe('saving the shelf', () => {
  let store: Store;
  let http: HttpTestingController;

  beforeEach(() => {
    localStorage.clear();
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideStore({ [shelfFeature.name]: shelfFeature.reducer }),
        provideEffects(effects),
      ],
    });
    store = TestBed.inject(Store);
    http = TestBed.inject(HttpTestingController);
    store.dispatch(ShelfServer.shelfAsked());
    http.expectOne(API.shelf).flush({ items: [], measures: USUAL_MEASURES });
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
    await rest(PAUSE);
    const first = http.expectOne(API.shelfItem('p'));
    expect(first.request.body).toEqual({ ...paper, sheets: 5 });
    first.flush(first.request.body as object);
    await rest(PAUSE);
    http.expectOne(API.measures).flush({ ...USUAL_MEASURES, dishMl: 90 });
    expect(text()).toBe('saved');
  });

  it('sends what failed again, without another edit, and keeps it in the browser meanwhile', async () => {
    store.dispatch(ShelfEditor.itemPut({ item: paper }));
    await rest(PAUSE);
    http.expectOne(API.shelfItem('p')).error(new ProgressEvent('offline'));
    expect(text()).toBe('not saved yet, kept in this browser');
    expect(localStorage.getItem('zaffet-shelf-draft')).toContain('"sheets":4');
    store.dispatch(ShelfServer.retryAsked());
    await rest(PAUSE);
    http.expectOne(API.shelfItem('p')).flush(paper);
    expect(text()).toBe('saved');
    expect(localStorage.getItem('zaffet-shelf-draft')).toBeNull();
  });

  it('does not send again what the server will never take', async () => {
    store.dispatch(ShelfEditor.itemPut({ item: paper }));
    await rest(PAUSE);
    http.expectOne(API.shelfItem('p')).flush(fault('shelf.full'), { status: 409, statusText: 'Conflict' });
    await rest(PAUSE);
    expect(store.selectSignal(shelfFeature.selectFault)()!.code).toBe('shelf.full');
  });
});
