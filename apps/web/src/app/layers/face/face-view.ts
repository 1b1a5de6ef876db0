import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  Injector,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatSnackBar } from '@angular/material/snack-bar';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatSelectModule } from '@angular/material/select';
import { MatSliderModule } from '@angular/material/slider';
import { MatTooltipModule } from '@angular/material/tooltip';
import { isFilmStep, type PlanSummary } from '@zaffet/contract';
import { FACE_MODES, type FaceMode, type FaceViewKey } from '@zaffet/core/face';
import { forecast } from '@zaffet/core/forecast';
import { duration, FACE_MODE_NAMES, lengthShown, perCent } from '@zaffet/words';
import { basisOf, type PartPlan, partPlan, printsOn } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { newSeed } from '../../data/fresh';
import { faultOf, PlansApi } from '../../data/plans.api';
import { Units } from '../../data/units';
import { PlanEditor } from '../../plan/plan.actions';
import { forecastAfterTheHand } from '../../plan/after-the-hand';
import { planFeature } from '../../plan/plan.feature';
import { FaceCanvas } from '../../ui/face-canvas';
import { saveFile } from '../../ui/save-file';
import { sizeOf } from '../../ui/size-of';
import { FaceClient } from '../../workers/face.client';
import { type FaceLook, faceRequest } from '../../workers/face-request';
import { FaceLegend } from './face-legend';
import { FacePainter } from './face-painter';
import { Loupe } from './loupe';
import { MapSurface } from './map-surface';
import { PaintDesk } from './paint-desk';
import { PaintTools } from './paint-tools';
import { pictureFile } from './picture-out';
import { Wiper } from './wiper';

/** Heights of what stands above the picture [px]. */
const HEADER = 42;
const PAINT_ROWS = 116;
const PAINT_ROWS_NARROW = 194;
const NARROW = 500;
/** Lengths a scale bar may have [mm]; the largest that stays under a third of the picture is used. */
const SCALE_BARS = [1, 2, 5, 10, 20, 50, 100, 200, 500];
/** The same in inches, as mm. */
const INCH_BARS = [0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20].map((inches) => inches * 25.4);

/** The panel as it will look: cracks grown from the plan's physics, at a chosen distance, light and moment. */
@Component({
  selector: 'zf-face-view',
  imports: [
    FaceCanvas,
    FaceLegend,
    Loupe,
    MapSurface,
    MatButtonModule,
    MatButtonToggleModule,
    MatIconModule,
    MatMenuModule,
    MatProgressBarModule,
    MatSelectModule,
    MatSliderModule,
    MatTooltipModule,
    PaintTools,
    Wiper,
  ],
  providers: [FacePainter],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './face-view.html',
  styleUrl: './face-view.scss',
})
export class FaceView {
  private readonly store = inject(Store);
  protected readonly painter = inject(FacePainter);
  protected readonly desk = inject(PaintDesk);
  private readonly api = inject(PlansApi);
  private readonly snack = inject(MatSnackBar);
  /** The compared plan is drawn on a thread of its own, so that neither waits for the other. */
  private readonly other = Injector.create({
    providers: [
      { provide: FaceClient, useFactory: () => new FaceClient() },
      { provide: FacePainter, useFactory: () => new FacePainter() },
    ],
    parent: inject(Injector),
  });
  protected readonly otherPainter = this.other.get(FacePainter);
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly history = this.store.selectSignal(planFeature.selectHistory);
  private readonly forecast = forecastAfterTheHand();
  private readonly inGesture = this.store.selectSignal(planFeature.selectInGesture);
  private readonly size = sizeOf(inject<ElementRef<HTMLElement>>(ElementRef), { width: 690, height: 500 });

  private readonly units = inject(Units).system;

  protected readonly view = signal<FaceViewKey>('arm');
  protected readonly modes = FACE_MODES.map((mode) => ({ mode, name: FACE_MODE_NAMES[mode] }));
  protected readonly mode = signal<FaceMode>('colour');
  protected readonly loupe = signal(false);
  /** The plan that is compared with, and whether it stands beside or under a bar. */
  protected readonly compared = signal<{ readonly name: string; readonly plan: PartPlan } | null>(null);
  protected readonly beside = signal(false);
  protected readonly saved = signal<readonly PlanSummary[]>([]);
  protected readonly othersText = signal('');
  /** The plan as it was when this window opened it; null while nothing was changed. */
  protected readonly opened = computed(() => {
    const before = this.history()?.past[0];
    const now = this.plan();
    return before === undefined || now === null ? null : partPlan(before, now.part.id, now.finish.id);
  });
  protected readonly raking = signal(0.5);
  /** Age of the cracked coat [s]; null is its end. */
  protected readonly age = signal<number | null>(null);
  private readonly sliding = signal(false);

