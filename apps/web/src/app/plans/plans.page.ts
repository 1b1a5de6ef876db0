import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatSnackBar, MatSnackBarModule } from '@angular/material/snack-bar';
import { Router, RouterLink } from '@angular/router';
import { type Fault, fault, type PlanSummary, type SavedPlan } from '@zaffet/contract';
import { newPlan, type School, SCHOOLS } from '@zaffet/workshop';
import { firstValueFrom, type Observable } from 'rxjs';
import { faultOf, PlansApi } from '../data/plans.api';
import { PlanOutbox } from '../data/plan-outbox';
import { newId, newSeed, now, workBegins } from '../data/fresh';
import { FacePool } from '../workers/face.pool';
import { PlanTile } from './plan-tile';

/** All plans as small panels: open, begin, bring in a file, take out, remove and bring back. */
@Component({
  selector: 'zf-plans-page',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, MatSnackBarModule, PlanTile, RouterLink],
  providers: [FacePool],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plans.page.html',
  styleUrl: './plans.page.scss',
})
export class PlansPage {
  private readonly api = inject(PlansApi);
  private readonly router = inject(Router);
  private readonly snack = inject(MatSnackBar);

  protected readonly plans = signal<readonly PlanSummary[] | null>(null);
  protected readonly trouble = signal<Fault | null>(null);
  protected readonly schools = Object.entries(SCHOOLS) as [School, string][];

  constructor() {
    // What a closed window left unsaved is sent from here as well.
    inject(PlanOutbox);
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

  protected begin(school: School): Promise<void> {
    const plan = newPlan(school, 'New plan', newSeed(), workBegins(now()).toISOString(), newId);
    return this.open(this.api.create(plan));
  }

  protected async bringIn(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    let value: unknown;
    try {
      value = JSON.parse(await file.text());
    } catch {
      this.trouble.set(fault('request.not-json'));
      return;
    }
    await this.open(this.api.bringIn(value));
  }

  protected async remove(saved: PlanSummary): Promise<void> {
    try {
      await firstValueFrom(this.api.remove(saved.id));
      await this.load();
      const bar = this.snack.open(`Removed “${saved.name}”.`, 'Bring back', { duration: 10000 });
      bar.onAction().subscribe(() => void this.restore(saved.id));
    } catch (error) {
      this.trouble.set(faultOf(error));
    }
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
