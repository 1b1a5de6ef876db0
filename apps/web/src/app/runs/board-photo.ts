import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { type BoardReading, type CellReading, CHECK_LINE } from '@zaffet/core/board';
import { toHex } from '@zaffet/core/colour';
import { type Correction, HOLDS, type Picture, type Trust } from '@zaffet/core/photo';
import { BOARD_NOTE_WORDS, figures, lengthText, perCent, PHOTO_TRUST_WORDS } from '@zaffet/words';
import { BOARD_CAMERA_FOCAL, type Run } from '@zaffet/workshop';
import { Units } from '../data/units';
import { NumberField } from '../ui/number-field';
import { type Photograph } from '../ui/open-photograph';
import { PhotographButton } from '../ui/photograph-button';
import { type BoardAnswer, type Progress } from '../workers/photo-messages';
import { PhotoThread } from '../workers/photo-thread';
import { Turns } from '../workers/thread';
import { type CellTool, CellView } from './cell-view';
import { type TakenReading } from '../ui/photo-sheet';

/** How wide a stroke of each kind begins [mm]. */
const WIDTHS: Readonly<Record<CellTool, number>> = { look: 1, erase: 3, draw: 0.5 };
const LIMITS = {
  line: { min: CHECK_LINE.min, max: CHECK_LINE.max, step: 0.5, unit: 'mm' },
  thickness: { min: 0, max: 50, step: 1, unit: 'mm' },
  stroke: { min: 0.1, max: 20, step: 0.5, unit: 'mm' },
} as const;

const UNREAD = 'The photograph could not be read. Choose it again, or another one.';

/** What is being worked on, and how far. */
interface Working {
  readonly what: string;
  readonly share: number;
}

/** Whether a figure was told. */
const told = (trust: Trust): boolean => trust === 'measured' || trust === 'about';

/** A sample board read as a whole from a photograph of it in its printed frame. */
@Component({
  selector: 'zf-board-photo',
  imports: [CellView, MatButtonModule, MatDialogModule, MatProgressBarModule, NumberField, PhotographButton],
  providers: [PhotoThread],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './board-photo.html',
  styleUrl: './board-photo.scss',
})
export class BoardPhoto {
  private readonly thread = inject(PhotoThread);
  private readonly sheet =
    inject<MatDialogRef<BoardPhoto, Readonly<Record<string, TakenReading>>>>(MatDialogRef);
  private readonly units = inject(Units).system;
  private readonly run = inject<Run>(MAT_DIALOG_DATA);
  protected readonly limits = LIMITS;
  protected readonly parts = this.run.plan.piece.parts;

  protected readonly line = signal<number>(CHECK_LINE.meant);
  protected readonly thickness = signal(0);
  protected readonly photograph = signal<Photograph | null>(null);
  protected readonly trouble = signal('');
  protected readonly working = signal<Working | null>(null);
  protected readonly reading = signal<BoardReading | null>(null);
  protected readonly chosen = signal(0);
  protected readonly tool = signal<CellTool>('look');
  protected readonly width = signal(WIDTHS.look);
  protected readonly tools = [
    { tool: 'look', name: 'Look' },
    { tool: 'erase', name: 'Wipe out a crack' },
    { tool: 'draw', name: 'Draw a crack' },
  ] as const;
  /** What was put right, by cell. */
  private readonly corrections = signal<readonly (readonly Correction[])[]>(this.parts.map(() => []));
  private readonly leftOut = signal<readonly number[]>([]);
  private readonly turns = new Turns();
  /** Whether the thread holds the board that was read. */
  private held = false;

  protected readonly notes = computed(() =>
    (this.reading()?.notes ?? []).map((note) => BOARD_NOTE_WORDS[note]),
  );
  protected readonly cells = computed(() =>
    (this.reading()?.cells ?? []).map((cell, n) => ({
      name: this.parts[n]!.name,
      cell,
      told: told(cell.trust.spacing) || told(cell.trust.opening),
      out: this.leftOut().includes(n),
    })),
  );
  protected readonly cell = computed(() => this.cells()[this.chosen()] ?? null);
  protected readonly strokes = computed(() => this.corrections()[this.chosen()]!.length);
  protected readonly lines = computed(() => {
    const cell = this.cell()?.cell;
    return cell === undefined ? [] : this.linesOf(cell);
  });
  protected readonly taken = computed(() => this.cells().filter((one) => one.told && !one.out).length);

