import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { type FindingCode } from '@zaffet/core/notes';
import {
  benchQuestion,
  cracksExpected,
  duration,
  findingWords,
  HAZARD_DEFERENCE,
  leftToDry,
  type PlannedWait,
  plannedWaitTitle,
  prepWords,
  stepClauses,
  stepTitle,
  takesText,
  tooEarly,
  waitTitle,
  workRules,
} from '@zaffet/words';
import { type Band, hiddenUnder, isWaiting, prepOf } from '@zaffet/workshop';
import { Clock } from '../data/clock';
import { Units } from '../data/units';
import { BenchModel, type Card } from '../runs/bench-model';
import { BenchSheets } from './bench-sheets';
import { countdown } from './countdown';
import { ofTask } from './of-task';
import { PlaceDrawing } from './place-drawing';
import { SectionButtons } from './section-buttons';
import { SectionTiles } from './section-tiles';
import { ToldLast } from './told-last';
import { WindowRing } from './window-ring';

/** What keeps a task from being begun, whatever the hand wants. */
const LOCKS: readonly FindingCode[] = ['heat-on-solvent', 'heat-on-bleach', 'bleach-after-alcohol'];
type Reply = 'notYet' | 'justNow' | 'already';

/** One step, to be read at arm's length: what to do or wait for, how to tell, and what may be answered. */
@Component({
  selector: 'zf-step-card',
  imports: [NgTemplateOutlet, PlaceDrawing, SectionButtons, SectionTiles, ToldLast, WindowRing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './step-card.html',
  styleUrl: './step-card.scss',
})
export class StepCard {
  protected readonly model = inject(BenchModel);
  private readonly clock = inject(Clock);
  private readonly units = inject(Units).system;
  protected readonly sheets = inject(BenchSheets);
  readonly card = input.required<Card>();

  protected readonly deference = HAZARD_DEFERENCE;
  protected readonly task = computed(() => this.card().task);
  protected readonly mode = computed((): 'wait' | 'ready' | 'doing' | 'watch' => {
    const { task } = this.card();
    if (task === null) return 'watch';
    if (task.state === 'doing') return 'doing';
    return isWaiting(task, this.model.now()) ? 'wait' : 'ready';
  });

  /** What is waited for, while it is too early. */
  private readonly wait = computed((): PlannedWait | null => {
    const { task } = this.card();
    if (task?.opens == null || this.mode() !== 'wait') return null;
    const { opens, since, reason } = task;
    return {
      reason: reason ?? 'state',
      length: (opens.at - since) / 1000,
      left: (opens.at - this.model.now()) / 1000,
    };
  });
  /** What starting now means, by the wait and by the prediction. */
  protected readonly early = computed(() => {
    const [{ task }, wait] = [this.card(), this.wait()];
    if (task === null || wait === null) return null;
    const findings = task.notes.map((finding) => findingWords(finding, this.units()).title);
    const first = this.cautions().length > 0 ? ['Read the cautions first.'] : [];
    return [tooEarly(wait, task.waitsFor), ...findings, ...first].join(' ');
  });

  protected readonly count = computed(() => {
    const { task, part } = this.card();
    const tasks = this.model.bench()?.parts.find(({ partId }) => partId === part.id)?.tasks ?? [];
    const at = tasks.findIndex(({ key }) => key === task?.key);
    return at < 0 ? '' : `Step ${at + 1} of ${tasks.length}`;
  });
  protected readonly title = computed(() => {
    const { task } = this.card();
    if (task === null) return this.dries()?.title ?? waitTitle('first-cracks');
    const wait = this.wait();
    if (wait === null) return this.model.title(task);
    return task.waitsFor === null ? plannedWaitTitle(wait) : waitTitle(task.waitsFor);
  });
  /** Nothing is left to be done to the part, and no cracks are watched for. */
  protected readonly dries = computed(() => {
    const { task, film } = this.card();
    if (task !== null || film === null || film.states['first-cracks'] !== undefined) return null;
    return leftToDry(this.model.stepOf(this.model.run()!, film.stepId)?.kind === 'coat');
  });
  /** What comes once the waiting is over. */
  protected readonly then = computed(() => {
    const { task } = this.card();
    return task !== null && this.mode() === 'wait' ? this.model.title(task) : null;
  });

  protected readonly clauses = computed((): string[] => {
    const { task, step, part } = this.card();
    if (task === null) return [];
    const plan = this.model.partPlanOf(part.id);
    if (task.kind === 'prepare')
      return prepOf(plan)
        .filter(({ step: stage }) => task.prepares.includes(stage))
        .map((hint) => prepWords(hint).text);
    if (step === null || task.kind === 'buff') return [];
    const over = task.topId === null ? null : this.model.stepOf(this.model.run()!, task.topId);
    return [
      stepClauses(step, plan, this.units()).join(', '),
      ...(over === null
        ? []
        : [`Over it ${stepTitle(over, plan.media)}: ${stepClauses(over, plan, this.units()).join(', ')}`]),
      ...this.model.takes(task).map(({ pot, volume }) => takesText(volume, pot, this.units())),
      `About ${duration(task.hands)} with the hands`,
    ];
  });
  protected readonly rules = computed((): string[] => {
    const { task, step } = this.card();
    if (task === null || step === null) return [];
    if (task.kind === 'buff') return ['Buff with a clean soft cloth until it does not drag any more.'];
    const over = task.topId === null ? null : this.model.stepOf(this.model.run()!, task.topId);
    const all = [step, ...(over === null ? [] : [over])].flatMap((one) =>
      workRules(one, this.model.mediumOf(one)),
    );
    return [...new Set(all)];
  });

  protected readonly cautions = computed(() => this.model.cautions(this.card()));
  protected readonly laterCautions = computed(() => this.model.laterCautions(this.card()));
  /** Cautions are read before it begins. */
  protected readonly held = computed(() => this.mode() === 'ready' && this.cautions().length > 0);
  protected readonly warnings = computed(() =>
    this.mode() !== 'ready'
      ? []
      : (this.task()?.notes ?? []).map((finding) => findingWords(finding, this.units())),
  );
  protected readonly locked = computed(() =>
    (this.task()?.notes ?? []).some(({ code }) => LOCKS.includes(code)),
  );

  /** The ring: of what is waited for, or of a window that will close. */
  protected readonly ring = computed(() => {
    const { task, film } = this.card();
    if (task === null) {
      const cracks = film?.states['first-cracks'] ?? null;
      return film === null || cracks === null ? null : { from: film.laidAt, opens: cracks, closes: null };
    }
    const { opens, closes, below, since } = task;
    if (task.state === 'doing' || opens === null) return null;
    if (below === null && closes === null && this.mode() !== 'wait') return null;
    return { from: below === null || film === null ? since : film.laidAt, opens, closes };
  });
  /** Resists that nobody sees any more, under what the step is done to. */
  protected readonly hidden = computed(() => {
    const { part, task } = this.card();
    return task === null ? [] : hiddenUnder(this.model.partPlanOf(part.id).steps, task.stepId);
  });
  /** The part with the place, where no ring stands. */
  protected readonly pictured = computed(() => this.ring() === null && this.sections() === null);
  protected readonly ringText = computed(() => {
    const ring = this.ring();
    if (ring === null) return null;
    const now = this.model.now();
    const { opens, closes } = ring;
    const close = closes === null ? '' : `closes ${this.at(closes.at)}`;
    const { task } = this.card();
    const from = task === null ? opens.at : Math.max(opens.at, task.from);
    const day = this.clock.day(from, now);
    // Out of hours the hands come later than the part would let them.
    if (day !== '' && (opens.at > now || closes === null))
      return {
        over: day,
        big: this.clock.time(from),
        under: close || (opens.at > now ? `opens ${this.at(opens.at)}` : 'can start now'),
      };
    if (opens.at > now)
      return {
        over: this.card().task === null ? 'about in' : 'opens in',
        big: countdown(opens.at - now),
        under: close || this.between(opens),
      };
    if (closes === null) return { over: 'open for', big: countdown(now - opens.at), under: 'no latest time' };
    return closes.at > now
      ? {
          over: 'closes in',
          big: countdown(closes.at - now),
          under: this.between(closes),
        }
      : { over: 'closed', big: countdown(now - closes.at), under: 'ago' };
  });
  private between({ at, low, high }: Band): string {
    const [from, to] = [low, high].map(this.at);
    return from === to ? this.at(at) : `${from} to ${to}`;
  }
  private readonly at = (moment: number): string => this.clock.near(moment, this.model.now());

  protected readonly doing = computed(() => {
    const { task } = this.card();
    if (task?.state !== 'doing') return null;
    const gone = this.model.now() - task.from;
    return { gone: countdown(gone), of: duration(task.hands), over: gone > task.hands * 1000 };
  });
  protected readonly sections = computed(() => {
    const { task } = this.card();
    return task?.kind === 'sections' && (this.mode() === 'doing' || this.mode() === 'ready') ? task : null;
  });

  /** Strokes over one place of a film that is being laid: how many were meant, and how many were told. */
  protected readonly strokes = computed(() => {
    const { task, step } = this.card();
    if (task === null || step === null || this.mode() !== 'doing') return null;
    const over = task.topId === null ? step : this.model.stepOf(this.model.run()!, task.topId);
    if (over === null || !('passes' in over)) return null;
    const laid = this.model.toldOf(task.partId, over.id);
    // Strokes are those of the coat: over glue not before it is on.
    if (laid?.begunAt == null) return null;
    const told = laid.passes;
    return { stepId: over.id, meant: over.passes, told, choices: [1, 2, 3, 4, 6, 8] };
  });

  protected readonly question = computed(() => this.model.question(this.card()));
  protected readonly words = computed(() => {
    const question = this.question();
    return question === null ? null : benchQuestion(question.state);
  });
  /** When to look: where it tells most of what is waited for, else when what is asked is expected. */
  protected readonly look = computed(() => {
    const [{ film, task }, question, now] = [this.card(), this.question(), this.model.now()];
    if (film === null || question === null || this.mode() === 'doing') return null;
    if (question.state === task?.waitsFor && film.lookAt !== null)
      return film.lookAt > now ? `Look at ${this.at(film.lookAt)}: then it tells most.` : null;
    const expected = film.states[question.state];
    return expected === undefined
      ? null
      : `Expected about ${this.at(expected.at)}; 8 in 10 between ${this.at(expected.low)} and ${this.at(expected.high)}.`;
  });

  /** What the coat on top will crack into, by all that was told of it. */
  protected readonly cracks = computed(() => {
    const { film } = this.card();
    const waits = this.mode() === 'watch' || this.mode() === 'wait';
    return film !== null && waits ? cracksExpected(film.figures, this.units()) : null;
  });

  /** An answer that can hardly be right, until it is given again or dropped; gone with its card. */
  protected readonly doubted = linkedSignal<string, Reply | null>({
    source: () => this.card().id,
    computation: () => null,
  });
  protected readonly asking = signal(false);

  protected async reply(reply: Reply): Promise<void> {
    const question = this.question();
    if (question === null || this.asking()) return;
    const { state } = question;
    // Grabbing goes place by place; all else is told as it happens or found so.
    const look = {
      after: reply === 'notYet' ? null : state,
      before: reply === 'notYet' ? state : null,
      now: reply === 'justNow',
    };
    if (this.doubted() !== reply) {
      this.asking.set(true);
      const doubted = await this.model.doubts(question, look);
      this.asking.set(false);
      if (doubted) {
        this.doubted.set(reply);
        return;
      }
    }
    this.doubted.set(null);
    const { partId, stepId } = question;
    const places = reply === 'notYet' ? 'none' : reply === 'justNow' ? 'some' : 'most';
    this.model.tell({
      kind: 'seen',
      partId,
      stepId,
      coat: 0,
      minutesAgo: 0,
      ...(state === 'tacky'
        ? { after: state, before: null, now: false, places }
        : { ...look, places: 'most' }),
    });
  }

  protected dropDoubt(): void {
    this.doubted.set(null);
  }

  protected read(code: string): void {
    const { task } = this.card();
    if (task !== null) this.model.tell({ kind: 'caution', ...ofTask(task), code });
  }

  protected begin(): void {
    const { task } = this.card();
    if (task === null) return;
    this.model.tell({ kind: 'begun', ...ofTask(task), minutesAgo: 0 });
    this.model.take(task.partId);
  }

  protected done(): void {
    const { task } = this.card();
    if (task === null) return;
    this.model.tell({ kind: 'done', ...ofTask(task), minutesAgo: 0 });
    this.model.take(null);
  }

  protected tellStrokes(passes: number): void {
    const [{ task }, strokes] = [this.card(), this.strokes()];
    if (task === null || strokes === null) return;
    this.model.tell({ kind: 'passes', partId: task.partId, stepId: strokes.stepId, coat: 0, count: passes });
  }
}
