import { HttpClient } from '@angular/common/http';
import { Directive, ElementRef, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { API, type SheetQueue } from '@zaffet/contract';
import { firstValueFrom } from 'rxjs';
import { faultOf } from '../data/plans.api';

const SHOWN = 6000;
/** It is asked this often how much of a sheet is done [ms], and no longer than a sheet may take. */
const LOOK_EVERY = 1000;
const LOOKS = 120;
/** A step of progress that is worth saying. */
const STEP = 0.1;

/** How long a sheet will take, in words. */
export function queueText({ before, seconds }: SheetQueue): string {
  const first =
    before === 0
      ? 'The sheet is being made'
      : `${before} ${before === 1 ? 'sheet comes' : 'sheets come'} first`;
  return `${first}${seconds === null ? '; it comes by itself' : `: about ${seconds} s`}.`;
}

/** A link to something that the server draws for printing: says how long that takes, or why it cannot be now. */
@Directive({ selector: 'a[zfSheet]', host: { download: '', '(click)': 'ask($event)' } })
export class SheetLink {
  private readonly http = inject(HttpClient);
  private readonly snack = inject(MatSnackBar);
  private readonly link = inject<ElementRef<HTMLAnchorElement>>(ElementRef).nativeElement;
  private asked = false;

  protected ask(event: Event): void {
    if (this.asked) return;
    event.preventDefault();
    void this.fetch();
  }

  /** Says how much of the sheet is done, while it is being made. */
  private async follow(): Promise<void> {
    let said = 0;
    for (let look = 0; look < LOOKS; look++) {
      await new Promise((go) => setTimeout(go, LOOK_EVERY));
      const queue = await firstValueFrom(this.http.get<SheetQueue>(API.sheets)).catch(() => null);
      const share = queue?.share ?? null;
      if (share === null) return;
      if (share - said < STEP) continue;
      said = share;
      this.snack.open(`The sheet is being made: ${Math.round(share * 100)} % done.`, undefined, {
        duration: SHOWN,
      });
    }
  }

  private async fetch(): Promise<void> {
    let told: string;
    try {
      const queue = await firstValueFrom(this.http.get<SheetQueue>(API.sheets));
      told =
        queue.refused === null
          ? queueText(queue)
          : [queue.refused.message, ...queue.refused.fields.map(({ message }) => message)].join(' ');
      if (queue.refused === null) {
        // The browser fetches it itself, under the name the server gives it.
        this.asked = true;
        this.link.click();
        this.asked = false;
        void this.follow();
      }
    } catch (error) {
      told = faultOf(error).message;
    }
    this.snack.open(told, undefined, { duration: SHOWN });
  }
}
