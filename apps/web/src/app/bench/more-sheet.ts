import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { LIMITS, MIX_BODIES, type MixBody, type PhotoTime, plainText } from '@zaffet/contract';
import { MINUTES_AGO, PHOTO_TIME_WORDS, SKIP_REASONS } from '@zaffet/words';
import { NumberField } from '../ui/number-field';
import { PhotoRow } from '../ui/photo-row';
import { BenchModel, type Card } from '../runs/bench-model';
import { type Telling } from '../runs/run-store';
import { ofTask } from './of-task';

const MIX_WORDS: Readonly<Record<MixBody, string>> = {
  thinner: 'Thinner than meant',
  'as-meant': 'As meant',
  thicker: 'Thicker than meant',
};

/** What is told more seldom: earlier moments, films that were weighed, the air, notes, what is left out. */
@Component({
  selector: 'zf-more-sheet',
  imports: [MatButtonModule, MatDialogModule, NumberField, PhotoRow],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './more-sheet.html',
  styleUrl: './more-sheet.scss',
})
export class MoreSheet {
  private readonly model = inject(BenchModel);
  private readonly sheet = inject<MatDialogRef<MoreSheet>>(MatDialogRef);
  protected readonly card = inject<Card>(MAT_DIALOG_DATA);
  protected readonly task = this.card.task;
  protected readonly reasons = SKIP_REASONS;
  protected readonly minutes = MINUTES_AGO;
  protected readonly bodies = MIX_BODIES.map((body) => ({ body, name: MIX_WORDS[body] }));
  protected readonly limits = LIMITS;
  protected readonly title = this.task === null ? this.card.part.name : this.model.title(this.task);
  protected readonly films =
    this.task !== null &&
    (this.task.state === 'doing' || this.task.kind === 'sections') &&
    this.card.step !== null &&
    'thicknessUm' in this.card.step;

  protected readonly air = computed(() => {
    const read = this.model.run()?.air.at(-1);
    const plan = this.model.run()!.plan.air;
    return read ?? { temperatureC: plan.temperatureC, humidity: plan.humidity };
  });
  protected readonly temperature = signal(this.air().temperatureC);
  protected readonly humidity = signal(this.air().humidity);
  protected readonly thickness = signal(
    this.card.step !== null && 'thicknessUm' in this.card.step ? this.card.step.thicknessUm : 100,
  );

  /** Something was told here, and is on its way to the device's memory. */
  protected readonly telling = signal(false);
  /** Tells it, and goes once it is kept: a sheet that has gone is a promise. */
  private async tell(telling: Telling): Promise<void> {
    if (this.telling()) return;
    this.telling.set(true);
    this.model.tell(telling);
    await this.model.kept();
    this.sheet.close();
  }

  protected ago(kind: 'begun' | 'done', minutesAgo: number): void {
    void this.tell({ kind, ...ofTask(this.task!), minutesAgo });
  }

  protected skip(reason: string): void {
    void this.tell({ kind: 'skipped', ...ofTask(this.task!), reason });
  }

  protected readAir(): void {
    void this.tell({
      kind: 'air',
      source: 'told at the bench',
      temperatureC: this.temperature(),
      humidity: this.humidity(),
    });
  }

  protected weigh(): void {
    void this.tell({ kind: 'film', ...ofTask(this.task!), thicknessUm: this.thickness() });
  }

  protected mix(body: MixBody): void {
    void this.tell({ kind: 'mix', ...ofTask(this.task!), body, addedMl: 0 });
  }

  private readonly stepId = this.task?.stepId ?? this.card.film?.stepId ?? null;
  protected readonly photos = computed(() =>
    (this.model.run()?.photos ?? [])
      .filter(({ partId, stepId }) => partId === this.card.part.id && stepId === this.stepId)
      .map(({ eventId, hash, when }) => ({ id: eventId, hash, text: PHOTO_TIME_WORDS[when] })),
  );
  protected photograph(taken: { readonly when: PhotoTime; readonly hash: string }): void {
    this.model.tell({
      kind: 'photo',
      partId: this.card.part.id,
      stepId: this.stepId,
      text: '',
      ...taken,
    });
  }
  protected takeBack(eventId: string): void {
    this.model.tell({ kind: 'taken-back', eventId });
  }

  protected note(text: string): void {
    const plain = plainText(text, LIMITS.noteLength.max);
    if (plain === '') return;
    void this.tell({ kind: 'note', partId: this.card.part.id, stepId: this.stepId, text: plain });
  }
}
