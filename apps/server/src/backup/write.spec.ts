import { API } from '@zaffet/contract';
import { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import request from 'supertest';
import { photos } from '../db/schema';
import { keepPhoto } from '../photos/queries';
import { hashOf, photographOf } from '../testing';
import { backup, endSheets, fill, openWorkshop, photo, unzipped, type Workshop } from '../testing/backups';
import { backupOf } from './write';

const PHOTOGRAPHS = 30;

describe('a backup', () => {
  let shop: Workshop;
  let zip: Buffer;

  beforeAll(async () => {
    shop = await openWorkshop();
    await fill(shop);
    zip = await backup(shop);
  }, 120_000);
  afterAll(async () => {
    await shop.close();
    await endSheets();
  });

  it('holds everything, readable by what any zip is read by', () => {
    const entries = unzipped(zip);
    const head = JSON.parse(entries.get('zaffet.json')!.toString()) as { counts: Record<string, number> };
    expect(head.counts).toEqual({
      plans: 3,
      runs: 1,
      photos: 1,
      shelf: 1,
      calibrations: 1,
      settings: 1,
      air: 1,
    });
    expect(Buffer.compare(entries.get(`photos/${hashOf(photo)}`)!, photo)).toBe(0);
    expect(entries.get('air/2026-05.csv')!.toString()).toBe(
      'source,time,temperature_c,humidity\r\ndial,2026-05-12T09:00:00.000Z,19.3,0.55\r\n',
    );
    const run = JSON.parse(entries.get('runs/run-a.json')!.toString()) as { events: unknown[] };
    expect(run.events.length).toBe(3);
  });

  it('lets others in between while it is written, however fast photographs follow each other', async () => {
    const full = await openWorkshop();
    for (let n = 0; n < PHOTOGRAPHS; n++) {
      const { bytes, hash } = photographOf(300_000);
      await keepPhoto(full.database.db, hash, bytes, 1e9);
    }
    let turns = 0;
    let over = false;
    const others = (): void => {
      turns += 1;
      if (!over) setImmediate(others);
    };
    setImmediate(others);
    /** Turns of the event loop in which something of it was written. */
    const wrote = new Set<number>();
    const into = new Writable({
      write: (_piece, _encoding, done) => {
        wrote.add(turns);
        done();
      },
    });
    await pipeline(await backupOf(full.database.db), into);
    over = true;
    // Two small ones may follow each other; none of them waits for all.
    expect(wrote.size).toBeGreaterThan(PHOTOGRAPHS / 2);
    await full.close();
  });

  it('of a database with whole photographs, as a Zaffet before 0.2 kept them, has them all the same', async () => {
    const fresh = await openWorkshop();
    const { bytes, hash } = photographOf(700_000);
    await fresh.database.db.insert(photos).values({ hash, type: 'image/jpeg', size: bytes.length, bytes });
    const sent = await request(fresh.app).get(API.photo(hash)).buffer(true).expect(200);
    expect(Buffer.compare(sent.body as Buffer, bytes)).toBe(0);
    expect(Buffer.compare(unzipped(await backup(fresh)).get(`photos/${hash}`)!, bytes)).toBe(0);
    await fresh.close();
  });
});
