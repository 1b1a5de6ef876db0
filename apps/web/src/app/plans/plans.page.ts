import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatSnackBar, MatSnackBarModule } from '@angular/material/snack-bar';
import { MatTooltipModule } from '@angular/material/tooltip';
import { Router, RouterLink } from '@angular/router';
import {
  type Fault,
  fault,
  LIMITS,
  type Plan,
  type PlanSummary,
  type SavedPlan,
  ZaffetError,
} from '@zaffet/contract';
import { firstValueFrom, type Observable } from 'rxjs';
import { faultOf, PlansApi } from '../data/plans.api';
import { ChoiceField } from '../ui/choice-field';
import { readJsonFile } from '../ui/read-json-file';
import { FacePool } from '../workers/face.pool';
import { BinSheet } from './bin-sheet';
import { NewPlan } from './new-plan';
import { PlanTile } from './plan-tile';

/** All plans as small panels: open, begin, import, export, delete and restore. */
@Component({
  selector: 'zf-plans-page',
  imports: [
    ChoiceField,
    MatButtonModule,
    MatDialogModule,
    MatIconModule,
    MatSnackBarModule,
    MatTooltipModule,
    PlanTile,
    RouterLink,
  ],
  providers: [FacePool],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plans.page.html',
  styleUrl: './plans.page.scss',
})
export class PlansPage {
  protected readonly api = inject(PlansApi);
  private readonly router = inject(Router);
  private readonly snack = inject(MatSnackBar);
  private readonly dialog = inject(MatDialog);

  protected readonly plans = signal<readonly PlanSummary[] | null>(null);
  protected readonly trouble = signal<Fault | null>(null);
  protected readonly wanted = signal('');
  protected readonly orders = [
    { value: 'changed', name: 'last changed first' },
    { value: 'name', name: 'by name' },
  ];
  protected readonly order = signal('changed');
  /** Every word that is typed must be in the name, wherever. */
  protected readonly shown = computed(() => {
    const words = this.wanted().toLowerCase().split(/\s+/);
    const found = (this.plans() ?? []).filter(({ name }) =>
      words.every((word) => name.toLowerCase().includes(word)),
    );
    return this.order() === 'name'
      ? found.sort((a, b) => a.name.localeCompare(b.name))
      : found.sort((a, b) => b.savedAt.localeCompare(a.savedAt));
  });

  constructor() {
    void this.load();
  }

  protected async load(): Promise<void> {
    try {
      this.plans.set(await firstValueFrom(this.api.list()));
      this.trouble.set(null);
    } catch (error) {
      this.trouble.set(faultOf(error));
    }
  }

  protected begin(): void {
    this.dialog
      .open<NewPlan, void, Plan>(NewPlan, { width: '1120px', maxWidth: '97vw', maxHeight: '94vh' })
      .afterClosed()
      .subscribe((plan) => {
        if (plan !== undefined) void this.open(this.api.create(plan));
      });
  }

  /** The same plan once more, to go on from. */
  protected async copy({ id, name }: PlanSummary): Promise<void> {
    try {
      const { plan } = await firstValueFrom(this.api.read(id));
      const most = LIMITS.textLength.max;
      await firstValueFrom(this.api.create({ ...plan, name: `${name.slice(0, most - 6)}, copy` }));
      await this.load();
    } catch (error) {
      this.trouble.set(faultOf(error));
    }
  }

  protected async bringIn(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    let value: unknown;
    try {
      value = await readJsonFile(file);
    } catch (error) {
      this.trouble.set(error instanceof ZaffetError ? error.fault : fault('request.not-json'));
      return;
    }
    await this.open(this.api.bringIn(value));
  }

  protected async remove(saved: PlanSummary): Promise<void> {
    try {
      await firstValueFrom(this.api.remove(saved.id));
      await this.load();
      const bar = this.snack.open(`“${saved.name}” is in the bin.`, 'Restore', { duration: 10000 });
      bar.onAction().subscribe(() => void this.restore(saved.id));
    } catch (error) {
      this.trouble.set(faultOf(error));
    }
  }

  protected openBin(): void {
    this.dialog
      .open<BinSheet>(BinSheet, { width: '560px', maxWidth: '97vw', maxHeight: '94vh' })
      .afterClosed()
      .subscribe(() => void this.load());
  }

  private async restore(id: string): Promise<void> {
    try {
      await firstValueFrom(this.api.restore(id));
      await this.load();
    } catch (error) {
      this.trouble.set(faultOf(error));
    }
  }

  private async open(made: Observable<SavedPlan>): Promise<void> {
    try {
      const saved = await firstValueFrom(made);
      await this.router.navigate(['/plan', saved.id, 'layers']);
    } catch (error) {
      this.trouble.set(faultOf(error));
    }
  }
}
