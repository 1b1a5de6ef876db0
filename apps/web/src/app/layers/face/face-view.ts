import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatIconModule } from '@angular/material/icon';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatSliderModule } from '@angular/material/slider';
import { MatTooltipModule } from '@angular/material/tooltip';
import { duration, isFilmStep, lengthShown } from '@zaffet/contract';
import { type FaceViewKey } from '@zaffet/core';
import { Store } from '@ngrx/store';
import { newSeed } from '../../data/fresh';
import { Units } from '../../data/units';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { FaceCanvas } from '../../ui/face-canvas';
import { sizeOf } from '../../ui/size-of';
import { type FaceLook, faceRequest } from '../../workers/face-request';
import { FacePainter } from './face-painter';

/** Lengths a scale bar may have [mm]; the largest that stays under a third of the picture is used. */
const SCALE_BARS = [1, 2, 5, 10, 20, 50, 100, 200, 500];
/** The same in inches, as mm. */
const INCH_BARS = [0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20].map((inches) => inches * 25.4);

/** The panel as it will look: cracks grown from the plan's physics, at a chosen distance, light and moment. */
@Component({
  selector: 'zf-face-view',
  imports: [
    FaceCanvas,
    MatButtonModule,
    MatButtonToggleModule,
    MatIconModule,
    MatProgressBarModule,
    MatSliderModule,
    MatTooltipModule,
  ],
  providers: [FacePainter],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './face-view.html',
  styleUrl: './face-view.scss',
})
export class FaceView {
  private readonly store = inject(Store);
  protected readonly painter = inject(FacePainter);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly model = this.store.selectSignal(planFeature.selectModel);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  private readonly inGesture = this.store.selectSignal(planFeature.selectInGesture);
  private readonly size = sizeOf(inject<ElementRef<HTMLElement>>(ElementRef), { width: 690, height: 500 });

  private readonly units = inject(Units).system;

  protected readonly view = signal<FaceViewKey>('arm');
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

  private readonly look = computed((): FaceLook => {
    const { width, height } = this.size();
    const age = this.shownAge();
    return {
      view: this.view(),
      columns: Math.max(120, width - 32),
      rows: Math.max(100, height - 72),
      quality: 'full',
      halfPixels: false,
      raking: this.raking(),
      age: age >= this.wholeAge() ? null : age,
    };
  });

  private readonly request = computed(() => {
    const model = this.model();
    const forecast = this.forecast();
    return model === null || forecast === null ? null : faceRequest(model, forecast, this.look());
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
    return view.reduced ? `${size} of the middle: a whole panel of so fine a web is too much to draw` : size;
  });
  protected readonly scaleBar = computed(() => {
    const view = this.shownView();
    const frame = this.frame();
    if (view === null || frame === null) return null;
    const bars = this.units() === 'imperial' ? INCH_BARS : SCALE_BARS;
    const mm = bars.findLast((bar) => bar < view.widthMm / 3.2) ?? bars[0]!;
    const { number, unit } = lengthShown(mm / 1000, this.units());
    return { text: `${number} ${unit}`, px: (mm / view.widthMm) * frame.width };
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
      const coarse = faceRequest(this.model()!, this.forecast()!, {
        ...this.look(),
        quality: 'coarse',
        halfPixels: true,
      });
      const half = { ...fine, columns: coarse.columns, rows: coarse.rows };
      if (this.sliding()) this.painter.show({ now: half, rested: null });
      else this.painter.show({ now: coarse, rested: this.inGesture() ? null : fine });
    });
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
}
