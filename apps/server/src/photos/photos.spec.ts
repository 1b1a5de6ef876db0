import { API, type Fault, filePlan, type PhotosKept, type PhotosRoom, type RunEvent } from '@zaffet/contract';
import { parseEvents } from '@zaffet/contract/runs';
import { newPlan } from '@zaffet/workshop';
import { type Express } from 'express';
import { createHash } from 'node:crypto';
import { PNG } from 'pngjs';
import request from 'supertest';
import { takeEvents } from '../runs/queries';
import { specShop } from '../testing/specShop';

const hashOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');
/** A picture of noise, so that it does not pack. */
function picture(side: number, seed = 1): Buffer {
  const png = new PNG({ width: side, height: side });
  let x = seed;
  for (let i = 0; i < png.data.length; i++) {
    x = (x * 1103515245 + 12345) % 2 ** 31;
    png.data[i] = x >> 16;
  }
  return PNG.sync.write(png);
}
/** The head of a PNG that says how large it is, and nothing of it. */
function headOnly(width: number, height: number): Buffer {
  const bytes = Buffer.from(picture(2));
  bytes.writeUInt32BE(width, 16);
  bytes.writeUInt32BE(height, 20);
  return bytes;
}
/** The smallest JPEG there is of its size: head and end. */
function jpeg(width: number, height: number): Buffer {
  const frame = Buffer.from([0xff, 0xc0, 0, 11, 8, 0, 0, 0, 0, 1, 1, 0x11, 0]);
  frame.writeUInt16BE(height, 5);
  frame.writeUInt16BE(width, 7);
  const app0 = Buffer.from([0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 1, 0, 0, 1, 0, 1, 0, 0]);
  return Buffer.concat([Buffer.from([0xff, 0xd8]), app0, frame, Buffer.from([0xff, 0xd9])]);
}

