import { fault, type Shelf, type ShelfItem, USUAL_MEASURES } from '@zaffet/contract';
import { type Action } from '@ngrx/store';
import { ShelfEditor, ShelfServer } from './shelf.actions';
import { shelfFeature, type ShelfState } from './shelf.feature';

const paper = (sheets: number): ShelfItem => ({
  id: 'p',
  kind: 'abrasive',
  name: 'Paper',
  grit: 220,
  sheets,
});
const shelf: Shelf = { items: [paper(3)], measures: USUAL_MEASURES };
const run = (...actions: Action[]): ShelfState =>
  actions.reduce<ShelfState>(
    (state, action) => shelfFeature.reducer(state, action),
    shelfFeature.reducer(undefined, { type: 'init' }),
  );
const loaded = ShelfServer.loaded({ shelf, unsaved: [] });

describe('shelf state', () => {
  it('shows a change at once, and keeps it until the server has it', () => {
    const state = run(
      loaded,
      ShelfEditor.itemPut({ item: paper(5) }),
      ShelfEditor.itemPut({ item: paper(6) }),
    );
    expect(state.shelf!.items).toEqual([paper(6)]);
    expect(state.save).toBe('waiting');
    const saved = shelfFeature.reducer(state, ShelfServer.saved({ stands: paper(6), left: 0 }));
    expect(saved.save).toBe('saved');
    expect(saved.shelf!.items).toEqual([paper(6)]);
    expect(shelfFeature.reducer(state, ShelfServer.saved({ stands: null, left: 1 })).save).toBe('waiting');
  });

  it('loses nothing when a save fails, and puts what was typed over what comes from the server', () => {
    const failed = (kept: boolean): ShelfState =>
      run(
        loaded,
        ShelfEditor.itemPut({ item: paper(9) }),
        ShelfServer.saveFailed({ fault: fault('server.failed'), kept }),
      );
    const { selectSaveText } = shelfFeature;
    expect(failed(true).shelf!.items).toEqual([paper(9)]);
    expect(selectSaveText.projector(failed(true))).toBe('not saved yet, kept in this browser');
    expect(selectSaveText.projector(failed(false))).toBe('not saved yet: do not close this window');
    const theirs = { ...shelf, items: [{ ...paper(3), name: 'Theirs' }] };
    const changes = { changes: { sheets: 9 }, item: paper(9) };
    const again = run(ShelfServer.loaded({ shelf: theirs, unsaved: [changes] }));
    expect(again.shelf!.items).toEqual([{ ...paper(9), name: 'Theirs' }]);
    expect(again.save).toBe('waiting');
  });

  it('changes the fields that are told of a thing, and nothing of one that is not there', () => {
    const state = run(loaded, ShelfEditor.itemChanged({ id: 'p', changes: { name: 'Fine paper' } }));
    expect(state.shelf!.items).toEqual([{ ...paper(3), name: 'Fine paper' }]);
    expect(run(loaded, ShelfEditor.itemChanged({ id: 'q', changes: { name: 'x' } })).shelf).toEqual(shelf);
  });

  it('keeps what one measures with apart from what stands there', () => {
    const state = run(loaded, ShelfEditor.measuresSet({ measures: { ...USUAL_MEASURES, dishMl: 60 } }));
    expect(state.shelf!.measures.dishMl).toBe(60);
    expect(state.shelf!.items).toEqual(shelf.items);
  });
});
