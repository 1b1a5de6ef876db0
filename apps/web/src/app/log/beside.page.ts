import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { LIMITS, type RunEvent } from '@zaffet/contract';
import {
  entryFigures,
  entryMade,
  PHOTO_TIME_WORDS,
  startWords,
  stepTitle,
  um,
  VERDICT_WORDS,
} from '@zaffet/words';
import { entryOf, foldRun, type Run, type RunPhoto, type School, SCHOOLS, stepKey } from '@zaffet/workshop';
import { format } from 'date-fns';
import { RunBox } from '../runs/run-box';
import { CalibrationApi } from '../data/calibration.api';
import { faultOf } from '../data/plans.api';
import { PhotoBox } from '../data/photo-box';
import { Units } from '../data/units';
import { NumberField } from '../ui/number-field';

/** One of two entries that lie side by side. */
interface Side {
  readonly runId: string;
  readonly run: Run;
  readonly photo: RunPhoto | null;
}

/** Two entries side by side: their photographs at one scale, what was done and what came out. */
@Component({
  selector: 'zf-beside-page',
  imports: [MatButtonModule, NumberField, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './beside.page.html',
  styleUrl: './beside.page.scss',
})
export class BesidePage {
  private readonly api = inject(CalibrationApi);
  private readonly box = inject(RunBox);
  private readonly units = inject(Units).system;
  protected readonly photos = inject(PhotoBox);
  protected readonly limits = LIMITS;
  protected readonly times = PHOTO_TIME_WORDS;
  readonly run = input.required<string>();
  readonly other = input.required<string>();
  private readonly events = signal<Readonly<Record<string, readonly RunEvent[]>>>({});
  protected readonly trouble = signal<string | null>(null);
  private readonly chosen = signal<Readonly<Record<string, string>>>({});

  constructor() {
    effect(() => {
      for (const id of [this.run(), this.other()]) void this.read(id);
    });
  }

  private async read(id: string): Promise<void> {
    try {
      const events = await this.api.eventsOf(id);
      this.events.update((known) => ({ ...known, [id]: events }));
    } catch (error) {
      this.trouble.set(faultOf(error).message);
    }
  }

  private readonly both = computed((): Side[] =>
    [this.run(), this.other()].flatMap((runId): Side[] => {
      const run = foldRun(this.events()[runId] ?? []);
      if (run === null) return [];
      const chosen = this.chosen()[runId];
      const photo = run.photos.find(({ eventId }) => eventId === chosen) ?? run.photos.at(-1) ?? null;
      return [{ runId, run, photo }];
    }),
  );

  /** Both widths are known: then both are shown at one scale, the wider over all of its column. */
  protected readonly scaled = computed(
    () => this.both().length === 2 && this.both().every(({ photo }) => photo?.wideMm != null),
  );
  private readonly widest = computed(() => Math.max(...this.both().map(({ photo }) => photo?.wideMm ?? 0)));

  protected readonly sides = computed(() =>
    this.both().map(({ runId, run, photo }) => {
      const entry = entryOf(runId, run);
      return {
        ...entry,
        photo,
        photosOf: run.photos,
        share: this.scaled() ? (100 * photo!.wideMm!) / this.widest() : 100,
        when: format(new Date(entry.finishedAt ?? entry.begunAt), 'd MMMM yyyy'),
        way: entry.schools.map((key) => SCHOOLS[key as School] ?? key).join('; '),
        liked: entry.verdict === null ? 'nobody said' : VERDICT_WORDS[entry.verdict],
        figures: entryFigures(entry, this.units()) || 'nobody measured',
        made: entryMade(entry, this.units()),
        steps: this.stepsOf(run),
      };
    }),
  );

  private stepsOf(run: Run): { readonly id: string; readonly title: string; readonly how: string }[] {
    const [part] = run.plan.piece.parts;
    const finish = run.plan.finishes.find(({ id }) => id === part!.finish)!;
    return finish.steps
      .filter(({ off }) => !off)
      .map((step) => {
        const told = run.steps[stepKey(part!.id, step.id)];
        const thick = 'thicknessUm' in step ? (told?.thicknessUm ?? step.thicknessUm) : null;
        return {
          id: step.id,
          title: stepTitle(step, run.plan.media),
          how: [
            ...(told?.skipped == null ? [] : [`left out: ${told.skipped}`]),
            ...(thick === null ? [] : [um(thick * 1e-6, this.units())]),
            startWords(step.start),
          ].join(', '),
        };
      });
  }

  protected choose(runId: string, eventId: string): void {
    this.chosen.update((known) => ({ ...known, [runId]: eventId }));
  }

  /** How wide what a photograph shows is: it is told anew, and what was told before is taken back. */
  protected async measure(runId: string, photo: RunPhoto, wideMm: number | null): Promise<void> {
    const { eventId, at: _, ...told } = photo;
    const events = await this.box.tell(runId, [
      { kind: 'photo', ...told, wideMm },
      { kind: 'taken-back', eventId },
    ]);
    this.events.update((known) => ({ ...known, [runId]: [...(known[runId] ?? []), ...events] }));
    this.choose(runId, events[0]!.id);
  }
}
