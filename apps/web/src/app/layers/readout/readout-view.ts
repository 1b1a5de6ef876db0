import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { LIMITS } from '@zaffet/contract';
import { hazards } from '@zaffet/core/hazard';
import { type Area, AREAS } from '@zaffet/core/maps';
import { type LayerShare } from '@zaffet/core/outcome';
import { type Figure, type FigureKey, type FigureRow, figureRow } from '@zaffet/core/readout';
import {
  AREA_NAMES,
  FIGURE_WORDS,
  figures,
  figureRange,
  figureText,
  HAZARD_DEFERENCE,
  hazardWords,
  layerWord,
  MEAN_COLOUR_WORDS,
  moverText,
  NATURAL_WORDS,
  perCent,
  stepTitle,
  groundName,
} from '@zaffet/words';
import { Store } from '@ngrx/store';
import { Units } from '../../data/units';
import { PlanEditor } from '../../plan/plan.actions';
import { forecastAfterTheHand } from '../../plan/after-the-hand';
import { planFeature } from '../../plan/plan.feature';
import { Band } from '../../ui/band';
import { NumberField } from '../../ui/number-field';
import { FaceClient } from '../../workers/face.client';
import { Note } from '../note/note';
import { SolveSheet } from '../../solve/solve-sheet';
import { FiguresReading } from '../../workers/figures-reading';
import { NaturalReading } from '../../workers/natural-reading';

/** Shares under these are not told: nobody sees them. */
const SEEN = 0.004;
/** Field and edges are told apart where they differ by more than this share of the greater. */
const TELLING = 0.08;

/** What the plan will give, figure by figure; what it says about itself; what it takes. */
@Component({
  selector: 'zf-readout-view',
  imports: [Band, MatButtonModule, MatButtonToggleModule, MatDialogModule, Note, NumberField],
  providers: [FaceClient, FiguresReading, NaturalReading],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './readout-view.html',
  styleUrl: './readout-view.scss',
  host: { '[attr.aria-busy]': 'busy() || null' },
})
export class ReadoutView {
  private readonly store = inject(Store);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly model = this.store.selectSignal(planFeature.selectModel);
  private readonly forecast = forecastAfterTheHand();
  private readonly figuresReading = inject(FiguresReading);
  private readonly readout = this.figuresReading.readout;
  protected readonly busy = this.figuresReading.busy;
  protected readonly figuresTrouble = this.figuresReading.trouble;
  private readonly dialog = inject(MatDialog);
  private readonly units = inject(Units).system;
  protected readonly limits = LIMITS;
  protected readonly barOf = (key: FigureKey): FigureRow['bar'] => figureRow(key).bar;
  protected readonly deference = HAZARD_DEFERENCE;
  protected readonly tab = signal<'figures' | 'notes'>('figures');
  /** The figure whose meaning is told. */
  protected readonly explained = signal<FigureKey | 'colour' | null>(null);
  protected explain(key: FigureKey | 'colour'): void {
    this.explained.update((before) => (before === key ? null : key));
  }
  protected readonly look = computed(() => this.plan()!.look);
  protected readonly cracks = computed(() => this.forecast()?.crackedCoat != null);

  /** Where something tells the zones of the panel apart, each can be asked for by itself. */
  protected readonly zoned = computed(() => {
    const readout = this.readout();
    return readout !== null && readout.field !== readout.panel;
  });
  protected readonly areas = AREAS.map((area) => ({ area, name: AREA_NAMES[area] }));
  private readonly asked = signal<Area>('panel');
  protected readonly area = computed((): Area => (this.zoned() ? this.asked() : 'panel'));
  private readonly told = computed(() => this.readout()?.[this.area()] ?? null);

