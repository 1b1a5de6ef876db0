import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
} from '@angular/core';
import { LIMITS, type Part, type Plan } from '@zaffet/contract';
import { unfold } from '@zaffet/core/piece';
import { lengthShown, substrateName } from '@zaffet/words';
import { partPlan } from '@zaffet/workshop';
import { Units } from '../data/units';
import { fitted } from '../plan/edits';
import { PartFace } from '../ui/part-face';
import { sizeOf } from '../ui/size-of';
import { Hold, type Pull } from '../ui/hold';

/** Between parts on the sheet [m], and round them [px]. */
const GAP = 0.05;
const MARGIN = 26;
/** Parts wider than this carry their name on them [px]. */
const ROOM_FOR_NAME = 48;

/** A size as the hand drags it. */
export interface Resized {
  readonly partId: string;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** The piece unfolded: every part to scale, chosen here, and drawn larger or smaller by its corner. */
@Component({
  selector: 'zf-unfolded-sheet',
  imports: [Hold, PartFace],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (part of drawn(); track part.id) {
      <div
        class="part"
        [class]="part.substrate"
        [class.on]="part.id === chosen()"
        [class.oval]="part.oval"
        [style.background]="part.colour"
        [style.left.px]="part.left"
        [style.top.px]="part.top"
        [style.width.px]="part.width"
        [style.height.px]="part.height"
      >
        @if (faces()) {
          <zf-part-face
            [plan]="part.plan"
            [columns]="part.columns"
            [rows]="part.rows"
            [label]="'How ' + part.name + ' will look'"
          />
        }
        @for (zone of part.zones; track zone.id) {
          <i
            class="zone"
            [class.oval]="zone.oval"
            [style.left.%]="zone.left"
            [style.top.%]="zone.top"
            [style.width.%]="zone.width"
            [style.height.%]="zone.height"
            [title]="zone.name"
          ></i>
        }
        <button
          type="button"
          class="pick"
          [attr.aria-pressed]="part.id === chosen()"
          [attr.aria-label]="part.name + ', ' + part.size + ', ' + part.surface"
          (click)="picked.emit(part.id)"
        ></button>
        <span class="name" [class.below]="!part.roomy" aria-hidden="true">{{ part.name }}</span>
        @if (part.id === chosen()) {
          <span class="across" aria-hidden="true">{{ part.acrossText }}</span>
          <span class="down" aria-hidden="true">{{ part.downText }}</span>
          <span
            class="corner"
            aria-hidden="true"
            (zfHold)="grab($event, part.id)"
            (pulled)="drag($event)"
            (released)="release()"
          ></span>
        }
      </div>
    }
    <div class="hand" aria-hidden="true" [style.width.px]="0.2 * scale()">
      <span>a spread hand, {{ length(200) }}</span>
    </div>
  `,
  styleUrl: './unfolded-sheet.scss',
})
export class UnfoldedSheet {
  readonly plan = input.required<Plan>();
  readonly chosen = input.required<string>();
  /** Parts as they will look, instead of as they are. */
  readonly faces = input.required<boolean>();
  readonly picked = output<string>();
  readonly resized = output<Resized>();
  readonly resizeEnded = output();
  private readonly units = inject(Units).system;
  private readonly size = sizeOf(inject<ElementRef<HTMLElement>>(ElementRef), { width: 560, height: 560 });
  private dragging: { id: string; x: number; y: number; part: Part; scale: number } | null = null;

  private readonly sheet = computed(() =>
    unfold(
      this.plan().piece.parts.map(({ id, widthMm, heightMm, facing }) => ({
        id,
        facing,
        width: widthMm / 1000,
        height: heightMm / 1000,
      })),
      GAP,
    ),
  );
  /** Pixels per metre. */
  protected readonly scale = computed(() => {
    const { width, height } = this.sheet();
    const room = this.size();
    return Math.min((room.width - 2 * MARGIN) / width, (room.height - 2 * MARGIN - 30) / height, 900);
  });
  protected readonly length = (mm: number): string => {
    const { number, unit } = lengthShown(mm / 1000, this.units());
    return `${number} ${unit}`;
  };

  protected readonly drawn = computed(() => {
    const plan = this.plan();
    const scale = this.scale();
    const { placed, width } = this.sheet();
    const room = this.size();
    const left0 = Math.max(MARGIN, (room.width - width * scale) / 2);
    return placed.map((place) => {
      const part = plan.piece.parts.find(({ id }) => id === place.id)!;
      const { widthMm, heightMm } = part;
      const pixels = { width: place.width * scale, height: place.height * scale };
      return {
        id: part.id,
        name: part.name,
        oval: part.oval,
        substrate: part.substrate,
        colour: part.ground.colour,
        surface: substrateName(part.substrate),
        plan: partPlan(plan, part.id),
        left: left0 + place.x * scale,
        top: MARGIN + place.y * scale,
        ...pixels,
        columns: Math.max(8, Math.round(pixels.width)),
        rows: Math.max(8, Math.round(pixels.height)),
        roomy: pixels.width > ROOM_FOR_NAME && pixels.height > 32,
        size: `${this.length(widthMm)} by ${this.length(heightMm)}`,
        acrossText: this.length(widthMm),
        downText: this.length(heightMm),
        zones: part.zones.map((zone) => ({
          id: zone.id,
          oval: zone.oval || zone.kind === 'pull',
          name: zone.name,
          left: (zone.leftMm / widthMm) * 100,
          top: (zone.topMm / heightMm) * 100,
          width: (Math.min(zone.widthMm, widthMm - zone.leftMm) / widthMm) * 100,
          height: (Math.min(zone.heightMm, heightMm - zone.topMm) / heightMm) * 100,
        })),
      };
    });
  });

  protected grab(event: PointerEvent, id: string): void {
    event.preventDefault();
    const part = this.plan().piece.parts.find((candidate) => candidate.id === id)!;
    this.dragging = { id, x: event.clientX, y: event.clientY, part, scale: this.scale() };
  }

  protected drag({ x, y }: Pull): void {
    if (this.dragging !== null) this.send(x, y);
  }

  protected release(): void {
    if (this.dragging === null) return;
    this.dragging = null;
    this.resizeEnded.emit();
  }

  private send(x: number, y: number): void {
    const { id, part, scale, ...from } = this.dragging!;
    const step = { ...LIMITS.sideMm, step: 5 };
    this.resized.emit({
      partId: id,
      widthMm: fitted(step, part.widthMm + ((x - from.x) / scale) * 1000),
      heightMm: fitted(step, part.heightMm + ((y - from.y) / scale) * 1000),
    });
  }
}