  private linesOf(cell: CellReading): { name: string; text: string; swatch?: string }[] {
    const mm = (value: number): string => lengthText(value / 1000, this.units());
    const { trust, layers } = cell;
    const holds = (one: Trust, what: 'spacing' | 'opening'): string =>
      one === 'measured' || one === 'about' ? `${perCent(HOLDS[one][what])} either way` : '';
    return [
      {
        name: 'Cracks apart',
        text:
          cell.spacingMm === null
            ? PHOTO_TRUST_WORDS[trust.spacing]
            : `${mm(cell.spacingMm)}, ${holds(trust.spacing, 'spacing')}; another place of it within ${perCent(cell.spacingWithin)}`,
      },
      ...(cell.alongMm === null
        ? []
        : [{ name: 'Across and down', text: `${mm(cell.alongMm)} and ${mm(cell.acrossMm!)}` }]),
      {
        name: 'Cracks open',
        text:
          cell.openingMm === null
            ? PHOTO_TRUST_WORDS[trust.opening]
            : `${mm(cell.openingMm)}, ${holds(trust.opening, 'opening')}; 8 in 10 from ${mm(cell.narrowMm!)} to ${mm(cell.wideMm!)}`,
      },
      {
        name: 'Open area',
        text: cell.openArea === null ? PHOTO_TRUST_WORDS[trust.area] : perCent(cell.openArea),
      },
      ...(cell.chipped > 0.005 ? [{ name: 'Chipped off', text: perCent(cell.chipped) }] : []),
      ...(layers === null
        ? []
        : [
            ...layers.shares.map((share, k) => ({
              name: k === layers.shares.length - 1 ? 'Top coat' : 'Seen below it',
              text: perCent(Math.min(1, Math.max(0, share))),
              swatch: toHex(layers.colours[k]!),
            })),
            ...(layers.islandMm === null ? [] : [{ name: 'Islands', text: `about ${mm(layers.islandMm)}` }]),
          ]),
      { name: 'In the picture', text: `${figures(cell.pxPerMm)} pixels a millimetre` },
    ];
  }

  protected opening(): void {
    this.stop();
    this.trouble.set('');
    this.working.set({ what: 'Opening the photograph', share: 0 });
  }
  protected refuse(why: string): void {
    this.working.set(null);
    this.trouble.set(why);
  }
  /** Another photograph: what was put right on the last one is no matter of this one. */
  protected async look(photograph: Photograph): Promise<void> {
    this.working.set(null);
    this.photograph.set(photograph);
    this.corrections.set(this.parts.map(() => []));
    await this.read();
  }

  /** The camera that ships with Zaffet. */
  protected async simulate(): Promise<void> {
    let picture: Picture | null = null;
    await this.work(
      'The simulated camera photographs a board that nobody painted',
      async (progress) => {
        picture = await this.thread.simulated(this.run, progress);
      },
      'The simulated camera failed. Try again.',
    );
    if (picture !== null) await this.look({ picture, focal35: BOARD_CAMERA_FOCAL });
  }

  protected setThickness(mm: number): void {
    this.thickness.set(mm);
    void this.read();
  }
  protected setLine(mm: number): void {
    this.line.set(mm);
    void this.read();
  }

  /** Reads the photograph with what was put right on it. */
  private async read(): Promise<void> {
    const photograph = this.photograph();
    if (photograph === null) return;
    await this.work(
      'Reading the board',
      async (progress) => {
        const { picture, focal35 } = photograph;
        const told = { thicknessMm: this.thickness(), focal35, checkLineMm: this.line() };
        this.show(await this.thread.board(picture, this.run, told, this.corrections(), progress));
        this.held = true;
      },
      UNREAD,
    );
  }

  /**
   * Works on one thing at a time: what comes next ends what is under way, and only the last says how it ended.
   * @param failed - what is said where it ends otherwise
   */
  private async work(what: string, go: (progress: Progress) => Promise<void>, failed: string): Promise<void> {
    if (this.working() !== null) this.stop();
    const mine = this.turns.take();
    this.trouble.set('');
    this.working.set({ what, share: 0 });
    try {
      await go((done, of) => {
        if (mine()) this.working.set({ what, share: done / of });
      });
    } catch {
      if (mine()) this.trouble.set(failed);
    }
    if (mine()) this.working.set(null);
  }

  private show({ read, refused }: BoardAnswer): void {
    this.reading.set(read);
    if (refused !== null) this.trouble.set(refused);
  }

  /** Stops what is being worked on; the thread forgets the board with it. */
  protected stop(): void {
    this.turns.take();
    this.held = false;
    this.working.set(null);
    this.thread.stop();
  }

  protected use(tool: CellTool): void {
    this.tool.set(tool);
    this.width.set(WIDTHS[tool]);
  }
  protected stroke(correction: Correction): void {
    this.putRight([...this.corrections()[this.chosen()]!, correction]);
  }
  protected undo(): void {
    this.putRight(this.corrections()[this.chosen()]!.slice(0, -1));
  }
  private putRight(corrections: readonly Correction[]): void {
    const n = this.chosen();
    this.corrections.update((before) => before.with(n, corrections));
    if (!this.held || this.working() !== null) void this.read();
    else
      void this.work(
        `Reading ${this.parts[n]!.name} again`,
        async () => this.show(await this.thread.putRight(n, corrections)),
        UNREAD,
      );
  }

  protected turn(n: number): void {
    this.leftOut.update((out) => (out.includes(n) ? out.filter((one) => one !== n) : [...out, n]));
  }
  protected take(): void {
    this.sheet.close(
      Object.fromEntries(
        this.cells().flatMap(({ cell, told: is, out }, n) =>
          is && !out
            ? [
                [
                  this.parts[n]!.id,
                  { spacingMm: cell.spacingMm, openingMm: cell.openingMm, openArea: cell.openArea },
                ],
              ]
            : [],
        ),
      ),
    );
  }
}
