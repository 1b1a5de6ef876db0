import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { API } from '@zaffet/contract';
import { Door } from './door';
import { PHOTO_PAUSES, PhotoBox } from './photo-box';

/** A server that keeps photographs, may be away, and may refuse them. */
class FakeServer {
  readonly kept = new Map<string, Blob>();
  away = 0;
  refuses: string | null = null;
  /** What it refuses with. */
  status = 400;
  /** How often it was sent something and answered. */
  asked = 0;

  readonly fetch = (address: string, options: { body: Blob }): Promise<Response> => {
    if (this.away > 0) {
      this.away -= 1;
      return Promise.reject(new TypeError('away'));
    }
    this.asked += 1;
    if (this.refuses !== null)
      return Promise.resolve(
        new Response(JSON.stringify({ message: this.refuses }), { status: this.status }),
      );
    this.kept.set(address, options.body);
    return Promise.resolve(new Response(null, { status: 204 }));
  };
}

/** A picture of one colour and a number of its own, so that no two are the same bytes. */
async function picture(width: number, height: number, type = 'image/png'): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d')!;
  context.fillStyle = '#5d6b4b';
  context.fillRect(0, 0, width, height);
  context.fillText(String(Math.random()), 2, 10);
  return canvas.convertToBlob({ type });
}

/** SHA-256 as the browser itself has it. */
async function hashOf(blob: Blob): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', await blob.arrayBuffer());
  return [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

const until = async (is: () => boolean): Promise<void> => {
  for (let n = 0; n < 4000 && !is(); n++) await new Promise((go) => setTimeout(go, 5));
  expect(is()).toBeTrue();
};

describe('the way of photographs to the server', () => {
  let server: FakeServer;

  /** A page that was just opened. */
  function open(): PhotoBox {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: PHOTO_PAUSES, useValue: { first: 1, longest: 4, patience: 1000 } },
      ],
    });
    return TestBed.inject(PhotoBox);
  }

  /** Photographs that other pages left waiting come as well. */
  const has = (hash: string): boolean =>
    server.kept.has(API.photo(hash)) && server.kept.has(API.photoScreen(hash));

  beforeEach(() => {
    server = new FakeServer();
    spyOn(globalThis, 'fetch').and.callFake(server.fetch as unknown as typeof fetch);
  });

  it('sends them as they are, under the hash of their bytes, and one that is no larger than a screen', async () => {
    const box = open();
    const file = await picture(2000, 500);
    const hash = await box.keep(file);
    expect(hash).toBe(await hashOf(file));
    await until(() => has(hash));
    expect(await hashOf(server.kept.get(API.photo(hash))!)).toBe(hash);
    const screen = server.kept.get(API.photoScreen(hash))!;
    expect(screen.type).toBe('image/jpeg');
    const { width, height } = await createImageBitmap(screen);
    expect([width, height]).toEqual([1600, 400]);
    await until(() => box.state().unsent === 0);
    expect(box.address(hash)).toBe(API.photoScreen(hash));
  });

  it('shows them from this device until the server has them, and tries again while it is away', async () => {
    server.away = 5;
    const box = open();
    const hash = await box.keep(await picture(40, 30));
    expect(box.address(hash)).toMatch(/^blob:/);
    expect(box.state().unsent).toBe(1);
    await until(() => has(hash));
    await until(() => box.address(hash) === API.photoScreen(hash));
  });

  it('sends from the next page what this one could not', async () => {
    server.away = Infinity;
    const file = await picture(40, 30);
    const hash = await open().keep(file);
    server.away = 0;
    // The first page goes on trying as well; what is sent twice is the same.
    open();
    await until(() => has(hash));
    expect(await hashOf(server.kept.get(API.photo(hash))!)).toBe(hash);
  });

  it('tries again while the server has no room', async () => {
    [server.refuses, server.status] = ['Photographs take all the room.', 507];
    const box = open();
    const hash = await box.keep(await picture(40, 30));
    await until(() => server.asked > 2);
    expect([box.state().unsent, box.state().refused]).toEqual([1, []]);
    server.refuses = null;
    await until(() => has(hash));
  });

  it('sends what the server will not take no more, keeps it, and says why until a person has decided', async () => {
    server.refuses = 'This is no photograph.';
    const hash = await open().keep(await picture(40, 30));
    await until(() => server.asked > 0);
    const box = open();
    await until(() => box.state().refused.length > 0);
    const { asked } = server;
    const next = open();
    await until(() => next.state().refused.length > 0);
    expect(next.state().refused.map((photo) => [photo.hash, photo.refused])).toEqual([
      [hash, 'This is no photograph.'],
    ]);
    expect([next.state().unsent, server.asked]).toEqual([0, asked]);
    expect(next.address(hash)).toMatch(/^blob:/);
    await next.drop(hash);
    expect(next.state().refused).toEqual([]);
    const last = open();
    await new Promise((go) => setTimeout(go, 30));
    expect(last.state().refused).toEqual([]);
  });

  it('waits at a shut door, and drops nothing', async () => {
    [server.refuses, server.status] = ['Sign in.', 401];
    const box = open();
    const hash = await box.keep(await picture(40, 30));
    await until(() => TestBed.inject(Door).shut());
    expect([box.state().unsent, box.state().refused]).toEqual([1, []]);
    server.refuses = null;
    await until(() => has(hash));
  });

  it('makes a JPEG of a file that the server cannot keep', async () => {
    const box = open();
    const odd = new Blob([await (await picture(60, 40)).arrayBuffer()], { type: 'image/x-odd' });
    const hash = await box.keep(odd);
    await until(() => server.kept.has(API.photo(hash)));
    expect(server.kept.get(API.photo(hash))!.type).toBe('image/jpeg');
  });
});
