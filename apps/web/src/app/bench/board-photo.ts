import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { fault } from '@zaffet/contract';
import { type BoardReading, type CellReading, CHECK_LINE } from '@zaffet/core/board';
import { toHex } from '@zaffet/core/colour';
import { type Correction, HOLDS, type Trust } from '@zaffet/core/photo';
import { BOARD_NOTE_WORDS, figures, lengthText, perCent, PHOTO_TRUST_WORDS } from '@zaffet/words';
import { BOARD_CAMERA_FOCAL, type Run } from '@zaffet/workshop';
import { Units } from '../data/units';
import { NumberField } from '../ui/number-field';
import { openPhotograph, type Photograph, PhotographRefused } from '../ui/open-photograph';
import { type BoardAnswer } from '../workers/photo-messages';
import { PhotoThread } from '../workers/photo-thread';
import { type CellTool, CellView } from './cell-view';
import { type TakenReading } from '../ui/photo-sheet';

/** How wide a stroke of each kind begins [mm]. */
const WIDTHS: Readonly<Record<CellTool, number>> = { look: 1, erase: 3, draw: 0.5 };
const LIMITS = {
  line: { min: CHECK_LINE.min, max: CHECK_LINE.max, step: 0.5, unit: 'mm' },
  thickness: { min: 0, max: 50, step: 1, unit: 'mm' },
  stroke: { min: 0.1, max: 20, step: 0.5, unit: 'mm' },
} as const;

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
  imports: [CellView, MatButtonModule, MatDialogModule, MatProgressBarModule, NumberField],
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

  protected async open(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (file === undefined) return;
    this.trouble.set('');
    this.working.set({ what: 'Opening the photograph', share: 0 });
    try {
      this.photograph.set(await openPhotograph(file));
    } catch (error) {
      this.trouble.set(
        error instanceof PhotographRefused ? error.message : fault('picture.unreadable').message,
      );
      this.working.set(null);
      return;
    }
    await this.read();
  }

  /** The camera that ships with Zaffet. */
  protected async simulate(): Promise<void> {
    const what = 'The simulated camera photographs a board that nobody painted';
    this.trouble.set('');
    this.working.set({ what, share: 0 });
    try {
      const picture = await this.thread.simulated(this.run, (done, of) => {
        this.working.set({ what, share: done / of });
      });
      this.photograph.set({ picture, focal35: BOARD_CAMERA_FOCAL });
    } catch {
      if (this.working() !== null) this.trouble.set('The simulated camera failed. Try again.');
      this.working.set(null);
      return;
    }
    await this.read();
  }

  protected setThickness(mm: number): void {
    this.thickness.set(mm);
    void this.read();
  }
  protected setLine(mm: number): void {
    this.line.set(mm);
    void this.read();
  }

  protected async read(): Promise<void> {
    const photograph = this.photograph();
    if (photograph === null) return;
    const what = 'Reading the board';
    this.working.set({ what, share: 0 });
    this.corrections.set(this.parts.map(() => []));
    await this.answered(
      this.thread.board(
        photograph.picture,
        this.run,
        { thicknessMm: this.thickness(), focal35: photograph.focal35, checkLineMm: this.line() },
        (done, of) => {
          this.working.set({ what, share: done / of });
        },
      ),
    );
  }

  private async answered(answer: Promise<BoardAnswer>): Promise<void> {
    this.trouble.set('');
    try {
      const { read, refused } = await answer;
      if (read !== null) this.reading.set(read);
      if (refused !== null) {
        this.reading.set(null);
        this.trouble.set(refused);
      }
    } catch {
      if (this.working() !== null)
        this.trouble.set('The photograph could not be read. Choose it again, or another one.');
    }
    this.working.set(null);
  }

  /** Stops what is being worked on. */
  protected stop(): void {
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
    this.working.set({ what: `Reading ${this.parts[n]!.name} again`, share: 0 });
    void this.answered(this.thread.putRight(n, corrections));
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
