import { type Fault, type Shelf, type ShelfItem } from '@zaffet/contract';
import { createFeature, createReducer, createSelector, on } from '@ngrx/store';
import { type ShelfChange } from '../data/shelf-outbox';
import { ShelfEditor, ShelfServer } from './shelf.actions';

export interface ShelfState {
  readonly shelf: Shelf | null;
  readonly save: 'saved' | 'waiting' | 'failed';
  /** Whether this browser keeps what is not saved. */
  readonly kept: boolean;
  /** What the last fetch or save failed with; null while all is well. */
  readonly fault: Fault | null;
}

const initial: ShelfState = { shelf: null, save: 'saved', kept: true, fault: null };

function applied(shelf: Shelf, change: ShelfChange): Shelf {
  if ('measures' in change) return { ...shelf, measures: change.measures };
  if ('take' in change) return { ...shelf, items: shelf.items.filter(({ id }) => id !== change.take) };
  const thing = 'put' in change ? change.put : change.item;
  const known = shelf.items.some(({ id }) => id === thing.id);
  return {
    ...shelf,
    items: known
      ? shelf.items.map((item) => {
          if (item.id !== thing.id) return item;
          return 'put' in change ? thing : ({ ...item, ...change.changes } as ShelfItem);
        })
      : [...shelf.items, thing],
  };
}

function changed(state: ShelfState, change: ShelfChange): ShelfState {
  if (state.shelf === null) return state;
  return { ...state, shelf: applied(state.shelf, change), save: 'waiting' };
}

export const shelfFeature = createFeature({
  name: 'shelf',
  reducer: createReducer(
    initial,
    on(ShelfServer.loaded, (state, { shelf, unsaved }): ShelfState => ({
      ...state,
      // What was typed and not saved yet stands over what the server has.
      shelf: unsaved.reduce(applied, shelf),
      save: unsaved.length === 0 ? 'saved' : 'waiting',
      fault: null,
    })),
    on(ShelfServer.loadFailed, (state, { fault }): ShelfState => ({ ...state, fault })),
    on(ShelfServer.saveFailed, (state, { fault, kept }): ShelfState => ({
      ...state,
      fault,
      kept,
      save: 'failed',
    })),
    on(ShelfServer.saved, (state, { stands, left }): ShelfState => ({
      ...state,
      shelf: state.shelf === null || stands === null ? state.shelf : applied(state.shelf, { put: stands }),
      fault: null,
      save: left === 0 ? 'saved' : 'waiting',
    })),
    on(ShelfServer.retryAsked, (state): ShelfState => ({ ...state, fault: null })),
    on(ShelfEditor.itemPut, (state, { item }) => changed(state, { put: item })),
    on(ShelfEditor.itemChanged, (state, { id, changes }) => {
      const item = state.shelf?.items.find((known) => known.id === id);
      return item === undefined ? state : changed(state, { put: { ...item, ...changes } as ShelfItem });
    }),
    on(ShelfEditor.itemTaken, (state, { id }) => changed(state, { take: id })),
    on(ShelfEditor.measuresSet, (state, { measures }) => changed(state, { measures })),
  ),
  extraSelectors: ({ selectShelfState }) => ({
    selectSaveText: createSelector(selectShelfState, ({ shelf, save, kept }) => {
      if (shelf === null) return '';
      if (save !== 'failed') return save === 'saved' ? 'saved' : 'saving …';
      return kept ? 'not saved yet, kept in this browser' : 'not saved yet: do not close this window';
    }),
  }),
});
