import {
  type Fault,
  type Finish,
  type Look,
  type Part,
  type PieceBody,
  type Plan,
  type PlanStep,
  type PlanSummary,
  type SavedPlan,
  type StepMap,
  type TimingFile,
  type WorkFile,
} from '@zaffet/contract';
import { type FirstMapped } from '@zaffet/core/plan';
import { type Schedule } from '@zaffet/core/schedule';
import { createActionGroup, emptyProps, props } from '@ngrx/store';
import { type UndoSteps } from '../data/undo-store';
import { type StepEdit } from './edits';

/** What a person did to the plan. `gesture` joins the edits of one drag into one step to undo. */
export const PlanEditor = createActionGroup({
  source: 'Plan Editor',
  events: {
    'Step Changed': props<{ stepId: string; edit: StepEdit; gesture: string | null }>(),
    'Step Added': props<{ step: PlanStep; index: number }>(),
    'Steps Removed': props<{ stepIds: readonly string[] }>(),
    'Steps Moved': props<{ stepIds: readonly string[]; by: 1 | -1 }>(),
    'Steps Pasted': props<{ steps: readonly PlanStep[]; media: Plan['media']; index: number }>(),
    'Step Selected': props<{ stepId: string | null }>(),
    'Air Changed': props<{
      changes: { temperatureC?: number; humidity?: number; draughtMS?: number; altitudeM?: number };
      gesture: string | null;
    }>(),
    'Air Taken': props<{ air: Plan['air'] }>(),
    'Step Placed': props<{ stepId: string; to: number }>(),
    'Map Painted': props<{
      stepId: string;
      map: StepMap | null;
      /** What else changes with the first stroke. */
      changes: FirstMapped;
      gesture: string | null;
    }>(),
    'Part Chosen': props<{ partId: string }>(),
    'Place Renamed': props<{ partId: string; zoneId: string; name: string }>(),
    'Part Changed': props<{ partId: string; changes: Partial<Part>; gesture: string | null }>(),
    'Parts Added': props<{ parts: readonly Part[] }>(),
    'Parts Replaced': props<{ name: string; parts: readonly Part[] }>(),
    'Part Removed': props<{ partId: string }>(),
    'Piece Renamed': props<{ name: string }>(),
    'Finish Chosen': props<{ finishId: string | null }>(),
    'Finish Changed': props<{ finishId: string; changes: Partial<Finish> }>(),
    'Finish Parted': props<{ partId: string; finishId: string; name: string; stepIds: readonly string[] }>(),
    'Finish Removed': props<{ finishId: string }>(),
    'What If Begun': props<{ finishId: string; name: string; stepIds: readonly string[] }>(),
    'What If Taken': props<{ finishId: string }>(),
    'Start Changed': props<{ startsAt: string }>(),
    'Work Changed': props<{ work: WorkFile | null }>(),
    'Timing Changed': props<{ timing: Partial<TimingFile> }>(),
    'Part Turned With': props<{ partId: string; body: PieceBody | null }>(),
    'Other Way Taken': props<{ plan: Plan }>(),
    'Palette Changed': props<{ palette: Plan['palette'] }>(),
    'Steps Replaced': props<{ steps: readonly PlanStep[] }>(),
    'Remedy Taken': props<{ plan: Plan }>(),
    'Media Changed': props<{ media: Plan['media']; use: { stepId: string; medium: string } | null }>(),
    'Price Changed': props<{ medium: string; price: number | null }>(),
    'Recipe Taken': props<{ steps: readonly PlanStep[]; look: Partial<Look> }>(),
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
    Opened: props<{
      saved: SavedPlan;
      draft: { plan: Plan; saveId: string } | null;
      /** When everything is done; null where that could not be worked out. */
      table: Schedule | null;
      /** What can be undone from where it was left on this device; null where it has changed since. */
      undo: UndoSteps | null;
    }>(),
    Timed: props<{ plan: Plan; table: Schedule }>(),
    'Timing Failed': props<{ plan: Plan }>(),
    'Timing Asked Again': emptyProps(),
    'Open Failed': props<{ fault: Fault }>(),
    'Save Started': props<{ id: string }>(),
    Saved: props<{ id: string; summary: PlanSummary; plan: Plan }>(),
    /** Another save stands there. */
    'Save Refused': props<{ id: string; current: SavedPlan }>(),
    /** The server will not take it as it is. `kept` says whether this browser keeps it. */
    'Save Invalid': props<{ id: string; fault: Fault; kept: boolean }>(),
    /** The plan was removed elsewhere. */
    'Plan Gone': props<{ id: string; kept: boolean }>(),
    'Save Failed': props<{ id: string; fault: Fault; kept: boolean }>(),
    'Retry Asked': emptyProps(),
    'Mine Kept': emptyProps(),
    'Theirs Taken': emptyProps(),
    'Both Kept': emptyProps(),
    'Mine Dropped': emptyProps(),
    'Copy Failed': props<{ fault: Fault }>(),
    'Copy Saved': props<{ saved: SavedPlan }>(),
  },
});
