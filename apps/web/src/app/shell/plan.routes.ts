import { type Routes } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState } from '@ngrx/store';
import * as planEffects from '../plan/plan.effects';
import { planFeature } from '../plan/plan.feature';
import { PlanFrame } from './plan-frame';

/** An open plan and its rooms; the core and the plan's state are fetched with it, not with the list of plans. */
export const planRoutes: Routes = [
  {
    path: '',
    component: PlanFrame,
    providers: [provideState(planFeature), provideEffects(planEffects)],
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'layers' },
      {
        path: 'piece',
        title: 'Piece · Zaffet',
        loadComponent: () => import('../piece/piece.page').then((m) => m.PiecePage),
      },
      {
        path: 'mix',
        title: 'Mix · Zaffet',
        loadComponent: () => import('../mix/mix.page').then((m) => m.MixPage),
      },
      {
        path: 'shelf',
        title: 'Shelf · Zaffet',
        loadComponent: () => import('../shelf/shelf.page').then((m) => m.ShelfPage),
      },
      {
        path: 'look',
        title: 'Look · Zaffet',
        loadComponent: () => import('../look/look.page').then((m) => m.LookPage),
      },
      {
        path: 'layers',
        title: 'Layers · Zaffet',
        loadComponent: () => import('../layers/layers.page').then((m) => m.LayersPage),
      },
    ],
  },
];
