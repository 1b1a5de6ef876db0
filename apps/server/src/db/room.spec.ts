import { API, type Fault } from '@zaffet/contract';
import { existsSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { planNamed } from '../testing';
import { specShop } from '../testing/specShop';
import { makeWay, RESERVE, Room } from './room';

const MB = 1e6;

describe('a disk that fills up', () => {
  const shop = specShop();

  it('is read and backed up, refuses what would be written, and is written again once there is room', async () => {
    let free = 500 * MB;
    const room = new Room(shop.db, shop.folder, pino({ level: 'silent' }), () => free);
    const app = shop.build();
    const save = (): request.Test => request(app).post(API.plans).send(planNamed('Lid'));
    await room.look();
    const reserve = join(shop.folder, RESERVE);
    expect(statSync(reserve).size).toBeGreaterThan(32 * MB);
    await save().expect(201);

    free = 10 * MB;
    await room.look();
    expect(room.isFull).toBeTrue();
    expect(((await save().expect(507)).body as Fault).code).toBe('server.disk-full');
    expect(((await request(app).get(API.plans).expect(200)).body as unknown[]).length).toBe(1);
    await request(app).get(API.backup).expect(200);
    await request(app).get(API.log).expect(200);

    // A little room is not enough: it would be full again at once.
    free = 60 * MB;
    await room.look();
    expect(room.isFull).toBeTrue();
    free = 500 * MB;
    await room.look();
    expect(room.isFull).toBeFalse();
    await save().expect(201);
    expect(existsSync(reserve)).toBeTrue();
  });

  it('gives its reserve up only where it is full', () => {
    writeFileSync(join(shop.folder, RESERVE), 'x');
    makeWay(shop.folder);
    expect(existsSync(join(shop.folder, RESERVE))).toBeTrue();
    rmSync(join(shop.folder, RESERVE));
  });

  it('that was opened by its reserve is only read until there is room for another', async () => {
    let free = 50 * MB;
    const folder = join(shop.folder, 'pg_wal');
    const room = new Room(shop.db, folder, pino({ level: 'silent' }), () => free);
    await room.look();
    expect(room.isFull).toBeTrue();
    free = 500 * MB;
    await room.look();
    expect(room.isFull).toBeFalse();
  });
});
