import { type KeptReading } from '@zaffet/contract';
import { EventEmitter } from 'node:events';

/** What is told between requests, and between the Zaffets of one database. */
export interface News {
  /** A run has so many events. */
  readonly run: { readonly id: string; readonly upTo: number };
  /** An instrument has read. */
  readonly air: KeptReading;
  /** A device was shut out. */
  readonly out: { readonly id: string };
  /** News may have been missed. */
  readonly missed: null;
}

/** Tells news to whoever listens, here and, where there are any, in the other Zaffets. */
export interface Newsroom {
  tell<Kind extends keyof News>(kind: Kind, what: News[Kind]): void;
  hear<Kind extends keyof News>(kind: Kind, listener: (what: News[Kind]) => void): void;
}

/** Where one Zaffet has the database to itself. */
export class OwnNews implements Newsroom {
  private readonly events = new EventEmitter();

  tell<Kind extends keyof News>(kind: Kind, what: News[Kind]): void {
    this.events.emit(kind, what);
  }

  hear<Kind extends keyof News>(kind: Kind, listener: (what: News[Kind]) => void): void {
    this.events.on(kind, listener);
  }
}
