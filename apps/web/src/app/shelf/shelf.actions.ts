import { type Fault, type MeasuresFile, type Shelf, type ShelfItem } from '@zaffet/contract';
import { createActionGroup, emptyProps, props } from '@ngrx/store';
import { type Change } from './shelf.feature';

/** What a person did to the shelf. */
export const ShelfEditor = createActionGroup({
  source: 'Shelf Editor',
  events: {
    'Item Put': props<{ item: ShelfItem }>(),
    'Item Taken': props<{ id: string }>(),
    'Measures Set': props<{ measures: MeasuresFile }>(),
  },
});

/** What came of fetching and saving. */
export const ShelfServer = createActionGroup({
  source: 'Shelf API',
  events: {
    'Shelf Asked': emptyProps(),
    Loaded: props<{ shelf: Shelf; unsaved: readonly Change[] }>(),
    'Load Failed': props<{ fault: Fault }>(),
    Saved: props<{ change: Change }>(),
    'Save Failed': props<{ fault: Fault }>(),
    'Save Refused': props<{ fault: Fault; change: Change }>(),
    'Retry Asked': emptyProps(),
  },
});
