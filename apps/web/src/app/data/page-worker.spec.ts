import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Door } from './door';
import { PageWorker, RELOAD } from './page-worker';

/** A worker of the browser whose state the spec sets. */
class FakeWorker extends EventTarget {
  state: ServiceWorkerState = 'installing';
  readonly postMessage = jasmine.createSpy();
  become(state: ServiceWorkerState): void {
    this.state = state;
    this.dispatchEvent(new Event('statechange'));
  }
}

class FakeRegistration extends EventTarget {
  installing: FakeWorker | null = null;
  waiting: FakeWorker | null = null;
  active: FakeWorker | null = null;
  readonly update = jasmine.createSpy().and.resolveTo();
  readonly unregister = jasmine.createSpy().and.resolveTo(true);
}

class FakeContainer extends EventTarget {
  controller: FakeWorker | null = null;
  readonly registration = new FakeRegistration();
  readonly register = jasmine.createSpy().and.callFake(() => Promise.resolve(this.registration));
}

describe("the page's worker", () => {
  let container: FakeContainer;
  let reload: jasmine.Spy;
  let answer: jasmine.Spy;
  const settle = async (): Promise<void> => {
    for (let i = 0; i < 10; i++) await Promise.resolve();
  };

  beforeEach(() => {
    jasmine.clock().install();
    container = new FakeContainer();
    reload = jasmine.createSpy('reload');
    answer = spyOn(globalThis, 'fetch').and.resolveTo(new Response());
    spyOnProperty(Navigator.prototype, 'serviceWorker', 'get').and.returnValue(container as never);
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: RELOAD, useValue: reload },
        { provide: Door, useValue: { outside: false } },
      ],
    });
  });
  afterEach(() => jasmine.clock().uninstall());

  it('is tried again, later each time, while its files do not all come', async () => {
    const { registration } = container;
    registration.installing = new FakeWorker();
    await TestBed.inject(PageWorker).begin();
    registration.installing.become('redundant');
    container.register.and.callFake(() => Promise.reject(new TypeError('the connection broke')));
    jasmine.clock().tick(5000);
    await settle();
    expect(container.register).toHaveBeenCalledTimes(2);
    jasmine.clock().tick(9999);
    await settle();
    expect(container.register).toHaveBeenCalledTimes(2);
    jasmine.clock().tick(1);
    expect(container.register).toHaveBeenCalledTimes(3);
  });

  it('is not tried again once it works', async () => {
    const { registration } = container;
    const first = (registration.installing = new FakeWorker());
    await TestBed.inject(PageWorker).begin();
    registration.active = first;
    first.become('activated');
    first.become('redundant');
    jasmine.clock().tick(60_000);
    await settle();
    expect(container.register).toHaveBeenCalledTimes(1);
  });

  it('is left alone where the browser blocks it', async () => {
    container.register.and.resolveTo(undefined);
    await TestBed.inject(PageWorker).begin();
    jasmine.clock().tick(60_000);
    expect(container.register).toHaveBeenCalledTimes(1);
  });

  describe('of a newer build', () => {
    let worker: PageWorker;
    let newer: FakeWorker;

    beforeEach(async () => {
      const { registration } = container;
      container.controller = registration.active = new FakeWorker();
      newer = registration.waiting = new FakeWorker();
      newer.state = 'installed';
      worker = TestBed.inject(PageWorker);
      await worker.begin();
    });
    const take = async (): Promise<void> => {
      void worker.takeNewer();
      expect(newer.postMessage).toHaveBeenCalledOnceWith('take over');
      jasmine.clock().tick(4000);
      await settle();
    };

    it('takes over without the old one where that one does not end', async () => {
      await take();
      expect(container.registration.unregister).toHaveBeenCalledTimes(1);
      expect(reload).toHaveBeenCalledTimes(1);
    });

    it('leaves the old one where the server is away', async () => {
      answer.and.rejectWith(new TypeError('away'));
      await take();
      expect(container.registration.unregister).not.toHaveBeenCalled();
      expect(reload).not.toHaveBeenCalled();
    });

    it('reloads the page once where all goes well', async () => {
      newer.postMessage.and.callFake(() => {
        newer.become('activating');
        container.controller = newer;
        container.dispatchEvent(new Event('controllerchange'));
      });
      await take();
      expect(reload).toHaveBeenCalledTimes(1);
      expect(container.registration.unregister).not.toHaveBeenCalled();
    });
  });
});
