import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  ALIKE_WITHIN,
  API,
  LIMITS,
  type Limit,
  type LogFound,
  type LogQuery,
  VERDICTS,
} from '@zaffet/contract';
import { medium, MEDIUM_KEYS } from '@zaffet/core/media';
import { entryFigures, entryMade, FATE_WORDS, figures, VERDICT_WORDS } from '@zaffet/words';
import { SCHOOL_KEYS, type School, SCHOOLS } from '@zaffet/workshop';
import { format } from 'date-fns';
import { PhotoBox } from '../data/photo-box';
import { Clock } from '../data/clock';
import { Units } from '../data/units';
import { ChoiceField } from '../ui/choice-field';
import { MomentField } from '../ui/moment-field';
import { NumberField } from '../ui/number-field';
import { AfterwardsSheet } from './afterwards-sheet';
import { LogHand } from './log.actions';
import { logFeature } from './log.feature';

/** So many colours of what was found are offered to look for. */
const OFFERED = 14;
/** What is looked for at first when somebody asks for a colour. */
const SOME_COLOUR = '#5d6b4b';

/** Everything that was done, found by what was said of it, by colour, by figure, by air and by date. */
@Component({
  selector: 'zf-log-page',
  imports: [ChoiceField, MatButtonModule, MomentField, NumberField, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './log.page.html',
  styleUrl: './log.page.scss',
})
export class LogPage {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  private readonly units = inject(Units).system;
  protected readonly photos = inject(PhotoBox);
  protected readonly limits = LIMITS;
  protected readonly log = this.store.selectSignal(logFeature.selectLogState);
  private readonly clock = inject(Clock);
  protected readonly dayOf = (day: string | undefined): Date | null =>
    day === undefined ? null : new Date(`${day}T12:00:00`);
  protected readonly written = (day: Date | null): string | undefined =>
    day === null ? undefined : this.clock.isoDate(day);
  protected readonly query = computed(() => this.log().query);
  protected readonly someColour = SOME_COLOUR;
  protected readonly alikeWithin = ALIKE_WITHIN;
  protected readonly schools = [
    { value: '', name: 'any way' },
    ...SCHOOL_KEYS.map((value) => ({ value, name: SCHOOLS[value] })),
  ];
  protected readonly media = [
    { value: '', name: 'anything' },
    ...MEDIUM_KEYS.map((value) => ({ value, name: medium(value).name })),
  ];
  protected readonly verdicts = VERDICTS.map((verdict) => ({ verdict, name: VERDICT_WORDS[verdict] }));
  protected readonly withinLimit: Limit = { min: 1, max: 60, step: 1, unit: 'ΔE' };
  protected readonly csv = API.logCsv;
  protected readonly backup = API.backup;

  constructor() {
    this.store.dispatch(LogHand.opened());
  }

  protected ask(query: LogQuery): void {
    this.store.dispatch(LogHand.asked({ query }));
  }
  protected readonly narrowed = computed(() => Object.keys(this.query()).length > 0);
  protected clear(): void {
    this.ask(Object.fromEntries(Object.keys(this.query()).map((key) => [key, undefined])));
  }
  protected more(): void {
    this.store.dispatch(LogHand.moreAsked());
  }

  /** Colours of what was found, to look for others like them. */
  protected readonly palette = computed(() => {
    const all = (this.log().found ?? []).flatMap(({ colours }) => colours);
    return [...new Map(all.map((colour) => [colour.hex, colour])).values()].slice(0, OFFERED);
  });

  protected readonly cards = computed(() =>
    (this.log().found ?? []).map((entry) => ({
      ...entry,
      when: format(new Date(entry.finishedAt ?? entry.begunAt), 'd MMM yyyy'),
      way: entry.schools.map((key) => SCHOOLS[key as School] ?? key).join('; '),
      figures: entryFigures(entry, this.units()),
      made: entryMade(entry, this.units()),
      liked: entry.verdict === null ? '' : VERDICT_WORDS[entry.verdict],
      became: [entry.forWhom, entry.fate === null ? '' : FATE_WORDS[entry.fate]].filter(Boolean).join(', '),
      photo: pictured(entry),
      like: entry.off === null ? '' : `its colour is ${figures(entry.off)} ΔE off`,
    })),
  );
  protected readonly counted = computed(() => {
    const { count, behind } = this.log();
    const told = count === 0 ? 'Nothing' : count === 1 ? 'One entry' : `${count} entries`;
    return `${told}${this.narrowed() ? ' found' : ''}${behind === 0 ? '' : `; ${behind} more are being read`}`;
  });

  /** A piece that was done without the bench. */
  protected writeDown(): void {
    this.dialog
      .open<AfterwardsSheet, void, string>(AfterwardsSheet, {
        width: '620px',
        maxWidth: '96vw',
        // A click beside it must not lose what was typed.
        disableClose: true,
      })
      .afterClosed()
      .subscribe((runId) => {
        if (runId !== undefined) void this.router.navigate(['/log', runId]);
      });
  }
}

/** The photograph that shows it as it came out, else the last. */
function pictured({ photos }: LogFound): string | null {
  const shows = (...times: string[]): string | undefined =>
    photos.findLast(({ when }) => times.includes(when))?.hash;
  return shows('sealed', 'dry', 'in-use') ?? photos.at(-1)?.hash ?? null;
}
