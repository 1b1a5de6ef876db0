import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { API, type EventsAnswer, type EventsRequest, filePlan, type RunEvent } from '@zaffet/contract';
import { openDB } from 'idb';
import { RUN_PAUSES, RunBox, type RunNews } from './run-box';
import { Door } from '../data/door';
import { newId } from '../data/fresh';
import { samplePlan } from '../testing/plan';
import { type Telling } from './run-store';

const note = (text: string): Telling => ({ kind: 'note', partId: null, text });

/** A server that keeps events by id, may be away, and cannot read what it is told to refuse. */
class FakeServer {
  readonly kept = new Map<string, RunEvent[]>();
  readonly batches: number[] = [];
  away = 0;
  /** It answers to nobody who is not signed in. */
  shut = false;
  unreadable: string | null = null;
  /** Devices and numbers that other events have. */
  readonly counted = new Set<string>();
  /** A run it knows nothing of. */
  unknown: string | null = null;
  /** How far its clock is before this device's [ms]. */
  ahead = 0;

  readonly fetch = (address: string, options?: { body?: string }): Promise<Response> => {
    if (this.shut) return this.answer(401, { code: 'session.needed', message: 'Sign in.', fields: [] });
    if (this.away > 0) {
      this.away -= 1;
      return Promise.reject(new TypeError('away'));
    }
    const now = new Date(Date.now() + this.ahead).toISOString();
    if (address === API.clock) return this.answer(200, { now });
    const run = /runs\/([^/]+)\/events/.exec(address)?.[1] ?? '';
    if (run === this.unknown)
      return this.answer(404, { code: 'run.not-found', message: 'No such run.', fields: [] });
    const mine = this.kept.get(run) ?? [];
    this.kept.set(run, mine);
    if (options?.body === undefined) {
      const [count, last] = [/after=(\d+)/, /last=([^&]+)/].map((part) => part.exec(address)?.[1]);
      const there = mine[Number(count) - 1]?.id;
      const after = last !== undefined && there !== last ? 0 : Number(count ?? 0);
      const events = mine.slice(after).map((event, i) => ({ seq: after + i + 1, event }));
      return this.answer(200, { events, upTo: mine.length, now });
    }
    const { events } = JSON.parse(options.body) as EventsRequest;
    if (events.some((event) => event.kind === 'note' && event.text === this.unreadable))
      return this.answer(400, { code: 'run.invalid', message: 'text is not so.', fields: [] });
    this.batches.push(events.length);
    const refused: EventsAnswer['refused'][number][] = [];
    for (const event of events) {
      if (mine.some(({ id }) => id === event.id)) continue;
      if (this.counted.has(`${event.device} ${event.n}`))
        refused.push({ id: event.id, reason: 'number-taken', message: 'It was set back.' });
      else mine.push(event);
    }
    const taken = Object.fromEntries(
      mine.flatMap(({ id }, i) => (events.some((one) => one.id === id) ? [[id, i + 1]] : [])),
    );
    return this.answer(200, { taken, refused, now });
  };

  private answer(status: number, body: unknown): Promise<Response> {
    return Promise.resolve(new Response(JSON.stringify(body), { status }));
  }
}

/** As a device that has never asked what the time is. */
async function forgetClock(): Promise<void> {
  const db = await openDB('zaffet-runs');
  await db.delete('facts', 'offset');
  db.close();
}

