import { inject, Injectable, type OnDestroy } from '@angular/core';
import { API, type ItemChanges, type MeasuresFile, type ShelfItem } from '@zaffet/contract';
import { firstValueFrom } from 'rxjs';
import { lastWords } from './last-words';
import { Outbox, OUTBOX_PAUSES, type Sending } from './outbox';
import { faultOf, isFinal } from './plans.api';
import { ShelfApi } from './shelf.api';
import { Unsaved } from './unsaved';

/** A change of the shelf: something put there, fields of it changed, something taken off, what one measures with. */
export type ShelfChange =
  | { readonly put: ShelfItem }
  /** With the thing as it shall be, for where it was taken off meanwhile. */
  | { readonly changes: ItemChanges; readonly item: ShelfItem }
  | { readonly take: string }
  | { readonly measures: MeasuresFile };
/** The thing as it stands on the shelf afterwards; null where there is none. */
export type ShelfAnswer = ShelfItem | null;
export type ShelfSending = Sending<ShelfChange, ShelfAnswer>;

/** No thing's id holds a point. */
const MEASURES = '.measures';
/** What a change is filed under: the thing's id. */
export function changeKey(change: ShelfChange): string {
  if ('put' in change) return change.put.id;
  if ('changes' in change) return change.item.id;
  return 'take' in change ? change.take : MEASURES;
}

/** Two changes of one thing as one. */
export function mergeChanges(waiting: ShelfChange, newer: ShelfChange): ShelfChange {
  if (!('changes' in newer)) return newer;
  if (!('changes' in waiting)) return { put: newer.item };
  return { ...newer, changes: { ...waiting.changes, ...newer.changes } };
}

async function send(api: ShelfApi, change: ShelfChange): Promise<ShelfAnswer> {
  if ('put' in change) return firstValueFrom(api.put(change.put));
  if ('take' in change) return firstValueFrom(api.take(change.take)).then(() => null);
  if ('measures' in change) return firstValueFrom(api.measure(change.measures)).then(() => null);
  try {
    return await firstValueFrom(api.change(change.item.id, change.changes));
  } catch (error) {
    // Taken off in another window: what was typed here since brings it back.
    if (faultOf(error).code === 'shelf.not-found') return firstValueFrom(api.put(change.item));
    throw error;
  }
}

function sendLast(change: ShelfChange): void {
  if ('put' in change) lastWords('PUT', API.shelfItem(change.put.id), change.put);
  else if ('take' in change) lastWords('DELETE', API.shelfItem(change.take), undefined);
  else if ('measures' in change) lastWords('PUT', API.measures, change.measures);
  else lastWords('PATCH', API.shelfItem(change.item.id), change.changes);
}

/** Changes of the shelf on their way. */
@Injectable({ providedIn: 'root' })
export class ShelfOutbox extends Outbox<ShelfChange, ShelfAnswer> implements OnDestroy {
  constructor() {
    const api = inject(ShelfApi);
    super(
      inject(Unsaved),
      {
        box: 'shelf',
        send: (_key, change) => send(api, change),
        sendLast: (_key, change) => sendLast(change),
        isFinal,
        merge: mergeChanges,
        follow: (waiting) => waiting,
        pack: (change) => change,
        unpack: (stored) => stored as ShelfChange,
      },
      inject(OUTBOX_PAUSES),
    );
  }

  ngOnDestroy(): void {
    this.stop();
  }
}
