import { HttpClient, provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { API, fault } from '@zaffet/contract';
import { nextRequest } from '../testing/requests';
import { Door, doorInterceptor, isPassing } from './door';
import { DoorApi } from './door.api';
import { RELOAD } from './page-worker';
import { isFinal } from './plans.api';
import { missingHere } from './secure';

const KEY = 'k'.repeat(43);

describe('the door', () => {
  let http: HttpTestingController;
  let api: DoorApi;
  let reloaded: string[];
  const was = location.href;

  const begin = (): Door => {
    reloaded = [];
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(withInterceptors([doorInterceptor])),
        provideHttpClientTesting(),
        { provide: RELOAD, useValue: () => reloaded.push(location.pathname + location.hash) },
      ],
    });
    http = TestBed.inject(HttpTestingController);
    api = TestBed.inject(DoorApi);
    return TestBed.inject(Door);
  };
  afterEach(() => {
    http.verify();
    history.replaceState(null, '', was);
  });

  it('is shut as soon as the server answers that this device is not in, and by no other answer', async () => {
    const door = begin();
    const client = TestBed.inject(HttpClient);
    const asked = async (status: number): Promise<unknown> => {
      let heard: unknown = null;
      client.get(API.plans).subscribe({ error: (error: unknown) => (heard = error) });
      (await nextRequest(http, 'GET', API.plans)).flush(fault('session.needed'), {
        status,
        statusText: 'no',
      });
      return heard;
    };
    for (const status of [403, 404, 429, 500]) await asked(status);
    expect(door.shut()).toBeFalse();
    const heard = await asked(401);
    expect(door.shut()).toBeTrue();
    expect(door.outside).toBeFalse();
    // What was refused so is sent again once the device is in.
    expect(isFinal(heard)).toBeFalse();
    expect(isFinal(await asked(400))).toBeTrue();
    expect([401, 429, 400, 404, 503].map(isPassing)).toEqual([true, true, false, false, false]);
  });

  it('is looked at before anything is asked: a stranger sees no page, and a server that is away shuts nobody out', async () => {
    const door = begin();
    const look = async (answer: object | null): Promise<void> => {
      const looked = api.look();
      const request = await nextRequest(http, 'GET', API.session);
      if (answer === null) request.error(new ProgressEvent('away'));
      else request.flush(answer);
      await looked;
    };
    await look(null);
    expect(door.outside).toBeFalse();
    await look({ network: false, name: null });
    expect(door.outside).toBeFalse();
    await look({ network: true, name: 'Tablet' });
    expect([door.outside, door.shut()]).toEqual([false, false]);
    await look({ network: true, name: null });
    expect([door.outside, door.shut()]).toEqual([true, true]);
  });

  it('opens by an invitation, which then stands in no address any more, and leads to no other site', async () => {
    for (const [to, leads] of [
      ['/bench/run-1', '/bench/run-1'],
      ['//elsewhere.test', '/plans'],
      ['https://elsewhere.test', '/plans'],
      ['', '/plans'],
    ] as const) {
      history.replaceState(null, '', `/plans?to=${encodeURIComponent(to)}#${KEY}`);
      expect(begin().key).toBe(KEY);
      const signed = api.signIn({ name: 'Tablet', key: KEY });
      const request = await nextRequest(http, 'POST', API.session);
      expect(request.request.body).toEqual({ name: 'Tablet', key: KEY });
      request.flush({ network: true, name: 'Tablet' });
      await signed;
      expect(reloaded).toEqual([leads]);
      TestBed.resetTestingModule();
    }
    begin();
  });

  it('begins anew where it was after the pass phrase, and not at all after a wrong one', async () => {
    history.replaceState(null, '', '/bench/run-1');
    const door = begin();
    expect(door.key).toBeNull();
    const wrong = api.signIn({ name: 'Tablet', phrase: 'wrong' });
    (await nextRequest(http, 'POST', API.session)).flush(fault('session.wrong-phrase'), {
      status: 401,
      statusText: 'no',
    });
    await expectAsync(wrong).toBeRejected();
    expect(reloaded).toEqual([]);
    const right = api.signIn({ name: 'Tablet', phrase: 'right' });
    (await nextRequest(http, 'POST', API.session)).flush({ network: true, name: 'Tablet' });
    await right;
    expect(reloaded).toEqual(['/bench/run-1']);
  });

  it('tells what a page by plain http cannot do, and only there', () => {
    expect(missingHere(true)).toBeNull();
    expect(missingHere(false)).toMatch(/does not open here while .* off, no notices/);
    begin();
  });
});