describe('the way of runs to the server', () => {
  let server: FakeServer;
  let box: RunBox;

  beforeEach(() => {
    server = new FakeServer();
    spyOn(globalThis, 'fetch').and.callFake(server.fetch as typeof fetch);
    box = newBox();
  });

  /** As of a page that is opened. */
  const newBox = (): RunBox => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: RUN_PAUSES, useValue: { first: 1, longest: 4, patience: 1000, reopen: 5 } },
      ],
    });
    return TestBed.inject(RunBox);
  };

  const sent = async (run: string, count: number): Promise<string[]> => {
    const texts = (): string[] =>
      (server.kept.get(run) ?? []).map((event) => (event.kind === 'note' ? event.text : event.kind));
    for (let n = 0; n < 400 && texts().length < count; n++) await new Promise((go) => setTimeout(go, 5));
    return texts();
  };
  /** Once nothing is on its way any more, and a little longer. */
  const quiet = async (): Promise<void> => {
    for (let n = 0; n < 400 && box.state().unsent > 0; n++) await new Promise((go) => setTimeout(go, 5));
    await new Promise((go) => setTimeout(go, 40));
  };

  it('is sent again where an older state of the server was restored, and what came since is fetched', async () => {
    const run = newId();
    const plan = { kind: 'run-begun', planId: null, plan: filePlan(samplePlan()) } as const;
    const [begun] = await box.tell(run, [plan]);
    await box.tell(run, [note('a'), note('b')]);
    await sent(run, 3);
    await quiet();
    await box.fetch(run);
    // A backup from before "b" came; another device told "c" since.
    const other = {
      ...begun!,
      id: newId(),
      device: 'other',
      n: 1,
      kind: 'note',
      partId: null,
      text: 'c',
    } as RunEvent;
    server.kept.set(run, [...server.kept.get(run)!.slice(0, 2), other]);
    await box.fetch(run);
    expect(await sent(run, 4)).toEqual(['run-begun', 'a', 'c', 'b']);
    const texts = (await box.known(run)).map((event) => (event.kind === 'note' ? event.text : ''));
    expect(texts.sort()).toEqual(['', 'a', 'b', 'c']);
    // Nothing of it is left: all goes again, its beginning first.
    server.kept.delete(run);
    server.unknown = run;
    await expectAsync(box.fetch(run)).toBeRejected();
    server.unknown = null;
    box.poke();
    expect((await sent(run, 4))[0]).toBe('run-begun');
  });

  it('is each thing once, in the order it was told', async () => {
    const run = newId();
    await box.tell(run, [note('a'), note('b')]);
    await box.tell(run, [note('c')]);
    expect(await sent(run, 3)).toEqual(['a', 'b', 'c']);
    await quiet();
    expect(server.kept.get(run)!.length).toBe(3);
    expect(box.state().unsent).toBe(0);
    expect(await box.known(run)).toHaveSize(3);
  });

  it('waits while the server is away, says so, and loses nothing', async () => {
    const run = newId();
    server.away = 3;
    await box.tell(run, [note('while away')]);
    await new Promise((go) => setTimeout(go, 2));
    expect(await sent(run, 1)).toEqual(['while away']);
    await quiet();
    expect([box.state().away, box.state().unsent]).toEqual([false, 0]);
  });

  it('waits at a shut door, which then is seen to be shut, and drops nothing', async () => {
    const run = newId();
    const door = TestBed.inject(Door);
    server.shut = true;
    await box.tell(run, [note('told outside')]);
    for (let n = 0; n < 400 && !door.shut(); n++) await new Promise((go) => setTimeout(go, 5));
    expect(door.shut()).toBeTrue();
    // Others may wait as well.
    expect(box.state().unsent).toBeGreaterThan(0);
    expect(box.state().refused).toBeNull();
    server.shut = false;
    expect(await sent(run, 1)).toEqual(['told outside']);
    await quiet();
    expect(box.state().unsent).toBe(0);
  });

  it('sends many by batches the server takes', async () => {
    const run = newId();
    await box.tell(
      run,
      Array.from({ length: 120 }, (_, i) => note(String(i))),
    );
    expect((await sent(run, 120)).length).toBe(120);
    expect(Math.max(...server.batches)).toBeLessThanOrEqual(50);
  });

  it('lets the others pass where the server cannot read one, and says why', async () => {
    const run = newId();
    server.unreadable = 'bad';
    await box.tell(run, [note('good'), note('bad'), note('better')]);
    expect(await sent(run, 2)).toEqual(['good', 'better']);
    await quiet();
    expect(box.state().refused).toBe('text is not so.');
    // It stays here, and is not sent for ever.
    expect(box.state().unsent).toBe(0);
    expect(await box.known(run)).toHaveSize(3);
  });

  it('does not hold up another run behind one whose beginning the server would not take', async () => {
    const [lost, fine] = [newId(), newId()];
    server.unknown = lost;
    await box.tell(lost, [note('of no run')]);
    await box.tell(fine, [note('of another')]);
    expect(await sent(fine, 1)).toEqual(['of another']);
    await quiet();
    expect(box.state().away).toBeFalse();
    expect(await box.known(lost)).toHaveSize(1);
  });

  it('begins a new count where this device was set back, and loses nothing by that', async () => {
    const run = newId();
    const [before] = await box.tell(run, [note('before')]);
    await sent(run, 1);
    await quiet();
    for (let n = 1; n < 9; n++) server.counted.add(`${before!.device} ${before!.n + n}`);
    await box.tell(run, [note('after'), note('and more')]);
    expect(await sent(run, 3)).toEqual(['before', 'after', 'and more']);
    await quiet();
    const told = server.kept.get(run)!;
    expect(told[1]!.device).not.toBe(before!.device);
    expect(told.slice(1).map(({ n }) => n)).toEqual([1, 2]);
    expect([box.state().refused, box.state().unsent]).toEqual([null, 0]);
    // What is told now goes on under the new name.
    const [next] = await box.tell(run, [note('next')]);
    expect([next!.device, next!.n]).toEqual([told[1]!.device, 3]);
    expect((await box.known(run)).length).toBe(4);
  });

  it('keeps until when alarms were heard', async () => {
    const run = newId();
    expect(await box.heardUntil(run)).toBeNull();
    await box.hear(run, 1234);
    expect(await box.heardUntil(run)).toBe(1234);
  });

  it('goes by the server’s clock once it has answered', async () => {
    server.ahead = 7 * 60_000;
    const run = newId();
    await box.tell(run, [note('first')]);
    await sent(run, 1);
    await quiet();
    expect(Math.abs(box.state().offsetMs - server.ahead)).toBeLessThan(500);
    const [later] = await box.tell(run, [note('second')]);
    expect(Math.abs(later!.offsetMs - server.ahead)).toBeLessThan(500);
  });

  it('tells the server nothing before it knows when that was, be it told while the server was away', async () => {
    // The page before it has asked all it will.
    const before = newId();
    await box.tell(before, [note('before')]);
    await sent(before, 1);
    await quiet();
    await forgetClock();
    server.away = 1e6;
    server.ahead = -7 * 60_000;
    const fresh = newBox();
    const run = newId();
    const news: RunNews[] = [];
    fresh.news$.subscribe((one) => news.push(one));
    const [early] = await fresh.tell(run, [note('early')]);
    expect(early!.offsetMs).toBe(0);
    server.away = 0;
    await sent(run, 1);
    const [kept] = server.kept.get(run)!;
    expect(kept!.id).toBe(early!.id);
    expect(Math.abs(kept!.offsetMs - server.ahead)).toBeLessThan(500);
    // This page, and what it keeps, have it so too.
    expect(news.find(({ runId }) => runId === run)?.events).toEqual([kept!]);
    expect(await fresh.known(run)).toEqual([kept!]);
  });

  it('sees that a clock was set in the midst of a run', async () => {
    const run = newId();
    await box.tell(run, [note('before')]);
    await sent(run, 1);
    await quiet();
    server.ahead = 3600_000;
    await box.fetch(run);
    expect(Math.abs(box.state().offsetMs - server.ahead)).toBeLessThan(500);
  });

  it('fetches what others told, after what it has seen, and asks for no run the server does not know yet', async () => {
    const run = newId();
    const other = {
      ...note('theirs'),
      id: newId(),
      device: 'other',
      n: 1,
      at: '2026-05-12T08:00:00.000Z',
    };
    server.kept.set(run, [{ ...other, offsetMs: 0 } as RunEvent]);
    const news: RunNews[] = [];
    box.news$.subscribe((one) => news.push(one));
    await box.fetch(run);
    await box.fetch(run);
    expect(news.filter(({ runId }) => runId === run).map(({ events }) => events.length)).toEqual([1]);
    expect((await box.known(run)).map(({ id }) => id)).toEqual([other.id]);

    const fresh = newId();
    server.away = 1e6;
    await box.tell(fresh, [{ kind: 'run-begun', planId: null, plan: {} } as unknown as Telling]);
    await expectAsync(box.fetch(fresh)).toBeResolved();
    expect(API.runEvents(fresh)).toContain(fresh);
    server.away = 0;
    await sent(fresh, 1);
  });
});
