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
    expect(state.unsaved.length).toBe(1);
    const saved = shelfFeature.reducer(state, ShelfServer.saved({ change: state.unsaved[0]! }));
    expect(saved.unsaved).toEqual([]);
    expect(saved.shelf!.items).toEqual([paper(6)]);
  });

  it('loses nothing when a save fails, and puts what was typed over what comes from the server', () => {
    const failed = run(
      loaded,
      ShelfEditor.itemPut({ item: paper(9) }),
      ShelfServer.saveFailed({ fault: fault('server.failed') }),
    );
    expect(failed.unsaved.length).toBe(1);
    expect(shelfFeature.selectSaveText.projector(failed)).toBe('not saved yet, kept in this browser');
    const again = run(ShelfServer.loaded({ shelf, unsaved: failed.unsaved }));
    expect(again.shelf!.items).toEqual([paper(9)]);
    expect(again.unsaved).toEqual(failed.unsaved);
  });

  it('gives up only what the server will never take, and says why', () => {
    const state = run(loaded, ShelfEditor.itemTaken({ id: 'p' }));
    expect(state.shelf!.items).toEqual([]);
    const refused = shelfFeature.reducer(
      state,
      ShelfServer.saveRefused({ fault: fault('shelf.full'), change: state.unsaved[0]! }),
    );
    expect(refused.unsaved).toEqual([]);
    expect(refused.fault!.code).toBe('shelf.full');
  });

  it('keeps what one measures with apart from what stands there', () => {
    const state = run(loaded, ShelfEditor.measuresSet({ measures: { ...USUAL_MEASURES, dishMl: 60 } }));
    expect(state.shelf!.measures.dishMl).toBe(60);
    expect(state.shelf!.items).toEqual(shelf.items);
  });
});
