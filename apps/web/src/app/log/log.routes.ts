import { type Routes } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState } from '@ngrx/store';
import * as runEffects from '../runs/run.effects';
import { runFeature } from '../runs/run.feature';
import * as logEffects from './log.effects';
import { logFeature } from './log.feature';
import { LogPage } from './log.page';

/** The log: what is looked for stays so while one goes in and out of its entries. */
export const logRoutes: Routes = [
  {
    path: '',
    providers: [provideState(logFeature), provideState(runFeature), provideEffects(logEffects, runEffects)],
    children: [
      { path: '', pathMatch: 'full', title: 'Log · Zaffet', component: LogPage },
      {
        path: 'kept',
        title: 'How well it was foretold · Zaffet',
        loadComponent: () => import('./kept.page').then((m) => m.KeptPage),
      },
      {
        path: 'backup',
        title: 'Backup · Zaffet',
        loadComponent: () => import('./backup.page').then((m) => m.BackupPage),
      },
      {
        path: ':run/beside/:other',
        title: 'Side by side · Zaffet',
        loadComponent: () => import('./beside.page').then((m) => m.BesidePage),
      },
      {
        path: ':run',
        title: 'Log · Zaffet',
        loadComponent: () => import('./entry.page').then((m) => m.EntryPage),
      },
    ],
  },
];
