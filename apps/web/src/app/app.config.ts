import { provideHttpClient, withFetch, withInterceptors } from '@angular/common/http';
import {
  type ApplicationConfig,
  inject,
  isDevMode,
  provideAppInitializer,
  provideZonelessChangeDetection,
} from '@angular/core';
import { MatIconRegistry } from '@angular/material/icon';
import { DomSanitizer } from '@angular/platform-browser';
import { provideRouter, withComponentInputBinding, withDisabledInitialNavigation } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, Store } from '@ngrx/store';
import { filter, firstValueFrom, race, timer } from 'rxjs';
import { routes } from './app.routes';
import { Door, doorInterceptor } from './data/door';
import { DoorApi } from './data/door.api';
import { provideMoments } from './data/moments';
import { CalibrationHand } from './shop/calibration.actions';
import * as calibrationEffects from './shop/calibration.effects';
import { calibrationFeature } from './shop/calibration.feature';
import * as shelfEffects from './shop/shelf.effects';
import { shelfFeature } from './shop/shelf.feature';
import { ICONS } from './ui/icons';
import { provideSheets } from './ui/sheets';

/** How long the first page waits for what the shop has learned [ms]. */
const KNOWS_WITHIN = 3000;

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideHttpClient(withFetch(), withInterceptors([doorInterceptor])),
    provideMoments(),
    provideSheets(),
    // The application begins it: a device that is not signed in has no page to go to.
    provideRouter(routes, withComponentInputBinding(), withDisabledInitialNavigation()),
    provideStore(
      {},
      {
        runtimeChecks: isDevMode()
          ? {
              strictStateImmutability: true,
              strictActionImmutability: true,
              strictStateSerializability: true,
              strictActionSerializability: true,
              strictActionTypeUniqueness: true,
            }
          : {},
      },
    ),
    provideState(shelfFeature),
    provideState(calibrationFeature),
    provideEffects(shelfEffects, calibrationEffects),
    // Nothing is foretold before it is known what the shop has learned; a server that is away does not hold it up long.
    provideAppInitializer(() => {
      const [store, door, api] = [inject(Store), inject(Door), inject(DoorApi)];
      const known = async (): Promise<void> => {
        await api.look();
        if (door.outside) return;
        store.dispatch(CalibrationHand.asked());
        await firstValueFrom(
          store
            .select(calibrationFeature.selectCalibrationState)
            .pipe(filter(({ kept, fault }) => kept !== null || fault !== null)),
        );
      };
      return firstValueFrom(race(known(), timer(KNOWS_WITHIN)));
    }),
    provideAppInitializer(() => {
      const registry = inject(MatIconRegistry);
      const sanitizer = inject(DomSanitizer);
      for (const [name, path] of Object.entries(ICONS)) {
        registry.addSvgIconLiteral(
          name,
          sanitizer.bypassSecurityTrustHtml(
            `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><path d="${path}"/></svg>`,
          ),
        );
      }
    }),
  ],
};
