import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection, signal } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { API, type SignedIn } from '@zaffet/contract';
import { Door } from '../data/door';
import { provideMoments } from '../data/moments';
import { PhotoBox } from '../data/photo-box';
import { PlanOutbox } from '../data/plan-outbox';
import { ShelfOutbox } from '../data/shelf-outbox';
import { RunBox } from '../runs/run-box';
import { nextRequest, until } from '../testing/requests';
import { TabletsPage } from './tablets.page';

const device = (id: string, name: string, here: boolean): SignedIn => ({
  id,
  name,
  since: '2026-05-12T08:00:00.000Z',
  seenAt: '2026-05-12T09:00:00.000Z',
  here,
});

describe('the page of tablets', () => {
  const unsent = signal({ unsent: 0 });
  let asked: string[];
  let http: HttpTestingController;
  let fixture: ComponentFixture<TabletsPage>;

  beforeEach(() => {
    asked = [];
    unsent.set({ unsent: 0 });
    const outbox = { flush: () => asked.push('flush'), all: () => [] };
    const box = { poke: () => asked.push('poke'), state: unsent };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideRouter([]),
        provideMoments(),
        { provide: PlanOutbox, useValue: outbox },
        { provide: ShelfOutbox, useValue: outbox },
        { provide: RunBox, useValue: box },
        { provide: PhotoBox, useValue: { poke: () => undefined, state: signal({ unsent: 0 }) } },
      ],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(TabletsPage);
  });
  afterEach(() => http.verify());

  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  async function opened(devices: readonly SignedIn[]): Promise<void> {
    (await nextRequest(http, 'GET', API.session)).flush({ network: true, name: 'Shop' });
    (await nextRequest(http, 'GET', API.sessions)).flush(devices);
    await until(() => page().querySelector('section') !== null);
  }
  const button = (name: string): HTMLButtonElement =>
    [...page().querySelectorAll('button')].find(({ textContent }) => textContent.trim() === name)!;

  it('says how to open Zaffet where it answers only to its own machine', async () => {
    (await nextRequest(http, 'GET', API.session)).flush({ network: false, name: null });
    await until(() => page().querySelector('pre') !== null);
    expect(page().textContent).toContain('ZAFFET_HOST=0.0.0.0 ZAFFET_PASSPHRASE_FILE=phrase.txt npm start');
  });

  it('tells who is in, and lets one shut out any but itself', async () => {
    await opened([device('a', 'Shop', true), device('b', 'Tablet', false)]);
    expect([...page().querySelectorAll('li b')].map(({ textContent }) => textContent)).toEqual([
      'Shop',
      'Tablet',
    ]);
    expect(page().querySelectorAll('li button').length).toBe(1);
    page().querySelector<HTMLButtonElement>('li button')!.click();
    (await nextRequest(http, 'DELETE', API.oneSession('b'))).flush(null);
    await opened([device('a', 'Shop', true)]);
    await until(() => page().querySelectorAll('li').length === 1);
    expect(page().querySelectorAll('li').length).toBe(1);
  });

  it('makes an invitation that leads where it was asked from, and to no other site', async () => {
    fixture.componentRef.setInput('to', '//elsewhere.test');
    await opened([device('a', 'Shop', true)]);
    button('Make an invitation').click();
    expect((await nextRequest(http, 'POST', API.invitations)).request.body).toEqual({ to: '/plans' });
    fixture.componentRef.setInput('to', '/bench/run-1');
    button('Make an invitation').click();
    const request = await nextRequest(http, 'POST', API.invitations);
    expect(request.request.body).toEqual({ to: '/bench/run-1' });
    request.flush({
      address: 'https://shop.test:4310/plans?to=x#k',
      picture: '<svg xmlns="http://www.w3.org/2000/svg"/>',
      until: '2026-05-12T10:00:00.000Z',
      trust: {
        address: 'http://shop.test:4310/',
        picture: '<svg/>',
        fingerprint: 'AA:BB:CC:DD:EE:FF:00:11:22',
      },
    });
    await until(() => page().querySelectorAll('img').length === 2);
    expect([...page().querySelectorAll('code span')].map(({ textContent }) => textContent)).toEqual([
      'AA:BB:CC:DD:EE:FF:00:11',
      '22',
    ]);
    expect(page().textContent).toContain('goes to this run');
  });

  it('sends what waits before it signs out, and warns where some of it still waits', async () => {
    await opened([device('a', 'Shop', true)]);
    unsent.set({ unsent: 2 });
    button('Sign this device out').click();
    await until(() => page().querySelector('[role=alert]') !== null);
    expect(asked).toContain('flush');
    expect(asked).toContain('poke');
    expect(page().querySelector('[role=alert]')!.textContent).toContain('2 things told here wait');
    const door = TestBed.inject(Door);
    expect(door.shut()).toBeFalse();
    button('Sign out all the same').click();
    (await nextRequest(http, 'DELETE', API.session)).flush(null);
    await until(() => door.shut());
    expect(door.shut()).toBeTrue();
  });
});
