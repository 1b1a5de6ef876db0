import { type Fault, type MeasuresFile, type Shelf, type ShelfItem } from '@zaffet/contract';
import { createFeature, createReducer, createSelector, on } from '@ngrx/store';
import { ShelfEditor, ShelfServer } from './shelf.actions';

/** A change of the shelf that the server has not got yet; of two of one key only the later is sent. */
export type Change =
  | { readonly key: string; readonly put: ShelfItem }
  | { readonly key: string; readonly take: string }
  | { readonly key: string; readonly measures: MeasuresFile };

export interface ShelfState {
  readonly shelf: Shelf | null;
  readonly unsaved: readonly Change[];
  /** What the last fetch or save failed with; null while all is well. */
  readonly fault: Fault | null;
}

const initial: ShelfState = { shelf: null, unsaved: [], fault: null };

function applied(shelf: Shelf, change: Change): Shelf {
  if ('measures' in change) return { ...shelf, measures: change.measures };
  if ('take' in change) return { ...shelf, items: shelf.items.filter(({ id }) => id !== change.take) };
  const known = shelf.items.some(({ id }) => id === change.put.id);
  return {
    ...shelf,
    items: known
      ? shelf.items.map((item) => (item.id === change.put.id ? change.put : item))
      : [...shelf.items, change.put],
  };
}

function changed(state: ShelfState, change: Change): ShelfState {
  if (state.shelf === null) return state;
  return {
    ...state,
    shelf: applied(state.shelf, change),
    unsaved: [...state.unsaved.filter(({ key }) => key !== change.key), change],
  };
}

export const shelfFeature = createFeature({
  name: 'shelf',
  reducer: createReducer(
    initial,
    on(ShelfServer.loaded, (state, { shelf, unsaved }): ShelfState => ({
      ...state,
      // What was typed and not saved yet stands over what the server has.
      shelf: [...unsaved, ...state.unsaved].reduce(applied, shelf),
      unsaved: [
        ...unsaved.filter(({ key }) => state.unsaved.every((own) => own.key !== key)),
        ...state.unsaved,
      ],
      fault: null,
    })),
    on(ShelfServer.loadFailed, ShelfServer.saveFailed, (state, { fault }): ShelfState => ({
      ...state,
      fault,
    })),
    on(ShelfServer.saveRefused, (state, { fault, change }): ShelfState => ({
      ...state,
      fault,
      unsaved: state.unsaved.filter((own) => own !== change),
    })),
    on(ShelfServer.saved, (state, { change }): ShelfState => ({
      ...state,
      fault: null,
      unsaved: state.unsaved.filter((own) => own !== change),
    })),
    on(ShelfServer.retryAsked, (state): ShelfState => ({ ...state, fault: null })),
    on(ShelfEditor.itemPut, (state, { item }) => changed(state, { key: item.id, put: item })),
    on(ShelfEditor.itemTaken, (state, { id }) => changed(state, { key: id, take: id })),
    on(ShelfEditor.measuresSet, (state, { measures }) => changed(state, { key: ' measures', measures })),
  ),
  extraSelectors: ({ selectShelfState }) => ({
    selectSaveText: createSelector(selectShelfState, ({ shelf, unsaved, fault }) => {
      if (shelf === null) return '';
      if (unsaved.length === 0) return 'saved';
      return fault === null ? 'saving …' : 'not saved yet, kept in this browser';
    }),
  }),
});
