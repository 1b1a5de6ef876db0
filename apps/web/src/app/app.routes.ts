import { type Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'plans' },
  {
    path: 'plans',
    title: 'Plans · Zaffet',
    loadComponent: () => import('./plans/plans.page').then((m) => m.PlansPage),
  },
  {
    path: 'shelf',
    title: 'Shelf · Zaffet',
    data: { bar: true },
    loadComponent: () => import('./shelf/shelf.page').then((m) => m.ShelfPage),
  },
  {
    path: 'boards',
    title: 'Boards · Zaffet',
    loadComponent: () => import('./boards/boards.page').then((m) => m.BoardsPage),
  },
  {
    path: 'tablets',
    title: 'Tablets · Zaffet',
    loadComponent: () => import('./tablets/tablets.page').then((m) => m.TabletsPage),
  },
  { path: 'log', loadChildren: () => import('./log/log.routes').then((m) => m.logRoutes) },
  {
    path: 'guide',
    title: 'Guide · Zaffet',
    loadComponent: () => import('./guide/guide.page').then((m) => m.GuidePage),
  },
  {
    path: 'guide/read/:page',
    title: 'Guide · Zaffet',
    loadComponent: () => import('./guide/guide.page').then((m) => m.GuidePage),
  },
  {
    path: 'plan/:id',
    loadChildren: () => import('./shell/plan.routes').then((m) => m.planRoutes),
  },
  {
    path: 'bench/:run',
    loadChildren: () => import('./bench/run.routes').then((m) => m.runRoutes),
  },
  { path: '**', redirectTo: 'plans' },
];
