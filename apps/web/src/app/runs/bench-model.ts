import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { type Part, type PlanStep, type RunEvent, type Shelf, USUAL_MEASURES } from '@zaffet/contract';
import { type Hazard, hazards, LATER_HAZARDS } from '@zaffet/core/hazard';
import { type LiveState } from '@zaffet/core/live';
import { type Medium, mediumLookup } from '@zaffet/core/media';
import { hazardWords, type HazardWords, taskTitle } from '@zaffet/words';
import {
  type Bench,
  type BenchFilm,
  type BenchTask,
  basisOf,
  knownOfAll,
  type Mixing,
  type PartPlan,
  partPlan,
  potsFor,
  shopKnowing,
  type Run,
  stepKey,
  type StepRun,
} from '@zaffet/workshop';
import { filter, firstValueFrom } from 'rxjs';
import { Ticker } from '../data/ticker';
import { shelfFeature } from '../shop/shelf.feature';
import { BenchThread } from '../workers/bench-thread';
import { Latest } from '../workers/thread';
import { BenchHand } from './run.actions';
import { RunBox } from './run-box';
import { runFeature } from './run.feature';
import { type Telling } from './run-store';

/** The states a coat goes through while it is watched, in order. */
const WATCHED: readonly LiveState[] = ['matte', 'tacky', 'touch', 'recoat', 'through'];
/** How a run stands is worked out anew this often, though nothing was told [ms]. */
const ANEW = 60_000;
/** Cracks are asked for from this share of the time on that they are thought to take. */
const CRACKS_FROM = 0.3;
/** Cracks narrower than this are not seen from where one stands [m]; common practice. */
const SEEN_CRACK = 50e-6;

/** What a card is about: something to do, or a coat to watch. */
export interface Card {
  readonly id: string;
  readonly part: Part;
  readonly task: BenchTask | null;
  readonly step: PlanStep | null;
  readonly film: BenchFilm | null;
}

/** Something that was asked of a coat. */
export interface Question {
  readonly state: LiveState;
  readonly partId: string;
  readonly stepId: string;
}

/** What an answer moved. */
export interface Moved {
  readonly eventId: string;
  readonly what: 'opens' | 'closes';
  readonly before: number;
  readonly after: number;
}

/** A caution at a step that was not read yet. */
export interface Caution extends HazardWords {
  readonly code: string;
}

/** What the bench shows of a run: how it stands now, and what is in hand. */
@Injectable()
export class BenchModel {
  private readonly store = inject(Store);
  private readonly thread = inject(BenchThread);
  private readonly box = inject(RunBox);
  private readonly ticker = inject(Ticker);
  private readonly events = this.store.selectSignal(runFeature.selectEvents);
  private readonly telling = this.store.selectSignal(runFeature.selectTelling);
  readonly runId = this.store.selectSignal(runFeature.selectRunId);
  readonly looked = this.store.selectSignal(runFeature.selectLooked);
  readonly run = this.store.selectSignal(runFeature.selectRun);
  /** By the server's clock [ms since 1970]. */
  readonly now = computed(() => this.ticker.at() + this.box.state().offsetMs);

  /** How it stands, of which events, as the thread worked it out last. */
  private readonly stood = signal<{ readonly of: readonly RunEvent[]; readonly bench: Bench } | null>(null);
  readonly bench = computed(() => this.stood()?.bench ?? null);
  /** Answers of which it is not known yet whether they can be right. */
  private readonly weighing = signal(0);
  /** Something was told that does not show yet. */
  readonly busy = computed(
    () => this.weighing() > 0 || this.telling() > 0 || this.stood()?.of !== this.events(),
  );
  readonly failed = signal(false);
  readonly moved = signal<Moved | null>(null);

  private readonly asks = new Latest((events: readonly RunEvent[]) =>
    this.thread
      .stand(events, this.now(), this.card()?.part.id ?? null)
      .then((bench) => ({ of: events, bench })),
  );
  private readonly inHand = computed(() => this.card()?.part.id ?? null);
  private readonly minute = computed(() => Math.floor(this.now() / ANEW));

  constructor() {
    effect(() => {
      const begun = this.beginning();
      const shelf = this.shelf() ?? { items: [], measures: USUAL_MEASURES };
      if (begun !== null) untracked(() => this.askMixes(begun, shelf));
    });
    effect(() => {
      const events = this.events();
      this.minute();
      this.inHand();
      if (events.length === 0) return;
      untracked(() =>
        this.asks.put(
          events,
          ({ of, bench }) => {
            this.failed.set(false);
            if (bench === null) return;
            const before = this.stood();
            this.stood.set({ of, bench });
            if (before !== null) this.seeMoved(before, { of, bench });
          },
          () => this.failed.set(true),
        ),
      );
    });
  }

