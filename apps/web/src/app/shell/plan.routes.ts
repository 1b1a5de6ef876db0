import { type Routes } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState } from '@ngrx/store';
import * as runEffects from '../runs/run.effects';
import { runFeature } from '../runs/run.feature';
import * as planEffects from '../plan/plan.effects';
import { planFeature } from '../plan/plan.feature';
import { PlanFrame } from './plan-frame';
import { ROOMS } from './rooms';

/** An open plan and its rooms; the core and the plan's state are fetched with it, not with the list of plans. */
export const planRoutes: Routes = [
  {
    path: '',
    component: PlanFrame,
    providers: [provideState(planFeature), provideState(runFeature), provideEffects(planEffects, runEffects)],
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'layers' },
      ...ROOMS.map(({ path, name, load }) => ({ path, title: `${name} · Zaffet`, loadComponent: load })),
    ],
  },
];
