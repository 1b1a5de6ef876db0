import { provideHttpClient, withFetch } from '@angular/common/http';
import {
  type ApplicationConfig,
  inject,
  isDevMode,
  provideAppInitializer,
  provideZonelessChangeDetection,
} from '@angular/core';
import { MatIconRegistry } from '@angular/material/icon';
import { DomSanitizer } from '@angular/platform-browser';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore } from '@ngrx/store';
import { routes } from './app.routes';
import { provideMoments } from './data/moments';
import * as shelfEffects from './shop/shelf.effects';
import { shelfFeature } from './shop/shelf.feature';
import { ICONS } from './ui/icons';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideHttpClient(withFetch()),
    provideMoments(),
    provideRouter(routes, withComponentInputBinding()),
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
    provideEffects(shelfEffects),
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
