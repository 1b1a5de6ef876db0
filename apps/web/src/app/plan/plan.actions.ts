import {
  type Fault,
  type Look,
  type Part,
  type Plan,
  type PlanStep,
  type PlanSummary,
  type SavedPlan,
} from '@zaffet/contract';
import { createActionGroup, emptyProps, props } from '@ngrx/store';
import { type StepChanges } from './edits';

/** What a person did to the plan. `gesture` joins the edits of one drag into one step to undo. */
export const PlanEditor = createActionGroup({
  source: 'Plan Editor',
  events: {
    'Step Changed': props<{ stepId: string; changes: StepChanges; gesture: string | null }>(),
    'Step Added': props<{ step: PlanStep; index: number }>(),
    'Step Removed': props<{ stepId: string }>(),
    'Step Moved': props<{ stepId: string; by: 1 | -1 }>(),
    'Step Selected': props<{ stepId: string | null }>(),
    'Air Changed': props<{
      changes: { temperatureC?: number; humidity?: number; draughtMS?: number; altitudeM?: number };
      gesture: string | null;
    }>(),
    'Part Changed': props<{ changes: Partial<Part>; gesture: string | null }>(),
    'Media Changed': props<{ media: Plan['media']; use: { stepId: string; medium: string } | null }>(),
    'Price Changed': props<{ medium: string; price: number | null }>(),
    'Recipe Taken': props<{ plan: Plan }>(),
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
