import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { type Limit, LIMITS, type Look, WANT_KEYS, type Wants } from '@zaffet/contract';
import { isRegion } from '@zaffet/core/maps';
import { restraint } from '@zaffet/core/notes';
import { figureRow, type Predicted } from '@zaffet/core/readout';
import { placeValues, type WishKey } from '@zaffet/core/solve';
import { underShare } from '@zaffet/core/outcome';
import {
  FIGURE_WORDS,
  figures,
  figureText,
  LOOK_ZONE_NAMES,
  NATURAL_MEANING,
  NATURAL_WORDS,
  RESTRAINT_WORDS,
  stepTitle,
  UNDER_MEANING,
  WISH_WORDS,
  groundName,
} from '@zaffet/words';
import { NO_WANTS } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { Units } from '../data/units';
import { FiguresReading } from '../workers/figures-reading';
import { NaturalReading } from '../workers/natural-reading';
import { SolveSheet } from '../solve/solve-sheet';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { Band } from '../ui/band';
import { NumberField } from '../ui/number-field';
import { type Photographed, PhotoSheet, type TakenReading } from '../ui/photo-sheet';
import { type LookWhere, placesOf } from './places';
import { WANT_LIMITS, WANTED_LENGTHS, WISH_OF } from '../data/wants';
import { workPlaces } from './work-place';

/** Bars of shares. */
const SHARE = { from: 0, to: 1, scale: 'linear' } as const;
const SEEN = 0.004;
/** A share under this is told as none. */
const UNSEEN = 5e-4;

/** What a picture tells, as a wish that a plan can hold: as fine as it can be read, and no further than a wish may go. */
function wantsOf({ spacingMm, openingMm, openArea }: TakenReading): Partial<Wants> {
  const within = (value: number, { min, max }: Limit): number =>
    Math.min(max, Math.max(min, Number(value.toPrecision(2))));
  return {
    ...(spacingMm === null ? {} : { spacingMm: within(spacingMm, LIMITS.spacingMm) }),
    ...(openingMm === null ? {} : { openingMm: within(openingMm, LIMITS.openingMm) }),
    ...(openArea === null ? {} : { under: within(openArea, LIMITS.share) }),
  };
}

/** One figure with what is wanted of it; values in the core's units, what is wanted as the plan keeps it. */
interface WantLine extends Omit<Predicted, 'movers'> {
  readonly key: string;
  readonly name: string;
  /** What it means, in a plain sentence. */
  readonly meaning: string;
  readonly number: string;
  readonly unit: string;
  readonly wanted: number | null;
  readonly wantedAt: number | null;
  readonly bar: { readonly from: number; readonly to: number; readonly scale: 'log' | 'linear' };
  readonly limit: Limit;
  readonly factor: number;
  readonly shownUnit: string | undefined;
  readonly set: (value: number | null) => void;
}

