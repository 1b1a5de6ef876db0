import { type Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'plans' },
  {
    path: 'plans',
    title: 'Plans · Zaffet',
    loadComponent: () => import('./plans/plans.page').then((m) => m.PlansPage),
  },
  {
    path: 'plan/:id',
    loadComponent: () => import('./shell/plan-frame').then((m) => m.PlanFrame),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'layers' },
      {
        path: 'piece',
        title: 'Piece · Zaffet',
        loadComponent: () => import('./piece/piece.page').then((m) => m.PiecePage),
      },
      {
        path: 'layers',
        title: 'Layers · Zaffet',
        loadComponent: () => import('./layers/layers.page').then((m) => m.LayersPage),
      },
    ],
  },
  { path: '**', redirectTo: 'plans' },
];