  private readonly cracked = computed(() => {
    const forecast = this.forecast();
    const i = forecast?.crackedCoat ?? null;
    return i === null ? null : (forecast?.coats[i] ?? null);
  });
  protected readonly cracks = computed(() => this.cracked()?.crack?.firstAt != null);
  /** How long the cracks take to come to their end [s]. */
  protected readonly wholeAge = computed(() => {
    const coat = this.cracked();
    const done = coat?.crack?.doneAt ?? null;
    return coat === null || done === null ? 60 : Math.max(60, Math.round(done - coat.laidAt));
  });
  protected readonly shownAge = computed(() => Math.min(this.age() ?? Infinity, this.wholeAge()));
  protected readonly ageText = computed(() => {
    const coat = this.cracked();
    if (coat === null) return 'nothing cracks';
    const age = this.shownAge();
    if (age >= this.wholeAge()) return `dry, ${duration(this.wholeAge())} on`;
    const first = coat.crack?.firstAt ?? null;
    return first !== null && age < first - coat.laidAt
      ? `${duration(age)} on, no cracks yet`
      : `${duration(age)} after brushing`;
  });

  /** What the paint tools take of the height; on a narrow Face they need two rows more. */
  private readonly paintRows = computed(() => {
    if (!this.desk.open()) return 0;
    return this.size().width < NARROW ? PAINT_ROWS_NARROW : PAINT_ROWS;
  });

  private readonly look = computed((): FaceLook => {
    const { width, height } = this.size();
    const age = this.shownAge();
    return {
      view: this.view(),
      columns: Math.max(120, width - 32),
      rows: Math.max(100, height - 72 - HEADER - this.paintRows()),
      quality: 'full',
      halfPixels: false,
      raking: this.raking(),
      mode: this.mode(),
      age: age >= this.wholeAge() ? null : age,
    };
  });

  private readonly request = computed(() => {
    const forecast = this.forecast();
    return forecast === null ? null : faceRequest(forecast, this.look());
  });

  protected readonly shownView = computed(() => this.request()?.view ?? null);
  protected readonly frame = computed(() => {
    const request = this.request();
    return request === null ? null : { width: request.columns, height: request.rows };
  });
  protected readonly viewText = computed(() => {
    const view = this.shownView();
    if (view === null) return '';
    const width = lengthShown(view.widthMm / 1000, this.units());
    const height = lengthShown(view.heightMm / 1000, this.units());
    const size = `${width.number} × ${height.number} ${height.unit}`;
    return view.reduced ? `the middle, ${size}` : size;
  });
  protected readonly scaleBar = computed(() => {
    const view = this.shownView();
    const frame = this.frame();
    if (view === null || frame === null) return null;
    const bars = this.units() === 'imperial' ? INCH_BARS : SCALE_BARS;
    const mm = bars.findLast((bar) => bar < view.widthMm / 3.2) ?? bars[0]!;
    const widthPx = this.compared() !== null && this.beside() ? frame.width / 2 : frame.width;
    const { number, unit } = lengthShown(mm / 1000, this.units());
    return { text: `${number} ${unit}`, px: (mm / view.widthMm) * widthPx };
  });
  protected readonly scale = computed(() => {
    const answer = this.painter.answer();
    return answer?.outcome === 'done' ? answer.scale : null;
  });
  protected readonly panelMm = computed(() => {
    const { widthMm, heightMm } = this.plan()!.part;
    return { widthMm, heightMm };
  });
  /** Prints and tissues in the places they lie on, as shares of what is seen. */
  protected readonly prints = computed(() => {
    const plan = this.plan();
    const view = this.shownView();
    if (plan === null || view === null || this.mode() !== 'colour') return [];
    return printsOn(plan).map(({ picture, left, top, width, height, oval }) => ({
      picture,
      oval,
      left: ((left - view.leftMm) / view.widthMm) * 100,
      top: ((top - view.topMm) / view.heightMm) * 100,
      width: (width / view.widthMm) * 100,
      height: (height / view.heightMm) * 100,
    }));
  });
  /** What the eye makes of it stands there until the first picture does. */
  protected readonly tone = computed(() => this.forecast()?.whole.colour ?? null);
  protected readonly growing = computed(() => {
    const progress = this.painter.progress();
    if (progress === null) return null;
    const seen =
      this.painter.answer()?.outcome === 'done' ? 'seen coarsely meanwhile' : 'its colour meanwhile';
    return `growing the fine picture, ${perCent(progress)}: ${seen}`;
  });
  protected readonly label = computed(() => {
    const plan = this.plan();
    const top = plan?.steps.findLast(isFilmStep);
    return `How the panel will look: ${top?.colourName || 'the top coat'}, ${this.ageText()}`;
  });