/** How it shall look in one place, and how it will: figure by figure, with what brings the two together. */
@Component({
  selector: 'zf-wants-panel',
  imports: [Band, MatButtonModule, MatButtonToggleModule, MatDialogModule, NumberField],
  providers: [FiguresReading, NaturalReading],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>{{ title() }}</h2>
    <p class="key quiet"><i class="wanted"></i> wanted <i class="value"></i> as planned now</p>
    @for (line of lines(); track line.key) {
      <div class="line" [attr.data-want]="line.key">
        <button
          type="button"
          class="name why"
          [attr.aria-expanded]="explained() === line.key"
          (click)="explain(line.key)"
        >
          {{ line.name }}
        </button>
        <span class="now"
          ><b>{{ line.number }}</b> {{ line.unit }}</span
        >
        <zf-band
          [value]="line.value"
          [low]="line.low"
          [high]="line.high"
          [wanted]="line.wantedAt"
          [from]="line.bar.from"
          [to]="line.bar.to"
          [scale]="line.bar.scale"
        />
        <zf-number
          [label]="'Wanted: ' + line.name"
          [quiet]="true"
          [value]="line.wanted"
          [limit]="line.limit"
          [factor]="line.factor"
          [unit]="line.shownUnit"
          [optional]="true"
          placeholder="any"
          (changed)="line.set($event)"
        />
        @if (explained() === line.key) {
          <p class="meaning">{{ line.meaning }}</p>
        }
      </div>
    }
    @if (where() === 'whole') {
      <h3>What should show</h3>
      @for (layer of layers(); track layer.id) {
        <div class="line layer" [attr.data-layer-want]="layer.name">
          <span class="name"><i [style.background]="layer.colour"></i>{{ layer.name }}</span>
          <span class="now"
            ><b>{{ layer.number }}</b> %</span
          >
          <zf-band
            [value]="layer.value"
            [low]="layer.low"
            [high]="layer.high"
            [wanted]="layer.wanted"
            [from]="0"
            [to]="1"
            scale="linear"
          />
          <zf-number
            [label]="'Wanted share of ' + layer.name"
            [quiet]="true"
            [value]="layer.wanted"
            [limit]="limits.share"
            [factor]="100"
            unit="%"
            [optional]="true"
            placeholder="any"
            (changed)="wantLayer(layer.id, $event)"
          />
        </div>
      }
      <h3 id="degree">Whom it is for</h3>
      <mat-button-toggle-group
        aria-labelledby="degree"
        hideSingleSelectionIndicator
        [value]="look().degree"
        (change)="change({ degree: $event.value })"
      >
        <mat-button-toggle value="keep">To keep</mat-button-toggle>
        <mat-button-toggle value="sale">For sale</mat-button-toggle>
      </mat-button-toggle-group>
      @if (look().degree === 'sale') {
        @for (word of bold(); track word) {
          <p class="hint off">{{ word }}</p>
        } @empty {
          <p class="hint">Restrained and quiet: that suits most buyers.</p>
        }
      }
      @for (note of natural(); track note) {
        <p class="hint">{{ note }}</p>
      }
      <button mat-stroked-button class="wide" (click)="measure()">Measure a picture of it …</button>
      <button mat-flat-button class="wide" (click)="solve()">Find recipes for this look …</button>
    } @else {
      <button mat-flat-button class="wide" [disabled]="!wished()" (click)="fit()">
        Work it so, just here
      </button>
      @if (figuresTrouble()) {
        <p class="hint" role="alert">
          The figures could not be worked out; these are the last ones. Change anything to try again.
        </p>
      }
      <p class="hint" role="status">{{ told() }}</p>
    }
  `,
  styleUrl: './wants-panel.scss',
})
export class WantsPanel {
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  private readonly units = inject(Units).system;
  private readonly reading = inject(NaturalReading).reading;
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  private readonly figuresReading = inject(FiguresReading);
  private readonly readout = this.figuresReading.readout;
  protected readonly figuresTrouble = this.figuresReading.trouble;
  private readonly basis = this.store.selectSignal(planFeature.selectBasis);
  readonly where = input.required<LookWhere>();
  protected readonly limits = LIMITS;
  protected readonly told = signal('');
  /** The figure whose meaning is told. */
  protected readonly explained = signal<string | null>(null);
  protected explain(key: string): void {
    this.explained.update((before) => (before === key ? null : key));
  }

  protected readonly look = computed(() => this.plan()!.look);
  protected readonly title = computed(() => {
    const where = this.where();
    return where === 'whole' ? 'All of the part' : LOOK_ZONE_NAMES[where];
  });
  private readonly wants = computed((): Wants => {
    const where = this.where();
    return where === 'whole' ? this.look() : (this.look().zones[where] ?? NO_WANTS);
  });
  protected readonly wished = computed(() => WANT_KEYS.some((key) => this.wants()[key] !== null));
  private readonly places = computed(() => placesOf(this.plan()!.part, this.where()));

  /** Figures of the place with their bands. */
  private readonly figures = computed(() => {
    const readout = this.readout();
    const where = this.where();
    if (readout === null) return [];
    if (where === 'whole') return readout.panel.figures;
    if (where === 'field' || where === 'edge' || where === 'corner') return readout[where].figures;
    return this.figuresReading.regionTold()?.figures ?? [];
  });

  constructor() {
    effect(() => {
      const place = this.places()[0];
      this.figuresReading.region.set(place !== undefined && isRegion(place) ? place : null);
    });
  }

  protected readonly lines = computed(() => {
    const wants = this.wants();
    const lines = WANT_KEYS.map((key): WantLine => {
      const wish = WISH_OF[key];
      const predicted = this.predicted(wish);
      const wanted = wants[key];
      const length = WANTED_LENGTHS.includes(key);
      const shown =
        predicted.value === null
          ? { number: 'none', unit: '' }
          : figureText(
              wish === 'under' ? 'layer' : wish,
              length || predicted.value > UNSEEN ? predicted.value : 0,
              this.units(),
            );
      return {
        key: key as string,
        name: WISH_WORDS[wish].name,
        meaning: wish === 'under' ? UNDER_MEANING : FIGURE_WORDS[wish].meaning,
        ...shown,
        ...predicted,
        wanted,
        wantedAt: wanted === null ? null : length ? wanted / 1000 : wanted,
        bar: wish === 'under' ? SHARE : figureRow(wish).bar,
        limit: WANT_LIMITS[key],
        factor: length ? 1 : 100,
        shownUnit: length ? undefined : '%',
        set: (value: number | null) => this.want({ [key]: value }),
      };
    });
    return this.where() === 'whole' ? [...lines, this.sheenLine(), ...this.naturalLine()] : lines;
  });

  private predicted(wish: WishKey): Omit<Predicted, 'movers'> {
    if (wish !== 'under') {
      const figure = this.figures().find(({ key }) => key === wish);
      return figure === undefined
        ? { value: null, low: null, high: null }
        : { value: figure.value, low: figure.low, high: figure.high };
    }
    const basis = this.basis();
    const place = this.places()[0];
    const result = this.forecast();
    if (basis === null || result === null) return { value: null, low: null, high: null };
    const value = place === undefined ? underShare(result) : placeValues(basis, place).under;
    return { value, low: value, high: value };
  }

  private sheenLine(): WantLine {
    const gloss = this.figures().find(({ key }) => key === 'gloss');
    return this.lineOf('glossUnits', FIGURE_WORDS.gloss.name, gloss ?? null, {
      wanted: this.look().glossUnits,
      number: gloss?.value == null ? 'none' : figures(gloss.value),
      unit: 'GU',
      meaning: FIGURE_WORDS.gloss.meaning,
      bar: figureRow('gloss').bar,
      limit: LIMITS.glossUnits,
      factor: 1,
      shownUnit: undefined,
      set: (value) => this.change({ glossUnits: value }),
    });
  }

  private naturalLine(): WantLine[] {
    const reading = this.reading();
    if (reading === null || reading.codes[0] === 'plain') return [];
    const value = { value: reading.score, low: reading.score, high: reading.score };
    return [
      this.lineOf('natural', 'How natural', value, {
        wanted: this.look().natural,
        number: figures(reading.score * 100),
        unit: 'of 100',
        meaning: NATURAL_MEANING,
        bar: SHARE,
        limit: LIMITS.share,
        factor: 100,
        shownUnit: 'of 100',
        set: (value) => this.change({ natural: value }),
      }),
    ];
  }

  private lineOf(
    key: string,
    name: string,
    predicted: Omit<Predicted, 'movers'> | null,
    rest: Omit<WantLine, 'key' | 'name' | 'value' | 'low' | 'high' | 'wantedAt'>,
  ): WantLine {
    const { value, low, high } = predicted ?? { value: null, low: null, high: null };
    return { key, name, value, low, high, wantedAt: rest.wanted, ...rest };
  }

  protected readonly layers = computed(() => {
    const plan = this.plan();
    const result = this.forecast();
    const told = this.readout()?.panel.layers ?? [];
    if (plan === null || result === null) return [];
    return result.appearance.layers
      .map((look) => {
        const layer = told.find(({ layerId }) => layerId === look.id);
        const step = plan.steps.find(({ id }) => id === look.id);
        return {
          id: look.id,
          name: step === undefined ? groundName(look.id, plan.part.substrate) : stepTitle(step, plan.media),
          colour: look.seen,
          value: layer?.value ?? null,
          low: layer?.low ?? null,
          high: layer?.high ?? null,
          number: figures((layer?.value ?? 0) * 100),
          wanted: plan.look.shows[look.id] ?? null,
        };
      })
      .filter(({ value, wanted }) => (value ?? 0) > SEEN || wanted !== null)
      .reverse();
  });

  protected readonly bold = computed(() => {
    const result = this.forecast();
    return result === null ? [] : restraint(result).map((code) => RESTRAINT_WORDS[code]);
  });
  /** Said only where it looks less natural than wished. */
  protected readonly natural = computed(() => {
    const reading = this.reading();
    const wanted = this.look().natural;
    if (reading === null || wanted === null || reading.score >= wanted) return [];
    return reading.codes.map((code) => `${NATURAL_WORDS[code].title} ${NATURAL_WORDS[code].remedy}`.trim());
  });

  protected change(changes: Partial<Look>): void {
    this.store.dispatch(PlanEditor.lookChanged({ changes }));
  }

  private want(changes: Partial<Wants>): void {
    const where = this.where();
    if (where === 'whole') this.change(changes);
    else this.change({ zones: { ...this.look().zones, [where]: { ...this.wants(), ...changes } } });
  }

  protected wantLayer(id: string, share: number | null): void {
    const { [id]: _before, ...others } = this.look().shows;
    this.change({ shows: share === null ? others : { ...others, [id]: share } });
  }

  /** A picture of something that looks as it shall: its cracks are measured, and wished for. */
  protected measure(): void {
    const { widthMm, heightMm } = this.plan()!.part;
    this.dialog
      .open<PhotoSheet, Photographed, TakenReading>(PhotoSheet, {
        data: { name: 'What it shall look like', widthMm, heightMm },
        width: '1000px',
        maxWidth: '96vw',
        maxHeight: '94vh',
      })
      .afterClosed()
      .subscribe((taken) => {
        if (taken !== undefined) this.want(wantsOf(taken));
      });
  }

  protected solve(): void {
    this.dialog.open(SolveSheet, { width: '1040px', maxWidth: '96vw', maxHeight: '92vh' });
  }

  /** Lays or works steps more or less in this place until it looks as wished; every step of it is one to undo. */
  protected fit(): void {
    const { worked, said } = workPlaces(this.plan()!, this.places(), this.wants(), this.units());
    for (const { stepId, map, changes } of worked)
      this.store.dispatch(PlanEditor.mapPainted({ stepId, map, changes, gesture: null }));
    this.told.set(said.join(' '));
  }
}
