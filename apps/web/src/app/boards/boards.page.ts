import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { API, isFilmStep, type Notation } from '@zaffet/contract';
import { isShare, type Reading } from '@zaffet/core/calibrate';
import {
  BOARD_PAGE_WORDS,
  BOARD_PAGES,
  boardTeaches,
  cellExpected,
  cellWork,
  figures,
  lessonText,
  oneAirText,
  mediumName,
  perCent,
  QUESTION_WORDS,
  READING_NAMES,
  readingsCsv,
  readingText,
  startWords,
  um,
} from '@zaffet/words';
import {
  BOARD_QUESTIONS,
  BOARD_SIZES,
  type BoardDesign,
  type BoardQuestion,
  type BoardSize,
  isBoard,
} from '@zaffet/workshop';
import { Clock } from '../data/clock';
import { faultOf } from '../data/plans.api';
import { Units } from '../data/units';
import { ChoiceField } from '../ui/choice-field';
import { saveFile } from '../ui/save-file';
import { SheetLink } from '../ui/sheet-link';
import { BoardsThread } from '../workers/boards-thread';
import { BoardsModel } from './boards-model';
import { ToldChart } from './told-chart';

/** Weights under which a cell is said not to fit the others. */
const HARDLY = 0.3;

/** Sample boards: made for a question, measured, and what the shop has learned of its own paints by them. */
@Component({
  selector: 'zf-boards-page',
  imports: [ChoiceField, MatButtonModule, RouterLink, SheetLink, ToldChart],
  providers: [BoardsThread, BoardsModel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './boards.page.html',
  styleUrl: './boards.page.scss',
})
export class BoardsPage {
  protected readonly model = inject(BoardsModel);
  private readonly router = inject(Router);
  private readonly clock = inject(Clock);
  private readonly units = inject(Units).system;
  private readonly notation = computed((): Notation => ({ units: this.units(), clock: this.clock.face() }));
  protected readonly names = READING_NAMES;

  constructor() {
    void this.model.open();
  }

  /** What the shop goes by now, in words. */
  protected readonly holds = computed(() => {
    const kept = this.model.kept()?.[0];
    if (kept?.learned == null) return null;
    return {
      at: this.clock.longDayTime(Date.parse(kept.at)),
      of: kept.runs.length,
    };
  });
  protected readonly canGoBack = computed(() => (this.model.kept()?.[0]?.learned ?? null) !== null);

  protected readonly lessons = computed(() => {
    const media = this.model.plans().flatMap(({ plan }) => plan.media);
    return (this.model.taught()?.calibration?.lessons ?? []).map((lesson) => ({
      key: lesson.key,
      text: lessonText(lesson, media),
    }));
  });
  protected readonly oneAir = computed(() => {
    const airs = this.model.taught()?.calibration?.airs;
    return airs === undefined ? null : oneAirText(airs, this.units());
  });
  protected readonly disagree = computed(() => {
    const taught = this.model.taught();
    return (taught?.calibration?.disagree ?? []).map(({ board, off }) => ({
      board,
      text: `${taught!.cells.find(({ run }) => run === board)?.plan ?? 'A board'}: what was read is ${figures(off)} times further off than readings scatter. Something there is not as the forecast takes it: another paint, another hand, a slip in measuring.`,
    }));
  });

  protected readonly readings = computed((): Reading[] => {
    const all = this.model.taught()?.calibration?.compared ?? [];
    return [...new Set(all.map(({ reading }) => reading))];
  });
  protected readonly compared = computed(() => this.model.taught()?.calibration?.compared ?? []);
  protected readonly drawn = linkedSignal<Reading[], Reading | null>({
    source: this.readings,
    computation: (readings, before) =>
      before?.value != null && readings.includes(before.value) ? before.value : (readings[0] ?? null),
  });

  /** Everything that was measured, cell by cell. */
  protected readonly rows = computed(() => {
    const taught = this.model.taught();
    const out = this.model.leftOut();
    return (taught?.cells ?? []).map((cell) => {
      const own = this.compared().filter((one) => one.cell === cell.id);
      return {
        ...cell,
        out: out.includes(cell.id),
        told: own.map(({ reading, read, before, after, weight }) => {
          const as = (value: number | null): string =>
            value === null ? 'none' : readingText(reading, value, this.units());
          return {
            reading,
            read: as(read),
            before: as(before.value),
            after: as(after.value),
            band: after.low === null || after.high === null ? '' : `${as(after.low)} to ${as(after.high)}`,
            odd: weight < HARDLY,
          };
        }),
      };
    });
  });

  protected readonly checked = computed(() =>
    (this.model.checked() ?? []).map(({ reading, count, tables, fitted, median, held }) => ({
      reading,
      count,
      tables: off(reading, tables),
      fitted: off(reading, fitted),
      median: off(reading, median),
      plainer: median < fitted,
      held: perCent(held),
    })),
  );

  /** Plans that are boards, with what is printed of each. */
  protected readonly made = computed(() =>
    this.model
      .plans()
      .filter(({ plan }) => isBoard(plan))
      .map(({ id, plan }) => ({
        id,
        name: plan.name,
        sheet: API.boardSheet(id, this.notation()),
        pages: BOARD_PAGES.map((page) => ({
          name: BOARD_PAGE_WORDS[page],
          href: API.boardSheet(id, this.notation(), page),
        })),
      })),
  );

  /** What held before, the newest first. */
  protected readonly earlier = computed(() =>
    (this.model.kept() ?? []).slice(1).map(({ at, learned, runs }, n) => ({
      back: n + 1,
      at: this.clock.longDayTime(Date.parse(at)),
      what:
        learned === null ? 'the tables' : `what ${runs.length} ${runs.length === 1 ? 'run' : 'runs'} taught`,
    })),
  );

  /** What the shop goes by, as a file that another shop can bring in. */
  protected saveCalibration(): void {
    const kept = this.model.kept()?.[0];
    if (kept === undefined) return;
    const { learned, runs, leftOut } = kept;
    const text = `${JSON.stringify({ learned, runs, leftOut }, null, 2)}\n`;
    saveFile(new Blob([text], { type: 'application/json' }), 'calibration', '.json');
  }
  protected saveReadings(): void {
    const text = readingsCsv(this.model.taught()?.cells ?? [], this.compared(), this.model.leftOut());
    saveFile(new Blob([text], { type: 'text/csv' }), 'readings', '.csv');
  }
  protected bringIn(input: HTMLInputElement): void {
    const file = input.files?.[0];
    input.value = '';
    if (file !== undefined) void this.model.bringIn(file);
  }

  protected readonly questions = BOARD_QUESTIONS.map((key) => ({ key, ...QUESTION_WORDS[key] }));
  protected readonly sizes = BOARD_SIZES;
  protected readonly question = signal<BoardQuestion>('how-thick');
  protected readonly size = signal<BoardSize>(5);
  protected readonly partOptions = computed(() =>
    this.model.plans().flatMap(({ id, plan }) =>
      plan.finishes
        .filter(({ whatIfOf }) => whatIfOf === null)
        .flatMap(({ id: finish }) => plan.piece.parts.find((part) => part.finish === finish) ?? [])
        .map((part) => ({ value: `${id} ${part.id}`, name: `${plan.name}, ${part.name.toLowerCase()}` })),
    ),
  );
  protected readonly forPart = linkedSignal(() => this.partOptions()[0]?.value ?? '');
  protected readonly working = signal(false);
  protected readonly refused = signal<string | null>(null);
  protected readonly designed = signal<BoardDesign | null>(null);
  protected readonly expected = computed(() => {
    const teaches = this.designed()?.teaches ?? null;
    return teaches === null ? [] : [boardTeaches(teaches)];
  });
  protected readonly cells = computed(() =>
    (this.designed()?.plan.finishes ?? []).map(({ id, name, steps }, n) => {
      const { plan, expected } = this.designed()!;
      const films = steps.filter(isFilmStep);
      return {
        id,
        name,
        films: films
          .map(
            ({ medium, thicknessUm }) =>
              `${mediumName(medium, plan.media)} ${um(thicknessUm * 1e-6, this.units())}`,
          )
          .join(' · '),
        waits: films
          .slice(-1)
          .map(({ start }) => `the last ${startWords(start)}`)
          .join(''),
        work: cellWork(steps),
        expected: cellExpected(expected[n]!, this.units()),
      };
    }),
  );

  protected async design(): Promise<void> {
    const [planId, partId] = this.forPart().split(' ');
    const saved = this.model.plans().find(({ id }) => id === planId);
    if (saved === undefined || partId === undefined) return;
    this.working.set(true);
    this.refused.set(null);
    try {
      const learned = this.model.learned();
      const design = await this.model.design(saved.plan, partId, this.question(), this.size(), learned);
      this.designed.set(design);
      if (design === null) this.refused.set(QUESTION_WORDS[this.question()].none);
    } catch (error) {
      this.designed.set(null);
      this.refused.set(error instanceof Error ? error.message : 'The board could not be worked out.');
    }
    this.working.set(false);
  }

  protected async make(): Promise<void> {
    const design = this.designed();
    if (design === null) return;
    try {
      const id = await this.model.make(design.plan);
      await this.router.navigate(['/plan', id, 'bench']);
    } catch (error) {
      this.refused.set(faultOf(error).message);
    }
  }
}

/** How far off predictions were, as a person says it. */
const off = (reading: Reading, size: number): string =>
  isShare(reading) ? `${figures(size)} log odds` : perCent(Math.exp(size) - 1);
