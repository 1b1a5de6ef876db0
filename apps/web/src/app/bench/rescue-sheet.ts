import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { CAUSE_WORDS, rescueEffect, rescueWords, WRONG_WORDS } from '@zaffet/words';
import { type RunBodies } from '@zaffet/contract';
import { causesOf, type Rescue, rescuesFor, withPutIn, type Wrong, WRONGS } from '@zaffet/workshop';
import { firstValueFrom } from 'rxjs';
import { faultOf, PlansApi } from '../data/plans.api';
import { newId } from '../data/fresh';
import { Units } from '../data/units';
import { BenchModel, type Card } from '../runs/bench-model';

/** It went wrong: what may be the cause by what was really done, and what helps, put into this run. */
@Component({
  selector: 'zf-rescue-sheet',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ wrong() === null ? 'What went wrong?' : names[wrong()!] }}</h2>
    <mat-dialog-content [inert]="busy()">
      @if (wrong() === null) {
        <div class="choices">
          @for (one of wrongs; track one) {
            <button class="choice" (click)="wrong.set(one)">{{ names[one] }}</button>
          }
        </div>
      } @else {
        <section>
          <h3>Most likely</h3>
          <ul>
            @for (line of causes(); track line.cause) {
              <li [class.likely]="line.likely">
                {{ causeNames[line.cause] }}
                @if (line.likely) {
                  <span>What was told speaks for it.</span>
                }
              </li>
            }
          </ul>
        </section>
        <section>
          <h3>What helps</h3>
          @if (planId() !== null && ways().length > 0) {
            <label class="also">
              <input type="checkbox" [checked]="also()" (change)="also.set(!also())" />
              Put it into the plan too, for next time
            </label>
          }
          @for (way of ways(); track way.key) {
            <div class="way">
              <b>{{ way.words.name }}</b>
              <p>{{ way.words.how }}</p>
              <p class="effect">{{ way.effect }}</p>
              <button class="choice" (click)="put(way.rescue)">Put it into this run</button>
            </div>
          } @empty {
            <p>Nothing has been laid yet that could be mended.</p>
          }
          @if (unsaved(); as why) {
            <p class="unsaved" role="alert">It is in this run, but not in the plan: {{ why }}</p>
          }
        </section>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      @if (wrong() !== null) {
        <button class="choice" (click)="wrong.set(null)">Something else</button>
      }
      <button class="choice" mat-dialog-close>Close</button>
    </mat-dialog-actions>
  `,
  styleUrl: './more-sheet.scss',
})
export class RescueSheet {
  private readonly model = inject(BenchModel);
  private readonly sheet = inject<MatDialogRef<RescueSheet>>(MatDialogRef);
  private readonly card = inject<Card>(MAT_DIALOG_DATA);
  private readonly units = inject(Units).system;
  private readonly plans = inject(PlansApi);
  protected readonly wrongs = WRONGS;
  protected readonly names = WRONG_WORDS;
  protected readonly causeNames = CAUSE_WORDS;
  protected readonly wrong = signal<Wrong | null>(null);

  private readonly plan = computed(() => this.model.partPlanOf(this.card.part.id));
  /** The last step that was begun on the part: what helps comes after it. */
  private readonly last = computed(() => {
    const tasks = this.model.bench()?.parts.find(({ partId }) => partId === this.card.part.id)?.tasks ?? [];
    const begun = tasks.filter(
      ({ kind, state }) => kind !== 'prepare' && (state === 'done' || state === 'doing'),
    );
    const task = begun.at(-1);
    return task?.topId ?? task?.stepId ?? null;
  });
  protected readonly causes = computed(() => {
    const [wrong, run] = [this.wrong(), this.model.run()];
    return wrong === null || run === null ? [] : causesOf(wrong, run, this.plan());
  });
  protected readonly ways = computed(() => {
    const wrong = this.wrong();
    if (wrong === null || this.last() === null) return [];
    return rescuesFor(wrong, this.plan(), this.last(), newId).map((rescue) => ({
      key: rescue.key,
      rescue,
      words: rescueWords(rescue.key),
      effect: rescueEffect(rescue, this.units()),
    }));
  });

  /** The plan the run was made from, where it is one of the workshop's. */
  protected readonly planId = computed(() => this.model.run()?.planId ?? null);
  protected readonly also = signal(false);
  protected readonly busy = signal(false);
  protected readonly unsaved = signal<string | null>(null);

  /** What went into the run here, by its way: tried again for the plan alone. */
  private readonly told = new Map<string, readonly RunBodies['put-in'][]>();

  protected async put({ key, steps }: Rescue): Promise<void> {
    if (this.busy()) return;
    const partId = this.card.part.id;
    let afterStepId = this.last();
    const putIn =
      this.told.get(key) ??
      steps.map((step) => {
        const told = { partId, afterStepId, step };
        afterStepId = step.id;
        return told;
      });
    if (!this.told.has(key)) {
      this.told.set(key, putIn);
      this.model.tell(
        { kind: 'note', partId, text: `It went wrong: ${WRONG_WORDS[this.wrong()!].toLowerCase()}` },
        ...putIn.map((one) => ({ kind: 'put-in' as const, ...one })),
      );
    }
    this.busy.set(true);
    const planId = this.planId();
    const why = this.also() && planId !== null ? await this.intoPlan(planId, putIn) : null;
    await this.model.kept();
    this.busy.set(false);
    this.unsaved.set(why);
    if (why === null) this.sheet.close();
  }

  /** Puts the same into the plan as it stands now. @returns why that could not be; null where it is in */
  private async intoPlan(planId: string, putIn: readonly RunBodies['put-in'][]): Promise<string | null> {
    try {
      const { plan, saveId } = await firstValueFrom(this.plans.read(planId));
      const steps = plan.finishes.flatMap((finish) => finish.steps.map(({ id }) => id));
      const [{ afterStepId }] = putIn as [RunBodies['put-in']];
      if (afterStepId !== null && !steps.includes(afterStepId))
        return 'the step it comes after is not there any more. Put it in by hand, in Layers.';
      await firstValueFrom(this.plans.save(planId, saveId, putIn.reduce(withPutIn, plan)));
      return null;
    } catch (error) {
      return faultOf(error).message;
    }
  }
}
