import {
  type Fault,
  type ItemChanges,
  type MeasuresFile,
  type Shelf,
  type ShelfItem,
} from '@zaffet/contract';
import { createActionGroup, emptyProps, props } from '@ngrx/store';
import { type ShelfChange } from '../data/shelf-outbox';

/** What a person did to the shelf. */
export const ShelfEditor = createActionGroup({
  source: 'Shelf Editor',
  events: {
    'Item Put': props<{ item: ShelfItem }>(),
    'Item Changed': props<{ id: string; changes: ItemChanges }>(),
    'Item Taken': props<{ id: string }>(),
    'Measures Set': props<{ measures: MeasuresFile }>(),
  },
});

/** What came of fetching and saving. */
export const ShelfServer = createActionGroup({
  source: 'Shelf API',
  events: {
    'Shelf Asked': emptyProps(),
    Loaded: props<{ shelf: Shelf; unsaved: readonly ShelfChange[] }>(),
    'Load Failed': props<{ fault: Fault }>(),
    /** `stands` is the thing as the server has it, where nothing newer of it waits; `left` is how much does. */
    Saved: props<{ stands: ShelfItem | null; left: number }>(),
    'Save Failed': props<{ fault: Fault; kept: boolean }>(),
    'Retry Asked': emptyProps(),
  },
});