  protected readonly lines = computed(() =>
    foremostFirst(this.told()?.figures ?? [])
      .filter((figure) => this.tells(figure))
      .map((figure) => this.line(figure)),
  );
  /** What the eye makes of it all from across the room. */
  protected readonly mean = computed(() => {
    const told = this.told();
    const plan = this.plan();
    if (told === null || plan === null) return null;
    const { colour, within, movers } = told.colour;
    return {
      colour,
      within: figures(within),
      meaning: MEAN_COLOUR_WORDS.meaning,
      name: MEAN_COLOUR_WORDS.name,
      movers: movers
        .slice(0, 2)
        .map((mover) =>
          moverText('colour', mover, (id) => layerWord(plan.steps, id, plan.media), this.units()),
        ),
    };
  });
  protected readonly findings = computed(() => this.forecast()?.findings ?? []);
  /** What a painter should read first: trouble, else whether the moment is right. */
  protected readonly foremost = computed(() => {
    const findings = this.findings();
    const first = findings[0];
    if (first === undefined || first.level === 'stop' || first.level === 'warn') return first ?? null;
    return findings.find(({ level }) => level === 'good') ?? first;
  });
  protected readonly others = computed(() =>
    this.findings().filter((finding) => finding !== this.foremost()),
  );
  /** Notes that ask for something to be done. */
  protected readonly urgent = computed(
    () => this.findings().filter(({ level }) => level === 'stop' || level === 'warn').length,
  );

  private readonly naturalReading = inject(NaturalReading);
  protected readonly naturalTrouble = this.naturalReading.trouble;
  /** How natural the panel looks, what stands out most, and what would change it. */
  protected readonly natural = computed(() => {
    const reading = this.naturalReading.reading();
    if (reading === null) return null;
    const { wear, crackle, darkWax } = reading;
    const parts: string[] = [];
    if (wear !== null) parts.push(`${perCent(wear.share)} worn or chipped, in ${wear.patches} patches`);
    if (wear !== null) parts.push(`rims ${figures(wear.rimQuotient)} times as worn as the whole`);
    if (crackle !== null) parts.push(`${perCent(crackle.share)} of the panel crackled`);
    if (darkWax > SEEN) parts.push(`dark wax on ${perCent(darkWax)}`);
    return {
      score: reading.codes[0] === 'plain' ? null : reading.score,
      notes: reading.codes.slice(0, 2).map((code) => ({ code, ...NATURAL_WORDS[code] })),
      measured: parts.join('; '),
    };
  });

  /** Layers that are seen, from the ground up, with how much of each. */
  protected readonly layers = computed(() => {
    const plan = this.plan();
    const forecast = this.forecast();
    if (plan === null || forecast === null) return [];
    const area = this.area();
    const shareOf = (layer: LayerShare): number => (area === 'panel' ? layer.share : layer.zones[area]);
    return forecast.layers
      .filter((layer) => shareOf(layer) > SEEN)
      .map((layer) => {
        const figure = this.told()?.layers.find((l) => l.layerId === layer.id);
        const share = shareOf(layer);
        const step = plan.steps.find((s) => s.id === layer.id);
        const { field, edge } = layer.zones;
        const differs = area === 'panel' && Math.abs(field - edge) > 0.01;
        return {
          id: layer.id,
          word: layerWord(plan.steps, layer.id, plan.media),
          title: step === undefined ? groundName(layer.id, plan.part.substrate) : stepTitle(step, plan.media),
          share,
          colour: forecast.appearance.layers.find((look) => look.id === layer.id)?.seen ?? '#d8d2c0',
          number: figures(share * 100),
          band:
            figure?.low == null || figure.high === null
              ? ''
              : `${figures(figure.low * 100)} to ${figures(figure.high * 100)}`,
          zones: differs ? `field ${perCent(field)}, edges ${perCent(edge)}` : '',
          movers: (figure?.movers ?? [])
            .slice(0, 2)
            .map((mover) =>
              moverText('layer', mover, (id) => layerWord(plan.steps, id, plan.media), this.units()),
            ),
        };
      })
      .reverse();
  });

