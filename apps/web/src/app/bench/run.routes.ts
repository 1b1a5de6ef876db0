import { type Routes } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState } from '@ngrx/store';
import * as runEffects from '../runs/run.effects';
import { runFeature } from '../runs/run.feature';
import { RunPage } from './run.page';

/** A run beside the work: the whole screen, without the plan it came from. */
export const runRoutes: Routes = [
  {
    path: '',
    title: 'Bench · Zaffet',
    component: RunPage,
    providers: [provideState(runFeature), provideEffects(runEffects)],
  },
];
