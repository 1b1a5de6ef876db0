import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { fault, filePlan, LIMITS, plainText } from '@zaffet/contract';
import { newPlan, SCHOOL_KEYS, type School, SCHOOLS } from '@zaffet/workshop';
import { set } from 'date-fns';
import { RunBox } from '../runs/run-box';
import { newId, newSeed, now } from '../data/fresh';
import { PhotoBox } from '../data/photo-box';
import { ChoiceField } from '../ui/choice-field';
import { MomentField } from '../ui/moment-field';
import { checkPhotograph, PhotographRefused } from '../ui/open-photograph';

/** A day alone is told as its noon. */
const NOON = { hours: 12, minutes: 0, seconds: 0, milliseconds: 0 };

/** A piece that was done without the bench: as little as a photograph and two lines. */
@Component({
  selector: 'zf-afterwards-sheet',
  imports: [ChoiceField, MatButtonModule, MatDialogModule, MomentField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './afterwards-sheet.html',
  styleUrl: './afterwards-sheet.scss',
})
export class AfterwardsSheet {
  private readonly sheet = inject<MatDialogRef<AfterwardsSheet, string>>(MatDialogRef);
  private readonly box = inject(RunBox);
  private readonly photos = inject(PhotoBox);
  protected readonly limits = LIMITS;
  protected readonly schools = SCHOOL_KEYS.map((value) => ({ value, name: SCHOOLS[value] }));
  protected readonly school = signal<School>('dried-medium');
  protected readonly today = now();
  protected readonly day = signal<Date | null>(this.today);
  protected readonly trouble = signal<string | null>(null);
  protected readonly busy = signal(false);
  /** Kept on this device already, by its hash. */
  protected readonly photo = signal<string | null>(null);
  protected readonly shown = this.photos;

  protected async take(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (file === undefined) return;
    this.busy.set(true);
    this.trouble.set(null);
    try {
      await checkPhotograph(file);
      this.photo.set(await this.photos.keep(file));
    } catch (error) {
      const known = error instanceof PhotographRefused;
      this.trouble.set(known ? error.message : fault('picture.unreadable').message);
    }
    this.busy.set(false);
  }

  /** A run that begins and ends on the day it was done, with what is said of it. */
  protected async keep(name: string, text: string): Promise<void> {
    const called = plainText(name);
    if (called === '') {
      this.trouble.set('Give it a name, so that it is found again.');
      return;
    }
    const day = this.day();
    if (day === null) {
      this.trouble.set('Say on which day it was done, today or before.');
      return;
    }
    this.busy.set(true);
    const done = set(day, NOON);
    const plan = newPlan(this.school(), called, newSeed(), done.toISOString(), newId);
    const runId = newId();
    const said = plainText(text, LIMITS.noteLength.max);
    const hash = this.photo();
    await this.box.tell(
      runId,
      [
        { kind: 'run-begun', planId: null, plan: filePlan(plan) },
        ...(said === '' ? [] : [{ kind: 'note', partId: null, text: said } as const]),
        ...(hash === null
          ? []
          : [{ kind: 'photo', partId: null, stepId: null, when: 'dry', hash, text: '' } as const]),
        { kind: 'finished' },
      ],
      done.getTime(),
    );
    this.sheet.close(runId);
  }
}