  protected readonly hazards = computed(() => {
    const plan = this.plan();
    const model = this.model();
    if (plan === null || model === null) return [];
    return hazards(model).map(({ code, stepIds }) => ({
      code,
      ...hazardWords(code),
      steps: [
        ...new Set(
          stepIds.map((id) => {
            const step = plan.steps.find((s) => s.id === id);
            return step === undefined ? '' : stepTitle(step, plan.media);
          }),
        ),
      ].join(', '),
    }));
  });

  /** A figure is told where the plan has something of the kind. */
  private tells(figure: Figure): boolean {
    const { key, value } = figure;
    const { tells } = figureRow(key);
    if (tells === 'cracks') {
      const slips = this.forecast()?.coats.some(
        (coat) => coat.medium.slipRate > 0 && coat.medium.kind !== 'clear',
      );
      return this.cracks() || (slips === true && (key === 'strength' || key === 'spacing'));
    }
    if (tells === 'loss') return (value ?? 0) > SEEN;
    return value !== null;
  }

  private line(figure: Figure): {
    figure: Figure;
    name: string;
    meaning: string;
    number: string;
    unit: string;
    band: string;
    zones: string;
    movers: string[];
    wanted: number | null;
  } {
    const words = FIGURE_WORDS[figure.key];
    const plan = this.plan();
    const steps = plan?.steps ?? [];
    const value = figure.value === null ? null : figureText(figure.key, figure.value, this.units());
    const { low, high } = figure;
    const band =
      low === null || high === null || low === high ? '' : figureRange(figure.key, low, high, this.units());
    return {
      figure,
      name: words.name,
      meaning: words.meaning,
      number: value?.number ?? 'none',
      unit: value?.unit ?? '',
      band,
      zones: this.zonesText(figure),
      movers: figure.movers
        .slice(0, 2)
        .map((mover) =>
          moverText(figure.key, mover, (id) => layerWord(steps, id, plan?.media), this.units()),
        ),
      wanted: this.wanted(figure.key),
    };
  }

  /** What field and edges come to, where the panel's figure hides that they differ. */
  private zonesText({ key, value }: Figure): string {
    const readout = this.readout();
    if (readout === null || this.area() !== 'panel' || !this.zoned() || value === null) return '';
    const of = (area: Area): number | null =>
      readout[area].figures.find((figure) => figure.key === key)?.value ?? null;
    const field = of('field');
    const edge = of('edge');
    if (field === null || edge === null || Math.abs(field - edge) <= TELLING * Math.max(field, edge))
      return '';
    const text = (amount: number): string => {
      const { number, unit } = figureText(key, amount, this.units());
      return `${number} ${unit}`.trim();
    };
    return `field ${text(field)}, edges ${text(edge)}`;
  }

  protected ask(area: Area): void {
    this.asked.set(area);
  }

  private wanted(key: FigureKey): number | null {
    const look = this.plan()?.look;
    if (key === 'spacing') return look?.spacingMm == null ? null : look.spacingMm / 1000;
    if (key === 'opening') return look?.openingMm == null ? null : look.openingMm / 1000;
    if (key === 'chips' || key === 'worn') return look?.[key] ?? null;
    if (key === 'gloss') return look?.glossUnits ?? null;
    return null;
  }

  protected openSolve(): void {
    this.dialog.open(SolveSheet, { width: '1040px', maxWidth: '96vw', maxHeight: '92vh' });
  }

  protected want(changes: { spacingMm?: number | null; openingMm?: number | null }): void {
    this.store.dispatch(PlanEditor.lookChanged({ changes }));
  }
}

/** Where more comes off than shows in cracks, flakes make the look and are told first. */
function foremostFirst(figures: readonly Figure[]): readonly Figure[] {
  const share = (key: FigureKey): number => figures.find((figure) => figure.key === key)?.value ?? 0;
  if (share('chips') <= share('openArea')) return figures;
  const flakes = (figure: Figure): boolean => figure.key === 'chips' || figure.key === 'flake';
  return [...figures.filter(flakes), ...figures.filter((figure) => !flakes(figure))];
}
