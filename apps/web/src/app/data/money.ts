import { Injectable, signal } from '@angular/core';

const KEY = 'zaffet.currency';
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
export type Currency = (typeof CURRENCIES)[number];

/** The one currency prices are told in, chosen in this browser; nothing is converted. */
@Injectable({ providedIn: 'root' })
export class Money {
  private readonly chosen = signal<Currency>(remembered());
  readonly currency = this.chosen.asReadonly();

  choose(currency: Currency): void {
    this.chosen.set(currency);
    try {
      localStorage.setItem(KEY, currency);
    } catch {
      // A browser that keeps nothing still shows what was chosen.
    }
  }

  /** An amount as it is written. */
  text(amount: number): string {
    const currency = this.chosen();
    return currency === ''
      ? amount.toFixed(2)
      : new Intl.NumberFormat(navigator.language, { style: 'currency', currency }).format(amount);
  }
}

function remembered(): Currency {
  try {
    return CURRENCIES.find((currency) => currency === localStorage.getItem(KEY)) ?? '';
  } catch {
    return '';
  }
}
