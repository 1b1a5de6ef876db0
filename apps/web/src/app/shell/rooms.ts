import { type Type } from '@angular/core';

/** A room of an open plan: its address, its name on the rail and in the window's title, and what is fetched for it. */
export interface Room {
  readonly path: string;
  readonly name: string;
  load(): Promise<Type<unknown>>;
}

/** The rooms in the order a painter walks through them. */
export const ROOMS: readonly Room[] = [
  { path: 'piece', name: 'Piece', load: () => import('../piece/piece.page').then((m) => m.PiecePage) },
  { path: 'look', name: 'Look', load: () => import('../look/look.page').then((m) => m.LookPage) },
  { path: 'layers', name: 'Layers', load: () => import('../layers/layers.page').then((m) => m.LayersPage) },
  { path: 'days', name: 'Days', load: () => import('../days/days.page').then((m) => m.DaysPage) },
  { path: 'mix', name: 'Mix', load: () => import('../mix/mix.page').then((m) => m.MixPage) },
  { path: 'bench', name: 'Bench', load: () => import('../bench/bench.page').then((m) => m.BenchPage) },
  { path: 'shelf', name: 'Shelf', load: () => import('../shelf/shelf.page').then((m) => m.ShelfPage) },
];