  constructor() {
    effect(() => {
      const fine = this.request();
      if (fine === null) return;
      const coarse = faceRequest(this.forecast()!, {
        ...this.look(),
        quality: 'coarse',
        halfPixels: true,
      });
      const half = { ...fine, columns: coarse.columns, rows: coarse.rows };
      if (this.sliding()) this.painter.show({ now: half, rested: null });
      else this.painter.show({ now: coarse, rested: this.inGesture() ? null : fine });
    });
    effect(() => {
      const other = this.compared();
      if (other === null) return;
      const request = faceRequest(forecast(basisOf(other.plan)), { ...this.look(), age: null });
      this.otherPainter.show({ now: request, rested: null });
    });
    // Whoever opens the desk paints on the whole panel, and on nothing else.
    effect(() => {
      if (!this.desk.open()) return;
      untracked(() => {
        this.compared.set(null);
        this.loupe.set(false);
        this.view.set('whole');
      });
    });
    inject(DestroyRef).onDestroy(() => this.other.get(FaceClient).ngOnDestroy());
  }

  protected setAge(seconds: number): void {
    this.sliding.set(true);
    this.age.set(seconds >= this.wholeAge() ? null : seconds);
  }

  protected endSlide(): void {
    this.sliding.set(false);
  }

  protected readonly ageLabel = (seconds: number): string => duration(seconds);

  protected reroll(): void {
    this.store.dispatch(PlanEditor.patternRerolled({ seed: newSeed() }));
  }

  protected paint(on: boolean): void {
    if (on) this.desk.begin();
    else this.desk.open.set(false);
  }

  protected useLoupe(on: boolean): void {
    this.loupe.set(on);
    if (on) {
      this.compared.set(null);
      this.desk.open.set(false);
    }
  }

  protected findOthers(): void {
    this.othersText.set('Looking for other plans …');
    const own = this.plan()?.name;
    this.api.list().subscribe({
      next: (plans) => {
        this.saved.set(plans.filter(({ name }) => name !== own));
        this.othersText.set('There is no other plan yet.');
      },
      error: () => this.othersText.set('The other plans cannot be read just now. Try again in a moment.'),
    });
  }

  protected compareWith(other: PlanSummary): void {
    this.api.readListed(other).subscribe({
      next: ({ name, plan }) => this.compare({ name, plan: partPlan(plan) }),
      error: (error: unknown) => this.snack.open(faultOf(error).message, 'Close', { duration: 8000 }),
    });
  }

  protected compare(other: { readonly name: string; readonly plan: PartPlan } | null): void {
    this.compared.set(other);
    if (other === null) this.beside.set(false);
    else {
      this.loupe.set(false);
      this.desk.open.set(false);
    }
  }

  /** Hands the picture out as a file, with scale and what it shows. */
  protected async takeOut(): Promise<void> {
    const answer = this.painter.answer();
    const plan = this.plan();
    const bar = this.scaleBar();
    const frame = this.frame();
    if (answer?.outcome !== 'done' || plan === null || frame === null) return;
    const blob = await pictureFile(answer, {
      name: plan.name,
      detail: `${FACE_MODE_NAMES[this.mode()]}, ${this.viewText()}, ${this.ageText()}`,
      bar: bar === null ? null : { text: bar.text, share: bar.px / frame.width },
    });
    saveFile(blob, plan.name, '.png');
  }
}
