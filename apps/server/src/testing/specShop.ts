/// <reference types="jasmine" />
import { type Express } from 'express';
import { pino } from 'pino';
import { type AppOptions, buildApp } from '../app';
import { type Database, openEmbedded, type OpenDatabase } from '../db/client';
import { SheetMaker } from '../sheet/maker';
import { mustNotFail, scratchFolder } from './index';
import { prepare } from './prepared';

/** A shop's database of a spec's own, and Zaffet on it. */
export interface SpecShop {
  readonly folder: string;
  readonly sheets: SheetMaker;
  /** Open while specs run. */
  readonly db: Database;
  readonly database: OpenDatabase;
  build(some?: Partial<AppOptions>): Express;
}

/** Opens it before the specs of a suite, and clears it away after them. */
export function specShop(): SpecShop {
  const folder = scratchFolder();
  const sheets = new SheetMaker();
  let database: OpenDatabase;
  beforeAll(async () => {
    await prepare(folder.path);
    database = await openEmbedded(folder.path, mustNotFail);
  }, 60000);
  afterAll(async () => {
    await sheets.close();
    await database.close();
    folder.remove();
  });
  return {
    folder: folder.path,
    sheets,
    get db() {
      return database.db;
    },
    get database() {
      return database;
    },
    build: (some = {}) =>
      buildApp({
        db: database.db,
        log: pino({ level: 'silent' }),
        sheets,
        webDirectory: folder.path,
        ...some,
      }),
  };
}