  private askMixes(begun: RunEvent, shelf: Shelf): void {
    this.thread
      .mixes([begun], shelf)
      .then((mixes) => this.mixed.set(mixes))
      .catch(() => this.mixed.set(null));
  }

  /** What the newest answer moved of the window that waited for it. */
  private seeMoved(
    before: { readonly of: readonly RunEvent[]; readonly bench: Bench },
    after: { readonly of: readonly RunEvent[]; readonly bench: Bench },
  ): void {
    const known = new Set(before.of.map(({ id }) => id));
    const answer = after.of.findLast(({ id, kind }) => kind === 'seen' && !known.has(id));
    if (answer?.kind !== 'seen') return;
    const task = ({ parts }: Bench): BenchTask | undefined =>
      parts.find(({ partId }) => partId === answer.partId)?.tasks.find(isOpen);
    const [was, is] = [task(before.bench), task(after.bench)];
    if (was === undefined || is === undefined || was.key !== is.key) return;
    const what = is.waitsFor === 'skinned' ? 'closes' : 'opens';
    const [from, to] = [was[what]?.at, is[what]?.at];
    if (from === undefined || to === undefined || Math.abs(to - from) < 1000) return;
    this.moved.set({ eventId: answer.id, what, before: from, after: to });
  }

  /** What the run's plan is mixed of; null until that is worked out. */
  private readonly mixed = signal<Mixing | null>(null);
  private readonly shelf = this.store.selectSignal(shelfFeature.selectShelf);
  private readonly beginning = computed(() => this.events().find(({ kind }) => kind === 'run-begun') ?? null);
  /** What a task takes out of its pots. */
  readonly takes = (task: BenchTask): ReturnType<typeof potsFor> => {
    const mixes = this.mixed();
    if (mixes === null) return [];
    return [task.stepId, ...(task.topId === null ? [] : [task.topId])].flatMap((stepId) =>
      potsFor(mixes, task.partId, stepId),
    );
  };

  readonly parts = computed(() => this.run()?.plan.piece.parts ?? []);
  private readonly partPlans = computed((): ReadonlyMap<string, PartPlan> => {
    const run = this.run();
    if (run === null) return new Map();
    const known = knownOfAll(run, untracked(this.now));
    return new Map(
      run.plan.piece.parts.map(
        ({ id }) => [id, partPlan(run.plan, id, null, { known, shop: shopKnowing(run.learned) })] as const,
      ),
    );
  });
  /** A part as it was really done so far, going on in the air of today: what its look and its figures rest on. */
  readonly asDone = (partId: string): PartPlan | null => {
    const [run, part] = [this.run(), this.bench()?.parts.find((one) => one.partId === partId)];
    if (run === null || part === undefined) return null;
    const known = knownOfAll(run, untracked(this.now));
    return partPlan(run.plan, partId, null, { known, shop: shopKnowing(part.learned) });
  };
  readonly partPlanOf = (partId: string): PartPlan => this.partPlans().get(partId)!;

  /** A card a part: what is next on it or under way; else the coat on it that may crack yet. */
  readonly cards = computed((): Card[] => {
    const [bench, run] = [this.bench(), this.run()];
    if (bench === null || run === null) return [];
    return bench.parts.flatMap(({ partId, tasks, film }): Card[] => {
      const part = run.plan.piece.parts.find(({ id }) => id === partId)!;
      const task = tasks.find(isOpen) ?? null;
      if (task === null && film === null) return [];
      const step = task === null ? null : this.stepOf(run, task.stepId);
      return [{ id: task?.key ?? `${partId} watched`, part, task, step, film }];
    });
  });

  /** What was taken in hand by a person; else what is most urgent. */
  private readonly taken = signal<string | null>(null);
  readonly card = computed((): Card | null => {
    const cards = this.cards();
    const own = cards.find(({ part }) => part.id === this.taken());
    return own ?? [...cards].sort((a, b) => this.rank(a) - this.rank(b))[0] ?? null;
  });
  take(partId: string | null): void {
    this.taken.set(partId);
  }

  /** Under way first; then what may be done, the soonest to close before all; then what opens next. */
  private rank({ task, film }: Card): number {
    const at = this.now();
    if (task === null) return film === null ? Infinity : 1e15;
    if (task.state === 'doing') return -1;
    const opens = Math.max(task.opens?.at ?? 0, task.plannedAt ?? 0);
    if (opens <= at) return task.closes === null ? 1e12 : task.closes.at - at;
    return 1e13 + opens - at;
  }

  stepOf(run: Run, stepId: string): PlanStep | null {
    return run.plan.finishes.flatMap(({ steps }) => steps).find(({ id }) => id === stepId) ?? null;
  }

