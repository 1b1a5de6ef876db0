import {
  type CoatStep,
  type Fault,
  type Look,
  type Part,
  type Plan,
  type PlanSummary,
  type SavedPlan,
} from '@zaffet/contract';
import { createActionGroup, emptyProps, props } from '@ngrx/store';

/** What a person did to the plan. `gesture` joins the edits of one drag into one step to undo. */
export const PlanEditor = createActionGroup({
  source: 'Plan Editor',
  events: {
    'Coat Changed': props<{ coatId: string; changes: Partial<CoatStep>; gesture: string | null }>(),
    'Coat Added': props<{ coat: CoatStep; index: number }>(),
    'Coat Removed': props<{ coatId: string }>(),
    'Coat Moved': props<{ coatId: string; by: 1 | -1 }>(),
    'Coat Selected': props<{ coatId: string | null }>(),
    'Air Changed': props<{
      changes: { temperatureC?: number; humidity?: number; draughtMS?: number; altitudeM?: number };
      gesture: string | null;
    }>(),
    'Part Changed': props<{ changes: Partial<Part>; gesture: string | null }>(),
    'Look Changed': props<{ changes: Partial<Look> }>(),
    'Plan Renamed': props<{ name: string }>(),
    'Pattern Rerolled': props<{ seed: number }>(),
    'Gesture Ended': emptyProps(),
    'Undo Asked': emptyProps(),
    'Redo Asked': emptyProps(),
  },
});

/** What came of opening and saving. */
export const PlanApi = createActionGroup({
  source: 'Plan API',
  events: {
    'Open Asked': props<{ id: string }>(),
    Opened: props<{ saved: SavedPlan; draft: { plan: Plan; revision: number } | null }>(),
    'Open Failed': props<{ fault: Fault }>(),
    'Save Started': props<{ plan: Plan }>(),
    Saved: props<{ summary: PlanSummary; plan: Plan }>(),
    'Save Refused': props<{ current: SavedPlan }>(),
    'Save Failed': props<{ fault: Fault }>(),
    'Retry Asked': emptyProps(),
    'Mine Kept': emptyProps(),
    'Theirs Taken': emptyProps(),
    'Both Kept': emptyProps(),
    'Copy Saved': props<{ saved: SavedPlan }>(),
  },
});
