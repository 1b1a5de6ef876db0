import { Injectable } from '@angular/core';
import { chosenOf } from './chosen';

/** What prices may be told in, by ISO 4217; '' for numbers alone. */
export const CURRENCIES = [
  '',
  'AUD',
  'CAD',
  'CHF',
  'DKK',
  'EUR',
  'GBP',
  'JPY',
  'NOK',
  'NZD',
  'PLN',
  'SEK',
  'USD',
] as const;

/** The one currency prices are told in, chosen in this browser; nothing is converted. */
@Injectable({ providedIn: 'root' })
export class Money {
  private readonly chosen = chosenOf('zaffet.currency', CURRENCIES);
  readonly currency = this.chosen.value;
  readonly choose = this.chosen.choose;

  /** An amount as it is written. */
  text(amount: number): string {
    const currency = this.currency();
    return currency === ''
      ? amount.toFixed(2)
      : new Intl.NumberFormat(navigator.language, { style: 'currency', currency }).format(amount);
  }
}
