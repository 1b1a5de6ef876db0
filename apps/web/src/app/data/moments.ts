import { type EnvironmentProviders, inject, makeEnvironmentProviders } from '@angular/core';
import { provideDateFnsAdapter } from '@angular/material-date-fns-adapter';
import { MAT_DATE_FORMATS, MAT_DATE_LOCALE, type MatDateFormats } from '@angular/material/core';
import { enGB } from 'date-fns/locale/en-GB';
import { Clock } from './clock';

/** How pickers read and write days and times: times by the clock that is chosen. */
function dateFormats(): MatDateFormats {
  const clock = inject(Clock);
  return {
    parse: {
      dateInput: ['d MMM yyyy', 'P', 'yyyy-MM-dd'],
      get timeInput() {
        return clock.pattern();
      },
    },
    display: {
      dateInput: 'd MMM yyyy',
      monthYearLabel: 'LLL uuuu',
      dateA11yLabel: 'PP',
      monthYearA11yLabel: 'LLLL uuuu',
      get timeInput() {
        return clock.pattern();
      },
      get timeOptionLabel() {
        return clock.pattern();
      },
    },
  };
}

/** What day and time pickers need. */
export const provideMoments = (): EnvironmentProviders =>
  makeEnvironmentProviders([
    provideDateFnsAdapter(),
    { provide: MAT_DATE_LOCALE, useValue: enGB },
    { provide: MAT_DATE_FORMATS, useFactory: dateFormats },
  ]);
