import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { WANT_KEYS } from '@zaffet/contract';
import { type Wish } from '@zaffet/core/solve';
import { LOOK_ZONE_NAMES, shortWindows, stepChanges } from '@zaffet/words';
import {
  type EffectKey,
  effectPlan,
  EFFECTS,
  effectWants,
  gives,
  lookCandidates,
  lookWay,
  type LookWay,
  NO_WANTS,
  type PartPlan,
  wishOf,
} from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { newId } from '../data/fresh';
import { Units } from '../data/units';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { PartFace } from '../ui/part-face';
import { sizeOf } from '../ui/size-of';
import { FaceClient } from '../workers/face.client';
import { FacePool } from '../workers/face.pool';
import { SolveClient } from '../workers/solve.client';
import { ColoursPanel } from './colours-panel';
import { type EffectChosen, EffectCards } from './effect-cards';
import { type LookWhere, zonesOf } from './places';
import { WantsPanel } from './wants-panel';

/** A page narrower than this has its columns drawn in, as the style sheet does [px]. */
const NARROW = 1062;

/** How it shall look, place by place: effects to choose from, figures to set, colours. */
@Component({
  selector: 'zf-look-page',
  imports: [ColoursPanel, EffectCards, MatButtonModule, PartFace, RouterLink, WantsPanel],
  providers: [FaceClient, FacePool, SolveClient],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1 class="visually-hidden">Look</h1>
    <section class="effects" aria-labelledby="effects-title">
      <h2 id="effects-title">How should {{ whereText() }} look?</h2>
      <p class="quiet">Drawn on this part, in your colours. Choose one for its figures.</p>
      <zf-effect-cards (chosen)="choose($event)" />
    </section>
    <section class="part" aria-label="The part as planned">
      <div class="zones" role="group" aria-label="Place of the part">
        @for (zone of zones(); track zone) {
          <button type="button" [attr.aria-pressed]="zone === where()" (click)="where.set(zone)">
            {{ zone === 'whole' ? 'All of it' : names[zone] }}
            @if (wished(zone)) {
              <span class="dot" aria-label="wished for"></span>
            }
          </button>
        }
      </div>
      <div class="stage">
        <div class="panel" [style.width.px]="drawn().width" [style.height.px]="drawn().height">
          <zf-part-face
            [plan]="plan()!"
            [first]="true"
            [columns]="drawn().width"
            [rows]="drawn().height"
            label="The part as it is planned now"
          />
          @for (zone of plan()!.part.zones; track zone.id) {
            <i
              [class.pull]="zone.oval || zone.kind === 'pull'"
              [class.on]="zone.kind === where()"
              [style.left.%]="(zone.leftMm / plan()!.part.widthMm) * 100"
              [style.top.%]="(zone.topMm / plan()!.part.heightMm) * 100"
              [style.width.%]="(zone.widthMm / plan()!.part.widthMm) * 100"
              [style.height.%]="(zone.heightMm / plan()!.part.heightMm) * 100"
            ></i>
          }
        </div>
      </div>
      @if (picked(); as effect) {
        <div class="picked">
          <p role="status">
            <strong>{{ effect.name }}</strong> is what you want now. {{ effect.words }} {{ wayText() }}
          </p>
          @if (changes(); as way) {
            <ul>
              @for (line of way.lines; track $index) {
                <li>{{ line }}</li>
              }
            </ul>
            <button mat-stroked-button (click)="takeWay(way)">Change the steps so</button>
          }
          <a mat-button routerLink="../layers">To the layers</a>
        </div>
      }
      <zf-colours-panel />
    </section>
    <section class="wants" aria-label="Wanted figures"><zf-wants-panel [where]="where()" /></section>
  `,
  styleUrl: './look.page.scss',
})
export class LookPage {
  private readonly store = inject(Store);
  private readonly client = inject(SolveClient);
  private readonly units = inject(Units).system;
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  protected readonly names = LOOK_ZONE_NAMES;
  private readonly size = sizeOf(inject<ElementRef<HTMLElement>>(ElementRef), { width: 1192, height: 748 });

  protected readonly zones = computed(() => zonesOf(this.plan()!.part));
  /** Another part may not have the place that was looked at. */
  protected readonly where = linkedSignal<LookWhere[], LookWhere>({
    source: this.zones,
    computation: (zones, before) =>
      before !== undefined && zones.includes(before.value) ? before.value : 'whole',
  });
  protected readonly whereText = computed(() => {
    const where = this.where();
    return where === 'whole' ? 'it' : `the ${LOOK_ZONE_NAMES[where].toLowerCase()}`;
  });
  /** The part as large as there is room, in whole pixels. */
  protected readonly drawn = computed(() => {
    const { widthMm, heightMm } = this.plan()!.part;
    const page = this.size();
    const beside = page.width < NARROW ? 196 + 286 : 372 + 320;
    const below =
      300 +
      (page.width < NARROW ? 90 : 0) +
      (this.picked() === null ? 0 : this.changes() === null ? 92 : 190);
    const room = {
      width: Math.max(160, page.width - beside - 40),
      height: Math.max(150, page.height - below),
    };
    const scale = Math.min(room.width / widthMm, room.height / heightMm);
    return { width: Math.round(widthMm * scale), height: Math.round(heightMm * scale) };
  });

  private readonly place = computed(() => `${this.plan()!.part.id} ${this.where()}`);
  /** How to get what was chosen: null while it is worked out, and where only a place of the part is looked at. */
  private readonly way = signal<Way | 'failed' | 'none' | null>(null);
  protected readonly changes = computed(() => {
    const way = this.way();
    return typeof way === 'string' || way === null || way.lines.length === 0 ? null : way;
  });
  protected readonly wayText = computed(() => {
    const way = this.way();
    if (this.where() !== 'whole') return 'Press "Work it so, just here" to get it in this place.';
    if (way === null) return 'Working out what to change …';
    if (way === 'failed') return 'The changes could not be worked out. Choose it again.';
    if (way === 'none') return 'Neither technique gives these figures. "Find recipes" tries all of them.';
    if (way.lines.length === 0) return 'The steps you have give it already.';
    return way.keeps
      ? 'Your technique can do it with these changes:'
      : 'Your technique cannot do it. Another one can, with these steps:';
  });

  private readonly effect = linkedSignal<string, EffectChosen | null>({
    source: this.place,
    computation: () => null,
  });
  protected readonly picked = computed(() => {
    const effect = this.effect();
    return effect === null ? null : EFFECTS[effect.key];
  });

  protected wished(zone: LookWhere): boolean {
    const { look } = this.plan()!;
    const wants = zone === 'whole' ? look : (look.zones[zone] ?? NO_WANTS);
    return WANT_KEYS.some((key) => wants[key] !== null);
  }

  /** The figures of the effect become what is wanted. */
  protected choose(effect: EffectChosen): void {
    const where = this.where();
    const wants = effectWants(effect.plan);
    const { look } = this.plan()!;
    this.store.dispatch(
      PlanEditor.lookChanged({
        changes: where === 'whole' ? wants : { zones: { ...look.zones, [where]: wants } },
      }),
    );
    this.effect.set(effect);
  }

  /** What the way to the look hangs on: it is worked out again when steps, wishes or the part change. */
  private readonly asked = computed(
    (): Asked | null => {
      const effect = this.effect();
      const plan = this.plan();
      if (effect === null || plan === null || this.where() !== 'whole') return null;
      return { key: effect.key, plan, wish: wishOf(plan.look) };
    },
    { equal: (a, b) => JSON.stringify(hangsOn(a)) === JSON.stringify(hangsOn(b)) },
  );

  constructor() {
    effect(() => {
      const asked = this.asked();
      untracked(() => void this.findWay(asked));
    });
  }

  private async findWay(asked: Asked | null): Promise<void> {
    this.way.set(null);
    if (asked === null) return;
    const { key, plan, wish } = asked;
    try {
      const other = effectPlan(plan, key, newId);
      const recipes = gives(plan, wish)
        ? []
        : await this.client.find(
            { wish, candidates: lookCandidates(plan, other), deadline: null },
            () => undefined,
          );
      if (recipes === null || this.asked() !== asked) return;
      const way = lookWay(plan, other, wish, recipes);
      this.way.set(
        way === null
          ? 'none'
          : {
              ...way,
              lines: [
                ...stepChanges(plan, way.after, this.units()),
                ...(way.keeps ? [] : shortWindows(way.after)),
              ],
            },
      );
    } catch {
      if (this.asked() === asked) this.way.set('failed');
    }
  }

  /** Puts the steps in the place of those there; one undo brings them back. */
  protected takeWay({ steps }: Way): void {
    this.store.dispatch(PlanEditor.stepsReplaced({ steps }));
  }
}

/** A way to a look, with what it changes. */
type Way = LookWay & { readonly lines: readonly string[] };

/** A look that is wanted of a part. */
interface Asked {
  readonly key: EffectKey;
  readonly plan: PartPlan;
  readonly wish: Wish;
}

const hangsOn = (asked: Asked | null): unknown =>
  asked && [
    asked.key,
    asked.wish,
    asked.plan.finish.steps,
    asked.plan.part,
    asked.plan.air,
    asked.plan.media,
  ];