describe('photographs', () => {
  const shop = specShop();
  let app: Express;
  const MOST = 1_000_000;

  beforeAll(async () => {
    app = shop.build({ photosMost: MOST });
  });

  const put = (hash: string, bytes: Buffer, type = 'image/png', screen = false): request.Test =>
    request(app)
      .put(screen ? API.photoScreen(hash) : API.photo(hash))
      .set('content-type', type)
      .send(bytes);
  const kept = async (): Promise<PhotosKept> =>
    (await request(app).get(API.photos).expect(200)).body as PhotosKept;
  const refused = async (test: request.Test, status: number): Promise<string> =>
    ((await test.expect(status)).body as Fault).code;

  it('come back as they were, byte by byte, however often they are sent', async () => {
    const bytes = picture(40);
    const hash = hashOf(bytes);
    const before = await kept();
    await put(hash, bytes).expect(204);
    await put(hash, bytes).expect(204);
    const answer = await request(app).get(API.photo(hash)).expect(200);
    expect(Buffer.compare(answer.body as Buffer, bytes)).toBe(0);
    expect(answer.headers['content-type']).toBe('image/png');
    expect(answer.headers['cache-control']).toContain('immutable');
    expect(await kept()).toEqual({ count: before.count + 1, bytes: before.bytes + bytes.length, most: MOST });
  });

  it('are shown as they are until one for the screen is there', async () => {
    const bytes = picture(30, 2);
    const hash = hashOf(bytes);
    await put(hash, bytes).expect(204);
    const first = await request(app).get(API.photoScreen(hash)).expect(200);
    expect(Buffer.compare(first.body as Buffer, bytes)).toBe(0);
    const small = jpeg(20, 20);
    await put(hash, small, 'image/jpeg', true).expect(204);
    const then = await request(app).get(API.photoScreen(hash)).expect(200);
    expect(then.headers['content-type']).toBe('image/jpeg');
    expect(Buffer.compare(then.body as Buffer, small)).toBe(0);
    expect(Buffer.compare((await request(app).get(API.photo(hash))).body as Buffer, bytes)).toBe(0);
  });

  it('are refused where they are not what was announced, no pictures, or too large', async () => {
    const bytes = picture(20, 3);
    const before = await kept();
    expect(await refused(put(hashOf(picture(20, 4)), bytes), 400)).toBe('photo.other');
    const words = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>');
    expect(await refused(put(hashOf(words), words), 400)).toBe('photo.invalid');
    expect(await refused(put(hashOf(words), words, 'image/svg+xml'), 400)).toBe('photo.invalid');
    const vast = headOnly(30_000, 30_000);
    expect(await refused(put(hashOf(vast), vast), 413)).toBe('picture.too-many-pixels');
    const heavy = Buffer.alloc(25_000_001);
    expect(await refused(put(hashOf(heavy), heavy), 413)).toBe('picture.too-large');
    expect(await refused(put('no-hash', bytes), 404)).toBe('photo.not-found');
    expect(await refused(request(app).get(API.photo(hashOf(heavy))), 404)).toBe('photo.not-found');
    const small = jpeg(20, 20);
    expect(await refused(put(hashOf(heavy), small, 'image/jpeg', true), 404)).toBe('photo.not-found');
    const wide = jpeg(1601, 20);
    expect(await refused(put(hashOf(bytes), wide, 'image/jpeg', true), 400)).toBe('photo.invalid');
    expect(await kept()).toEqual(before);
  });

  it('that were taken back everywhere can be cleared away, and no others', async () => {
    const [one, two, three, four] = [11, 12, 13, 14].map((seed) => picture(20, seed));
    for (const bytes of [one!, two!, three!, four!]) await put(hashOf(bytes), bytes).expect(204);
    let n = 0;
    const plan = newPlan('wet-glue', 'Oar bracket', 3, '2026-05-12T08:00:00.000Z', () => `p${++n}`);
    const events = (run: string, bodies: readonly object[]): readonly RunEvent[] =>
      parseEvents({
        events: [{ kind: 'run-begun', planId: null, plan: filePlan(plan) }, ...bodies].map((body, i) => ({
          ...{ id: `${run}-${i}`, device: `tablet-${run}`, n: i + 1, at: '2026-05-12T09:00:00.000Z' },
          ...{ offsetMs: 0, ...body },
        })),
      }).events;
    const shows = (bytes: Buffer): object => ({
      ...{ kind: 'photo', partId: null, stepId: null, when: 'dry', text: '', hash: hashOf(bytes) },
    });
    const back = (eventId: string): object => ({ kind: 'taken-back', eventId });
    // The first is taken back; the second too, but another run shows it; the third is back again; the fourth is told of nowhere.
    const first = [
      shows(one!),
      shows(two!),
      shows(three!),
      back('a-1'),
      back('a-2'),
      back('a-3'),
      back('a-6'),
    ];
    await takeEvents(shop.db, 'a', events('a', first));
    await takeEvents(shop.db, 'b', events('b', [shows(two!)]));
    const room = (await request(app).get(API.photosUnshown).expect(200)).body as PhotosRoom;
    expect(room).toEqual({ count: 1, bytes: one!.length });
    const before = await kept();
    expect((await request(app).delete(API.photosUnshown).expect(200)).body).toEqual(room);
    expect(await kept()).toEqual({ ...before, count: before.count - 1, bytes: before.bytes - one!.length });
    await request(app)
      .get(API.photo(hashOf(one!)))
      .expect(404);
    for (const bytes of [two!, three!, four!])
      await request(app)
        .get(API.photo(hashOf(bytes)))
        .expect(200);
    expect((await request(app).delete(API.photosUnshown)).body).toEqual({ count: 0, bytes: 0 });
  });

  it('are refused once they take all the room they may have', async () => {
    const bytes = picture(600, 5);
    expect(bytes.length).toBeGreaterThan(MOST);
    expect(await refused(put(hashOf(bytes), bytes), 507)).toBe('photo.full');
  });
});
