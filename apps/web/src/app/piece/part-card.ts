import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import {
  FITTING_KINDS,
  FITTING_TREATMENTS,
  type FittingKind,
  type FittingTreatment,
  LIMITS,
  type NamedColour,
  type Part,
  type PartZone,
  PLACED_ZONE_NAMES,
  plainText,
} from '@zaffet/contract';
import { substrate, SUBSTRATE_KEYS } from '@zaffet/core/media';
import { FACINGS, PLACED_ZONES } from '@zaffet/core/piece';
import {
  COAT_AGES,
  GRAIN_WAYS,
  type History,
  OLD_COATS,
  RELIEF_KINDS,
  type ReliefKind,
  USES,
} from '@zaffet/core/plan';
import {
  COAT_AGE_NAMES,
  FACING_NAMES,
  FITTING_NAMES,
  GRAIN_NAMES,
  OLD_COAT_NAMES,
  perCent,
  RELIEF_NAMES,
  substrateName,
  TREATMENT_NAMES,
  USE_NAMES,
} from '@zaffet/words';
import { meantFinishes, meterReads } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { newId } from '../data/fresh';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { ChoiceField, optionsOf } from '../ui/choice-field';
import { NumberField } from '../ui/number-field';
import { PictureSheet } from '../ui/picture-sheet';

/** A new place begins as this share of the part, in its middle. */
const NEW_ZONE = 0.25;

const NEW_RELIEF = { depthMm: 3, pitchMm: 12 };
/** Stands for a body that is not there yet. */
const NEW_BODY = 'new';

