import { type Fault, type Plan, type SavedPlan } from '@zaffet/contract';
import { type Basis } from '@zaffet/core/basis';
import { forecast } from '@zaffet/core/forecast';
import { type Schedule } from '@zaffet/core/schedule';
import {
  basisOf,
  beginAt,
  type Circumstances,
  momentsKept,
  type PartPlan,
  partPlan,
  shopKnowing,
  ownFinish,
} from '@zaffet/workshop';
import { calibrationFeature } from '../shop/calibration.feature';
import {
  createFeature,
  createReducer,
  createSelector,
  createSelectorFactory,
  on,
  resultMemoize,
} from '@ngrx/store';
import equal from 'fast-deep-equal';
import {
  addParts,
  addStep,
  addWhatIf,
  changeAir,
  changeFinish,
  changeLook,
  changeMap,
  changePart,
  changePrice,
  changeStep,
  moveSteps,
  pasteSteps,
  placeStep,
  removeFinish,
  removePart,
  removeSteps,
  renamePlace,
  replaceParts,
  replaceSteps,
  takeWhatIf,
  turnWith,
} from './edits';
import { type History, record, redo, startHistory, undo } from './history';
import { PlanApi, PlanEditor } from './plan.actions';

/**
 * How the last change stands: on the server, waiting, on its way, to be tried again, not taken as it is; or it waits
 * for a person to decide, since the plan was changed or removed elsewhere.
 */
export type SaveStatus = 'saved' | 'waiting' | 'saving' | 'failed' | 'invalid' | 'stale' | 'gone';

export interface PlanState {
  readonly id: string | null;
  /** The save that stands on the server, as far as this page knows. */
  readonly saveId: string;
  readonly savedAt: string | null;
  readonly loading: boolean;
  readonly fault: Fault | null;
  readonly save: SaveStatus;
  /** Whether this browser keeps what is not saved. */
  readonly kept: boolean;
  /** What stands on the server when a save was refused as stale. */
  readonly theirs: SavedPlan | null;
  readonly history: History | null;
  /** The last timetable, and the plan it is of; none while it is worked out for the first time. */
  readonly timed: { readonly of: Plan; readonly table: Schedule } | null;
  /** A plan that could not be timed: its thread ended. */
  readonly untimed: Plan | null;
  readonly selectedStepId: string | null;
  /** The part in hand; the first when null. */
  readonly partId: string | null;
  /** A what-if on the bench in the place of the part's own finish. */
  readonly finishId: string | null;
}

const initial: PlanState = {
  id: null,
  saveId: '',
  savedAt: null,
  loading: false,
  fault: null,
  save: 'saved',
  kept: true,
  theirs: null,
  history: null,
  timed: null,
  untimed: null,
  selectedStepId: null,
  partId: null,
  finishId: null,
};

/** What a timetable says of a plan that may have changed since it was made. */
function circumstancesOf(
  file: Plan,
  { of, table }: NonNullable<PlanState['timed']>,
): Pick<Circumstances, 'moments'> {
  if (of === file) return { moments: table.moments };
  const moments = Object.entries(table.moments).map(([partId, own]) => {
    const [before, now] = [partPlan(of, partId), partPlan(file, partId)];
    return [partId, momentsKept(own, before.steps, now.steps)] as const;
  });
  return { moments: Object.fromEntries(moments) };
}

/** A selector whose value stays the same object while it holds the same. */
const selectSame = createSelectorFactory<object, Basis | null>((projector) =>
  resultMemoize(projector, equal),
);

/** Applies an edit to the present plan; what changed waits to be saved. */
function edited(state: PlanState, gesture: string | null, edit: (plan: Plan) => Plan): PlanState {
  if (state.history === null) return state;
  const history = record(state.history, edit(state.history.present), gesture);
  return history === state.history ? state : { ...state, history, save: unsaved(state.save) };
}

/** The finish on the bench. */
function finishOf({ history, partId, finishId }: PlanState): string {
  return history === null ? '' : partPlan(history.present, partId, finishId).finish.id;
}
function partOf({ history, partId }: PlanState): string {
  return history === null ? '' : partPlan(history.present, partId).part.id;
}

/** What a person has to decide first stays so. */
const unsaved = (save: SaveStatus): SaveStatus => (save === 'stale' || save === 'gone' ? save : 'waiting');

