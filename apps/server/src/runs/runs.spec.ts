import {
  API,
  type EventsAnswer,
  type Fault,
  filePlan,
  type RunAnswer,
  type RunEvent,
  type RunSummary,
} from '@zaffet/contract';
import { foldRun } from '@zaffet/workshop';
import { type Express } from 'express';
import fc from 'fast-check';
import { once } from 'node:events';
import { type AddressInfo } from 'node:net';
import request from 'supertest';
import { planNamed } from '../testing';
import { specShop } from '../testing/specShop';

const SEED = 20261128;
/** Runs cut into batches; `CUTS=200` by hand. */
const CUTS = Number(process.env['CUTS'] ?? 20);
const plan = planNamed('Lid');

describe('runs', () => {
  const shop = specShop();
  let app: Express;
  let devices = 0;

  beforeAll(async () => {
    app = shop.build();
  });

  /** A device of its own, whose events count from 1. */
  function device(): (kind: RunEvent['kind'], body?: object) => RunEvent {
    const name = `device-${++devices}`;
    let n = 0;
    return (kind, body = {}) => {
      n += 1;
      const at = new Date(Date.parse(plan.startsAt) + n * 1000).toISOString();
      return { id: `${name}-${n}`, device: name, n, at, offsetMs: 0, kind, ...body } as unknown as RunEvent;
    };
  }
  const begin = (tablet: ReturnType<typeof device>): RunEvent =>
    tablet('run-begun', { planId: null, plan: filePlan(plan) });
  const note = (tablet: ReturnType<typeof device>, text: string): RunEvent =>
    tablet('note', { partId: null, text });
  const send = async (run: string, events: readonly RunEvent[]): Promise<EventsAnswer> =>
    (await request(app).post(API.runEvents(run)).send({ events }).expect(200)).body as EventsAnswer;
  const told = async (run: string, after = 0): Promise<RunAnswer> =>
    (
      await request(app)
        .get(`${API.runEvents(run)}?after=${after}`)
        .expect(200)
    ).body as RunAnswer;

  it('keep what happened, counted from one, and tell what came after a count', async () => {
    const tablet = device();
    const events = [begin(tablet), tablet('paused'), note(tablet, 'it rains')];
    const answer = await send('run-a', events);
    expect(Object.values(answer.taken)).toEqual([1, 2, 3]);
    expect(Math.abs(Date.parse(answer.now) - Date.now())).toBeLessThan(60_000);
    const all = await told('run-a');
    expect(all.events.map(({ event }) => event)).toEqual(events);
    expect((await told('run-a', 2)).events.map(({ seq }) => seq)).toEqual([3]);
    expect(foldRun(all.events.map(({ event }) => event))!.paused).toBeTrue();
    const list = (await request(app).get(API.runs).expect(200)).body as RunSummary[];
    expect(list.find(({ id }) => id === 'run-a')).toEqual(
      jasmine.objectContaining({ name: 'Lid', planId: null, upTo: 3 }),
    );
  });

  it('refuse what is no event with every field, and then keep none of the message', async () => {
    const tablet = device();
    await send('run-b', [begin(tablet)]);
    const good = note(tablet, 'good');
    const bad = { ...tablet('seen', { partId: 'lid', stepId: 'top', coat: 0 }), after: 'soggy' };
    const answer = await request(app)
      .post(API.runEvents('run-b'))
      .send({ events: [good, bad] })
      .expect(400);
    const fault = answer.body as Fault;
    expect(fault.code).toBe('run.invalid');
    expect(fault.fields.map(({ path }) => path)).toContain('events.1.after');
    expect((await told('run-b')).upTo).toBe(1);
    await request(app).post(API.runEvents('run-b')).send({ events: [] }).expect(400);
    await request(app)
      .get(`${API.runEvents('run-b')}?after=soon`)
      .expect(400);
    await request(app)
      .post('/api/runs/no%20id/events')
      .send({ events: [good] })
      .expect(400);
  });

  it('begin with their plan, and are not here before', async () => {
    const tablet = device();
    const begun = begin(tablet);
    await request(app)
      .post(API.runEvents('run-c'))
      .send({ events: [note(tablet, 'early')] })
      .expect(404);
    await request(app).get(API.runEvents('run-c')).expect(404);
    await send('run-c', [begun]);
    expect((await told('run-c')).upTo).toBe(1);
  });

  it('tell pages that follow them how many events there are, packed by nothing', async () => {
    const tablet = device();
    await send('run-g', [begin(tablet)]);
    const listening = app.listen(0);
    await once(listening, 'listening');
    const { port } = listening.address() as AddressInfo;
    const away = new AbortController();
    const response = await fetch(`http://127.0.0.1:${port}${API.runStream('run-g')}`, {
      signal: away.signal,
      headers: { 'accept-encoding': 'gzip' },
    });
    expect(response.headers.get('content-type')).toBe('text/event-stream');
    expect(response.headers.get('content-encoding')).toBeNull();
    const reader = response.body!.getReader();
    const heard = async (wanted: string): Promise<string> => {
      let text = '';
      while (!text.includes(wanted)) text += new TextDecoder().decode((await reader.read()).value);
      return text;
    };
    expect(await heard('retry')).toContain('retry: 2000');
    // What is told of another run is not told here.
    await send('run-h', [begin(device())]);
    await send('run-g', [note(tablet, 'one'), note(tablet, 'two')]);
    expect(await heard('data')).toBe('data: 3\n\n');
    away.abort();
    listening.close();
  });

  it('are told from their beginning to a device that has another event under its count: a backup was restored', async () => {
    const tablet = device();
    const all = [begin(tablet), note(tablet, 'one'), note(tablet, 'two')];
    await send('run-i', all);
    const after = async (query: string): Promise<number[]> =>
      (
        (
          await request(app)
            .get(`${API.runEvents('run-i')}?${query}`)
            .expect(200)
        ).body as RunAnswer
      ).events.map(({ seq }) => seq);
    expect(await after(`after=2&last=${all[1]!.id}`)).toEqual([3]);
    expect(await after('after=2&last=another')).toEqual([1, 2, 3]);
    expect(await after('after=9&last=lost')).toEqual([1, 2, 3]);
    expect(await after('after=2')).toEqual([3]);
  });

  it('have no stream where there is no such run', async () => {
    const { body } = await request(app).get(API.runStream('nobodys')).expect(404);
    expect((body as Fault).code).toBe('run.not-found');
  });

  it('answer a device that was set back, and keep the event of another run where it is', async () => {
    const tablet = device();
    const first = begin(tablet);
    const second = note(tablet, 'one');
    await send('run-d', [first, second]);
    const clash = { ...second, id: 'other', text: 'two' } as RunEvent;
    const answer = await send('run-d', [clash]);
    expect(answer.taken).toEqual({});
    expect(answer.refused[0]!.message).toMatch(/another event as its number 2/);
    const elsewhere = device();
    const moved = await send('run-e', [begin(elsewhere), second]);
    expect(moved.refused.map(({ id }) => id)).toEqual([second.id]);
    expect((await told('run-e')).upTo).toBe(1);
    expect((await told('run-d')).upTo).toBe(2);
    // The plan of one run begins no other.
    await request(app)
      .post(API.runEvents('run-f'))
      .send({ events: [first] })
      .expect(404);
    await request(app).get(API.runEvents('run-f')).expect(404);
  });

  it(`take each event once and without a gap, however batches are cut, repeated and mixed (seed ${SEED})`, async () => {
    let runs = 0;
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(2), fc.integer({ min: 1, max: 6 }), fc.nat(3)), {
          minLength: 2,
          maxLength: 10,
        }),
        async (cuts) => {
          const run = `cut-${++runs}`;
          const tablets = [device(), device(), device()];
          const all = [begin(tablets[0]!)];
          await send(run, all);
          for (const [who, count, again] of cuts) {
            const fresh = Array.from({ length: count }, (_, i) => note(tablets[who]!, `${i}`));
            all.push(...fresh);
            // What was not answered is sent again, with what came before it.
            const batch = [...all.slice(-count - again), ...fresh];
            const { taken } = await send(run, batch);
            for (const { id } of batch) expect(taken[id]).withContext(id).toBeDefined();
          }
          const { events, upTo } = await told(run);
          expect(events.map(({ seq }) => seq)).toEqual(all.map((_, i) => i + 1));
          expect(new Set(events.map(({ event }) => event.id))).toEqual(new Set(all.map(({ id }) => id)));
          expect(upTo).toBe(all.length);
        },
      ),
      { seed: SEED, numRuns: CUTS },
    );
  });
});