  title(task: BenchTask): string {
    return taskTitle(task, this.run()!.plan);
  }

  mediumOf(step: PlanStep): Medium | null {
    const { media } = this.run()!.plan;
    return 'medium' in step ? mediumLookup(media)(step.medium) : null;
  }

  /** What was told of a task so far. */
  told(task: BenchTask): StepRun | null {
    return this.run()?.steps[task.key] ?? null;
  }
  toldOf(partId: string, stepId: string): StepRun | null {
    return this.run()?.steps[stepKey(partId, stepId)] ?? null;
  }

  /** Cautions at a task that nobody has read in this run: before it begins somebody has to. */
  cautions(card: Card): Caution[] {
    const run = this.run();
    if (run === null) return [];
    const read = new Set(Object.values(run.steps).flatMap(({ cautions }) => cautions));
    return this.hazardsAt(card)
      .filter(({ code }) => !read.has(code) && !LATER_HAZARDS.includes(code))
      .map(({ code }) => ({ code, ...hazardWords(code) }));
  }
  /** What to think of afterwards, at the first task that brings it. */
  laterCautions(card: Card): string[] {
    return this.hazardsAt(card)
      .filter(({ code, stepIds }) => LATER_HAZARDS.includes(code) && stepIds[0] === card.task?.stepId)
      .flatMap(({ code }) => hazardWords(code).cautions);
  }
  private hazardsAt({ task, part }: Card): Hazard[] {
    if (task === null) return [];
    const ids = [task.stepId, task.topId, ...(task.kind === 'prepare' ? ['panel'] : [])];
    return hazards(basisOf(this.partPlanOf(part.id)).plan).filter(({ stepIds }) =>
      stepIds.some((id) => ids.includes(id)),
    );
  }

  /** What to ask of the film a card waits for, or of the coat it watches; null where nothing is to be asked. */
  question({ task, film }: Card): Question | null {
    const run = this.run();
    if (film === null || run === null) return null;
    const { partId, stepId, states } = film;
    const passed = new Set(
      run.seen
        .filter((one) => one.partId === partId && one.stepId === stepId && one.places !== 'none')
        .flatMap(({ after }) => after ?? []),
    );
    const at = this.now();
    if (!passed.has('first-cracks') && task?.waitsFor == null && cracksMayCome(film, task, at))
      return { state: 'first-cracks', partId, stepId };
    if (task === null || task.waitsFor === null) return null;
    if (task.waitsFor === 'skinned') return { state: 'skinned', partId, stepId };
    const until = WATCHED.indexOf(task.waitsFor);
    const left = WATCHED.slice(0, until + 1).filter(
      (state, i) => states[state] !== undefined && !WATCHED.slice(i).some((later) => passed.has(later)),
    );
    const state = left.find((one) => states[one]!.high > at) ?? left.at(-1);
    return state === undefined ? null : { state, partId, stepId };
  }

  /** Tells what happened, one thing or several at once. */
  tell(...tellings: Telling[]): void {
    const runId = this.runId();
    // What an answer moved is told until the hands go on.
    if (tellings.some(({ kind }) => kind !== 'seen')) this.moved.set(null);
    if (runId !== null) this.store.dispatch(BenchHand.told({ runId, tellings }));
  }

  /** Once all that was told is kept on this device. */
  async kept(): Promise<void> {
    await firstValueFrom(
      this.store.select(runFeature.selectTelling).pipe(filter((telling) => telling === 0)),
    );
  }

  /** Whether an answer can hardly be right by all that is known. */
  async doubts(
    { partId, stepId }: Question,
    look: Parameters<BenchThread['doubts']>[1]['look'],
  ): Promise<boolean> {
    this.weighing.update((count) => count + 1);
    try {
      return await this.thread.doubts(this.events(), { partId, stepId, at: this.now(), look });
    } catch {
      return false;
    } finally {
      this.weighing.update((count) => count - 1);
    }
  }
}

/**
 * Whether first cracks are worth a question: they are expected, wide enough to be seen, and it is the time for them. A
 * coat that is still being applied is asked about only if it cracks before it is done.
 */
export function cracksMayCome(
  { laidAt, states, figures }: BenchFilm,
  task: BenchTask | null,
  at: number,
): boolean {
  const cracks = states['first-cracks'];
  if (cracks === undefined || (figures.opening?.at ?? 0) < SEEN_CRACK) return false;
  const applying = task?.state === 'doing' && task.kind !== 'sections';
  if (applying && cracks.at > task.from + 1000 * task.hands) return false;
  const last = Math.max(cracks.high, states.through?.high ?? cracks.high);
  return at >= laidAt + CRACKS_FROM * (cracks.at - laidAt) && at <= last;
}

export const isOpen = ({ state }: BenchTask): boolean => state === 'next' || state === 'doing';
