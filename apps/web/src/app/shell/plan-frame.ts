import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { NavigationEnd, Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { API, LIMITS, plainText } from '@zaffet/contract';
import { lengthShown } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { filter } from 'rxjs';
import { Clock, showZone } from '../data/clock';
import { Units } from '../data/units';
import { PlanApi, PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { SheetLink } from '../ui/sheet-link';
import { ROOMS } from './rooms';
import { SaveNotice } from './save-notice';

/** Fields without a text of their own to undo in. */
const HAVE_NO_TEXT = ['range', 'checkbox', 'radio', 'color'];

/** The frame round an open plan: its name, whether it is saved, undo, the rooms in working order. */
@Component({
  selector: 'zf-plan-frame',
  imports: [
    MatButtonModule,
    MatButtonToggleModule,
    MatIconModule,
    MatMenuModule,
    MatTooltipModule,
    RouterLink,
    RouterLinkActive,
    RouterOutlet,
    SaveNotice,
    SheetLink,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plan-frame.html',
  styleUrl: './plan-frame.scss',
  host: { '(document:keydown)': 'onKey($event)' },
})
export class PlanFrame {
  protected readonly clock = inject(Clock);
  private readonly store = inject(Store);
  protected readonly units = inject(Units);
  protected readonly rooms = ROOMS;
  private readonly router = inject(Router);
  private readonly moved = toSignal(
    this.router.events.pipe(filter((event) => event instanceof NavigationEnd)),
  );
  /** The room one is in: where the guide opens. */
  protected readonly room = computed(() => {
    const url = this.moved()?.urlAfterRedirects ?? this.router.url;
    return ROOMS.find(({ path }) => url.split(/[?#]/)[0]!.endsWith(`/${path}`))?.path;
  });
  readonly id = input.required<string>();

  protected readonly state = this.store.selectSignal(planFeature.selectPlanState);
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  protected readonly parts = computed(() => this.state().history?.present.piece.parts ?? []);
  protected readonly canUndo = this.store.selectSignal(planFeature.selectCanUndo);
  protected readonly canRedo = this.store.selectSignal(planFeature.selectCanRedo);
  protected readonly fileUrl = computed(() => API.planFile(this.id()));
  protected readonly sheetUrl = computed(() =>
    API.jobSheet(
      this.id(),
      this.state().history?.present.work?.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
      { units: this.units.system(), clock: this.clock.face() },
    ),
  );
  /** Named where the workshop's clock reads otherwise than this device's. */
  protected readonly zone = computed(() => this.clock.otherZone(Date.parse(this.plan()?.startsAt ?? '')));
  protected readonly nameLength = LIMITS.textLength.max;
  private readonly nameInput = viewChild<ElementRef<HTMLInputElement>>('nameInput');

  protected readonly inTrouble = computed(() =>
    ['failed', 'invalid', 'stale', 'gone'].includes(this.state().save),
  );
  protected readonly saveText = computed(() => {
    const { save, savedAt, kept } = this.state();
    switch (save) {
      case 'saved':
        return savedAt === null ? '' : `saved ${this.clock.time(new Date(savedAt))}`;
      case 'waiting':
      case 'saving':
        return 'saving …';
      case 'failed':
        return kept ? 'not saved yet, kept in this browser' : 'not saved yet: do not close this window';
      case 'invalid':
        return kept
          ? 'cannot be saved so, kept in this browser'
          : 'cannot be saved so: do not close this window';
      case 'stale':
        return 'changed elsewhere';
      case 'gone':
        return 'removed elsewhere';
    }
  });

  constructor() {
    showZone(() => this.state().history?.present.work?.zone ?? null);
    effect(() => this.store.dispatch(PlanApi.openAsked({ id: this.id() })));
  }

  protected readonly sizeText = computed(() => {
    const part = this.plan()?.part;
    if (part === undefined) return '';
    const width = lengthShown(part.widthMm / 1000, this.units.system());
    const height = lengthShown(part.heightMm / 1000, this.units.system());
    return `${width.number} × ${height.number} ${height.unit}`;
  });

  protected choosePart(partId: string): void {
    this.store.dispatch(PlanEditor.partChosen({ partId }));
  }

  protected rename(name: string): void {
    const trimmed = plainText(name);
    if (trimmed !== '') this.store.dispatch(PlanEditor.planRenamed({ name: trimmed }));
    else this.nameInput()!.nativeElement.value = this.plan()?.name ?? '';
  }

  protected undo(): void {
    this.store.dispatch(PlanEditor.undoAsked());
  }

  protected redo(): void {
    this.store.dispatch(PlanEditor.redoAsked());
  }

  protected retry(): void {
    this.store.dispatch(PlanApi.retryAsked());
  }

  protected reopen(): void {
    this.store.dispatch(PlanApi.openAsked({ id: this.id() }));
  }

  /** Ctrl+Z and Ctrl+Y or Ctrl+Shift+Z, except while a text is being typed, which has its own undo. */
  protected onKey(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
    const { target } = event;
    if (target instanceof HTMLInputElement && !HAVE_NO_TEXT.includes(target.type)) return;
    const key = event.key.toLowerCase();
    if (key === 'z' && !event.shiftKey) this.undo();
    else if (key === 'y' || (key === 'z' && event.shiftKey)) this.redo();
    else return;
    event.preventDefault();
  }
}