/** An answer is of one plan, and another may be open by now. */
const answered = (state: PlanState, id: string, changes: Partial<PlanState>): PlanState =>
  state.id === id ? { ...state, ...changes } : state;

function travelled(state: PlanState, travel: (history: History) => History): PlanState {
  if (state.history === null) return state;
  const history = travel(state.history);
  return history === state.history ? state : { ...state, history, save: unsaved(state.save) };
}

export const planFeature = createFeature({
  name: 'plan',
  reducer: createReducer(
    initial,
    on(PlanApi.openAsked, (state, { id }): PlanState =>
      state.id === id ? { ...state, loading: true } : { ...initial, id, loading: true },
    ),
    on(PlanApi.timed, (state, { plan, table }): PlanState =>
      state.history?.present === plan ? { ...state, timed: { of: plan, table }, untimed: null } : state,
    ),
    on(PlanApi.timingFailed, (state, { plan }): PlanState => ({ ...state, untimed: plan })),
    on(PlanApi.timingAskedAgain, (state): PlanState => ({ ...state, untimed: null })),
    on(PlanApi.opened, (_state, { saved, draft, table, undo: steps }): PlanState => {
      const of = draft?.plan ?? saved.plan;
      const base: PlanState = {
        ...initial,
        id: saved.id,
        saveId: saved.saveId,
        savedAt: saved.savedAt,
        history: { ...startHistory(saved.plan), ...steps },
        timed: table === null ? null : { of, table },
      };
      if (draft === null) return base;
      const history =
        steps === null
          ? record(startHistory(saved.plan), draft.plan, null)
          : { ...startHistory(draft.plan), ...steps };
      if (draft.saveId === saved.saveId) return { ...base, history, save: 'waiting' };
      return { ...base, history, save: 'stale', theirs: saved };
    }),
    on(PlanApi.openFailed, (state, { fault }): PlanState => ({ ...state, loading: false, fault })),
    on(PlanApi.saveStarted, (state, { id }) => answered(state, id, { save: 'saving' })),
    on(PlanApi.saved, (state, { id, summary, plan }) =>
      answered(state, id, {
        saveId: summary.saveId,
        savedAt: summary.savedAt,
        fault: null,
        save: state.history?.present === plan ? 'saved' : 'waiting',
      }),
    ),
    on(PlanApi.saveRefused, (state, { id, current }) =>
      answered(state, id, { save: 'stale', theirs: current }),
    ),
    on(PlanApi.saveInvalid, (state, { id, fault, kept }) =>
      answered(state, id, { save: 'invalid', fault, kept }),
    ),
    on(PlanApi.planGone, (state, { id, kept }) => answered(state, id, { save: 'gone', kept })),
    on(PlanApi.saveFailed, (state, { id, fault, kept }) =>
      answered(state, id, { save: 'failed', fault, kept }),
    ),
    on(PlanApi.copyFailed, (state, { fault }): PlanState => ({ ...state, fault })),
    on(PlanApi.retryAsked, (state): PlanState =>
      state.save === 'failed' || state.save === 'invalid' ? { ...state, save: 'waiting' } : state,
    ),
    on(PlanApi.mineKept, (state): PlanState =>
      state.theirs === null
        ? state
        : { ...state, saveId: state.theirs.saveId, theirs: null, save: 'waiting' },
    ),
    on(PlanApi.theirsTaken, (state): PlanState =>
      state.theirs === null
        ? state
        : {
            ...initial,
            id: state.theirs.id,
            saveId: state.theirs.saveId,
            savedAt: state.theirs.savedAt,
            history: startHistory(state.theirs.plan),
          },
    ),

    on(PlanEditor.stepChanged, (state, { stepId, edit, gesture }) =>
      edited(state, gesture, (plan) => changeStep(plan, stepId, edit)),
    ),
    on(PlanEditor.stepAdded, (state, { step, index }) => ({
      ...edited(state, null, (plan) =>
        addStep(plan, partPlan(plan, state.partId, state.finishId), step, index),
      ),
      selectedStepId: step.id,
    })),
    on(PlanEditor.stepsRemoved, (state, { stepIds }) => ({
      ...edited(state, null, (plan) => removeSteps(plan, stepIds)),
      selectedStepId: null,
    })),
    on(PlanEditor.stepsMoved, (state, { stepIds, by }) =>
      edited(state, null, (plan) => moveSteps(plan, stepIds, by)),
    ),
    on(PlanEditor.stepsPasted, (state, { steps, media, index }) =>
      edited(state, null, (plan) => pasteSteps(plan, finishOf(state), steps, media, index)),
    ),
    on(PlanEditor.stepSelected, (state, { stepId }): PlanState => ({ ...state, selectedStepId: stepId })),
    on(PlanEditor.airChanged, (state, { changes, gesture }) =>
      edited(state, gesture, (plan) => changeAir(plan, changes)),
    ),
    on(PlanEditor.stepPlaced, (state, { stepId, to }) =>
      edited(state, null, (plan) => placeStep(plan, stepId, to)),
    ),
    on(PlanEditor.mapPainted, (state, { stepId, map, changes, gesture }) =>
      edited(state, gesture, (plan) =>
        changeMap(changeStep(plan, stepId, { fits: 'placed', changes }), partOf(state), stepId, map),
      ),
    ),
    on(PlanEditor.partChosen, (state, { partId }): PlanState => ({ ...state, partId, finishId: null })),
    on(PlanEditor.placeRenamed, (state, { partId, zoneId, name }) =>
      edited(state, null, (plan) => renamePlace(plan, partId, zoneId, name)),
    ),
    on(PlanEditor.partChanged, (state, { partId, changes, gesture }) =>
      edited(state, gesture, (plan) => changePart(plan, partId, changes)),
    ),
    on(PlanEditor.partsAdded, (state, { parts }) => ({
      ...edited(state, null, (plan) => addParts(plan, parts)),
      partId: parts.at(-1)?.id ?? state.partId,
      finishId: null,
    })),
    on(PlanEditor.partsReplaced, (state, { name, parts }) => ({
      ...edited(state, null, (plan) => replaceParts(plan, name, parts)),
      partId: parts[0]?.id ?? null,
      finishId: null,
    })),
    on(PlanEditor.partRemoved, (state, { partId }) => ({
      ...edited(state, null, (plan) => removePart(plan, partId)),
      partId: null,
      finishId: null,
    })),
    on(PlanEditor.pieceRenamed, (state, { name }) =>
      edited(state, null, (plan) =>
        plan.piece.name === name ? plan : { ...plan, piece: { ...plan.piece, name } },
      ),
    ),
    on(PlanEditor.finishChosen, (state, { finishId }): PlanState => ({
      ...state,
      finishId,
      selectedStepId: null,
    })),
    on(PlanEditor.finishChanged, (state, { finishId, changes }) =>
      edited(state, null, (plan) => changeFinish(plan, finishId, changes)),
    ),
    on(PlanEditor.finishParted, (state, { partId, finishId, name, stepIds }) =>
      edited(state, null, (plan) => ownFinish(plan, [partId], finishId, name, stepIds)),
    ),
    on(PlanEditor.finishRemoved, (state, { finishId }) => ({
      ...edited(state, null, (plan) => removeFinish(plan, finishId)),
      finishId: null,
      selectedStepId: null,
    })),
    on(PlanEditor.whatIfBegun, (state, { finishId, name, stepIds }) => ({
      ...edited(state, null, (plan) => addWhatIf(plan, finishOf(state), finishId, name, stepIds)),
      finishId,
      selectedStepId: null,
    })),
    on(PlanEditor.whatIfTaken, (state, { finishId }) => ({
      ...edited(state, null, (plan) => takeWhatIf(plan, finishId)),
      finishId: null,
      selectedStepId: null,
    })),
    on(PlanEditor.startChanged, (state, { startsAt }) =>
      edited(state, null, (plan) => beginAt(plan, startsAt)),
    ),
    on(PlanEditor.airTaken, (state, { air }) => edited(state, null, (plan) => ({ ...plan, air }))),
    on(PlanEditor.workChanged, (state, { work }) => edited(state, null, (plan) => ({ ...plan, work }))),
    on(PlanEditor.timingChanged, (state, { timing }) =>
      edited(state, null, (plan) => ({ ...plan, timing: { ...plan.timing, ...timing } })),
    ),
    on(PlanEditor.partTurnedWith, (state, { partId, body }) =>
      edited(state, null, (plan) => turnWith(plan, partId, body)),
    ),
    on(PlanEditor.otherWayTaken, (state, { plan }) => edited(state, null, () => plan)),
    on(PlanEditor.paletteChanged, (state, { palette }) =>
      edited(state, null, (plan) => ({ ...plan, palette })),
    ),
    on(PlanEditor.stepsReplaced, (state, { steps }) => ({
      ...edited(state, null, (plan) => replaceSteps(plan, finishOf(state), steps)),
      selectedStepId: null,
    })),
    on(PlanEditor.remedyTaken, (state, { plan }) => edited(state, null, () => plan)),
    on(PlanEditor.mediaChanged, (state, { media, use }) =>
      edited(state, null, (plan) => {
        const next = { ...plan, media };
        return use === null
          ? next
          : changeStep(next, use.stepId, { fits: 'film', changes: { medium: use.medium } });
      }),
    ),
    on(PlanEditor.priceChanged, (state, { medium, price }) =>
      edited(state, null, (plan) => changePrice(plan, medium, price)),
    ),
    on(PlanEditor.recipeTaken, (state, { steps, look }) => ({
      ...edited(state, null, (plan) =>
        changeLook(replaceSteps(plan, finishOf(state), steps), finishOf(state), look),
      ),
      selectedStepId: null,
    })),
    on(PlanEditor.lookChanged, (state, { changes }) =>
      edited(state, null, (plan) => changeLook(plan, finishOf(state), changes)),
    ),
    on(PlanEditor.planRenamed, (state, { name }) =>
      edited(state, null, (plan) => (plan.name === name ? plan : { ...plan, name })),
    ),
    on(PlanEditor.patternRerolled, (state, { seed }) => edited(state, null, (plan) => ({ ...plan, seed }))),
    on(PlanEditor.gestureEnded, (state): PlanState =>
      state.history === null ? state : { ...state, history: { ...state.history, gesture: null } },
    ),
    on(PlanEditor.undoAsked, (state) => travelled(state, undo)),
    on(PlanEditor.redoAsked, (state) => travelled(state, redo)),
  ),
  extraSelectors: ({
    selectId,
    selectHistory,
    selectTimed,
    selectSelectedStepId,
    selectPartId,
    selectFinishId,
  }) => {
    const selectFile = createSelector(selectHistory, (history) => history?.present ?? null);
    /** What the forecasts of every part rest on. */
    const selectCircumstances = createSelector(
      selectFile,
      selectTimed,
      calibrationFeature.selectLearned,
      (file, timed, learned): Circumstances => ({
        shop: shopKnowing(learned),
        ...(file === null || timed === null ? {} : circumstancesOf(file, timed)),
      }),
    );
    /** The part in hand with the finish on the bench. */
    const selectPlan = createSelector(
      selectFile,
      selectPartId,
      selectFinishId,
      selectCircumstances,
      (file, partId, finishId, circumstances) =>
        file === null ? null : partPlan(file, partId, finishId, circumstances),
    );
    /** Told apart by what it holds: a name, a price, a wish or the palette leaves it as it is, and nothing is computed. */
    const selectBasis = selectSame(selectPlan, (plan: PartPlan | null) =>
      plan === null ? null : basisOf(plan),
    );
    const selectForecast = createSelector(selectBasis, (basis) => (basis === null ? null : forecast(basis)));
    return {
      selectFile,
      selectCircumstances,
      /** Whether the timetable is that of the plan as it stands. */
      selectTimedNow: createSelector(selectFile, selectTimed, (file, timed) => timed?.of === file),
      selectPlan,
      selectBasis,
      selectModel: createSelector(selectBasis, (basis) => basis?.plan ?? null),
      selectForecast,
      /** What is on the bench: figures of something else say nothing of it. */
      selectBench: createSelector(selectId, selectPlan, (id, plan) =>
        plan === null ? null : `${id} ${plan.part.id} ${plan.finish.id}`,
      ),
      selectCanUndo: createSelector(selectHistory, (history) => (history?.past.length ?? 0) > 0),
      selectCanRedo: createSelector(selectHistory, (history) => (history?.future.length ?? 0) > 0),
      /** True while a hand is on a knob: pictures may be coarse. */
      selectInGesture: createSelector(selectHistory, (history) => history?.gesture != null),
      selectSelectedStep: createSelector(
        selectPlan,
        selectSelectedStepId,
        (plan, id) => plan?.finish.steps.find((step) => step.id === id) ?? null,
      ),
    };
  },
});