/** Everything that is known of one part: size, surface, past, use, what is fixed to it. */
@Component({
  selector: 'zf-part-card',
  imports: [
    ChoiceField,
    MatButtonModule,
    MatButtonToggleModule,
    MatCheckboxModule,
    MatDialogModule,
    MatIconModule,
    MatTooltipModule,
    NumberField,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './part-card.html',
  styleUrl: './part-card.scss',
})
export class PartCard {
  private readonly store = inject(Store);
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  protected readonly part = computed(() => this.plan()!.part);
  protected readonly parts = computed(() => this.file()?.piece.parts ?? []);
  protected readonly finishes = computed(() => {
    const file = this.file();
    const named = file === null ? [] : meantFinishes(file).map(({ id, name }) => ({ value: id, name }));
    return [...named, { value: 'own', name: 'One of its own' }];
  });
  protected readonly limits = LIMITS;
  protected readonly facings = optionsOf(FACING_NAMES, FACINGS);
  protected readonly substrates = SUBSTRATE_KEYS;
  protected readonly substrateName = substrateName;
  protected readonly grains = GRAIN_WAYS;
  protected readonly grainNames = GRAIN_NAMES;
  protected readonly reliefs = RELIEF_KINDS;
  protected readonly reliefNames = RELIEF_NAMES;
  protected readonly groundColour = computed(
    () => this.part().ground.colour ?? substrate(this.part().substrate).colour,
  );
  private readonly dialog = inject(MatDialog);
  protected readonly uses = USES;
  protected readonly useNames = USE_NAMES;
  protected readonly oldCoats = optionsOf(OLD_COAT_NAMES, OLD_COATS);
  protected readonly ages = optionsOf(COAT_AGE_NAMES, COAT_AGES);
  protected readonly fittingKinds = FITTING_KINDS;
  protected readonly fittingNames = FITTING_NAMES;
  protected readonly treatments = FITTING_TREATMENTS;
  protected readonly treatmentNames = TREATMENT_NAMES;
  protected readonly zoneKinds = optionsOf(PLACED_ZONE_NAMES, PLACED_ZONES);

  /** What the stand-in for a moisture meter read of this part; nothing until it is asked. */
  protected readonly metered = linkedSignal<string, string>({
    source: computed(() => this.part().id),
    computation: () => '',
  });
  protected measure(): void {
    const { temperatureC, humidity } = this.file()!.air;
    const { places, content } = meterReads(this.part().id, temperatureC, humidity);
    const read = places.map((one) => (one * 100).toFixed(1)).join(', ');
    this.metered.set(`Five places read ${read} %; ${perCent(content)} is taken. Simulated, not measured.`);
    this.change({ moisture: content });
  }

  protected change(changes: Partial<Part>): void {
    this.store.dispatch(PlanEditor.partChanged({ partId: this.part().id, changes, gesture: null }));
  }

  protected changeHistory(changes: Partial<History>): void {
    this.change({ history: { ...this.part().history, ...changes } });
  }

  protected changeGround(changes: Partial<Part['ground']>): void {
    this.change({ ground: { ...this.part().ground, ...changes } });
  }

  /** What is there, out of a photo of it. */
  protected pick(): void {
    this.dialog
      .open<PictureSheet, void, readonly NamedColour[]>(PictureSheet, { width: '900px', maxWidth: '95vw' })
      .afterClosed()
      .subscribe((colours) => {
        const first = colours?.[0];
        if (first !== undefined) this.changeGround({ colour: first.colour });
      });
  }

  /** A new relief begins as a middling one; another kind keeps its depth. */
  protected setRelief(kind: ReliefKind | 'plain'): void {
    const { relief } = this.part();
    this.change({ relief: kind === 'plain' ? null : { ...(relief ?? NEW_RELIEF), kind } });
  }

  /** What a part may be turned with: any body of the piece, one of its own, or nothing else. */
  protected readonly bodies = computed(() => [
    ...(this.file()?.piece.bodies ?? []).map(({ id, name }) => ({ value: id, name })),
    { value: '', name: 'By itself' },
    { value: NEW_BODY, name: 'Something new' },
  ]);

  protected turnWith(value: string): void {
    const { id: partId, name } = this.part();
    const known = this.file()!.piece.bodies.find(({ id }) => id === value) ?? null;
    const body = value === NEW_BODY ? { id: newId(), name } : known;
    this.store.dispatch(PlanEditor.partTurnedWith({ partId, body }));
  }

  protected rename(input: HTMLInputElement): void {
    const name = plainText(input.value);
    if (name === '') input.value = this.part().name;
    else this.change({ name });
  }

  /** Another finish, or the same begun anew as this part's own. */
  protected setFinish(id: string): void {
    const part = this.part();
    if (id !== 'own') {
      this.change({ finish: id });
      return;
    }
    const steps = this.file()!.finishes.find((finish) => finish.id === part.finish)!.steps;
    this.store.dispatch(
      PlanEditor.finishParted({
        partId: part.id,
        finishId: newId(),
        name: part.name,
        stepIds: steps.map(() => newId()),
      }),
    );
  }

  protected treatment(kind: FittingKind): FittingTreatment | null {
    return this.part().fittings.find((fitting) => fitting.kind === kind)?.treatment ?? null;
  }

  protected setFitting(kind: FittingKind, treatment: FittingTreatment | null): void {
    const others = this.part().fittings.filter((fitting) => fitting.kind !== kind);
    this.change({ fittings: treatment === null ? others : [...others, { kind, treatment }] });
  }

  protected addZone(): void {
    const { widthMm, heightMm, zones } = this.part();
    const side = (mm: number): number => Math.max(LIMITS.zoneMm.min, Math.round(mm * NEW_ZONE));
    const taken = new Set(zones.map(({ name }) => name));
    let count = 1;
    while (taken.has(`${PLACED_ZONE_NAMES.spot} ${count}`)) count++;
    const zone: PartZone = {
      id: newId(),
      kind: 'spot',
      name: `${PLACED_ZONE_NAMES.spot} ${count}`,
      oval: false,
      leftMm: Math.round((widthMm - side(widthMm)) / 2),
      topMm: Math.round((heightMm - side(heightMm)) / 2),
      widthMm: side(widthMm),
      heightMm: side(heightMm),
    };
    this.change({ zones: [...zones, zone] });
  }

  protected changeZone(id: string, changes: Partial<PartZone>): void {
    this.change({
      zones: this.part().zones.map((zone) => (zone.id === id ? { ...zone, ...changes } : zone)),
    });
  }

  /** Steps speak of a place by its name: they go with it where no other place keeps the old one. */
  protected renameZone(zone: PartZone, input: HTMLInputElement): void {
    const name = plainText(input.value);
    if (name === '' || name === zone.name) input.value = zone.name;
    else this.store.dispatch(PlanEditor.placeRenamed({ partId: this.part().id, zoneId: zone.id, name }));
  }

  protected removeZone(id: string): void {
    this.change({ zones: this.part().zones.filter((zone) => zone.id !== id) });
  }

  protected repeat(): void {
    const part = this.part();
    const copy = { ...part, id: newId(), zones: part.zones.map((zone) => ({ ...zone, id: newId() })) };
    this.store.dispatch(PlanEditor.partsAdded({ parts: [copy] }));
  }

  protected remove(): void {
    this.store.dispatch(PlanEditor.partRemoved({ partId: this.part().id }));
  }
}
