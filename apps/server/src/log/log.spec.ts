import { API, filePlan, type LogAnswer, type LogQuery, type Plan, type RunBodies } from '@zaffet/contract';
import { parseEvents } from '@zaffet/contract/runs';
import { newPlan, type School } from '@zaffet/workshop';
import { type Express } from 'express';
import request from 'supertest';
import { logEntries, runEvents, runs } from '../db/schema';
import { eq } from 'drizzle-orm';
import { takeEvents } from '../runs/queries';
import { specShop } from '../testing/specShop';

let n = 0;
const id = (): string => `l${++n}`;

/** A piece that was done on a day, in two lines. */
interface Told {
  readonly school: School;
  readonly day: string;
  readonly text: string;
  readonly colour?: string;
  /** Nothing of it is paint. */
  readonly clear?: boolean;
  readonly outcome?: Partial<RunBodies['outcome']>;
  readonly verdict?: Partial<RunBodies['verdict']>;
  readonly humidity?: number;
}

describe('the log', () => {
  const shop = specShop();
  let app: Express;

  beforeAll(async () => {
    app = shop.build();
  });

  async function tell(run: string, name: string, told: Told): Promise<Plan> {
    const made = newPlan(told.school, name, 7, `${told.day}T08:00:00.000Z`, id);
    const plan: Plan = {
      ...made,
      finishes: made.finishes.map((finish) => ({
        ...finish,
        steps: (told.clear === true ? finish.steps.slice(1, 2) : finish.steps).map((step, i) =>
          i === 0 && 'colour' in step && told.colour !== undefined ? { ...step, colour: told.colour } : step,
        ),
      })),
    };
    const part = plan.piece.parts[0]!.id;
    const kinds: object[] = [
      { kind: 'run-begun', planId: null, plan: filePlan(plan) },
      ...(told.text === '' ? [] : [{ kind: 'note', partId: null, text: told.text }]),
      ...(told.humidity === undefined
        ? []
        : [{ kind: 'air', source: 'dial', temperatureC: 20, humidity: told.humidity }]),
      ...(told.outcome === undefined
        ? []
        : [
            {
              kind: 'outcome',
              partId: part,
              spacingMm: null,
              openingMm: null,
              chipped: null,
              worn: null,
              ...told.outcome,
            },
          ]),
      ...(told.verdict === undefined
        ? []
        : [{ kind: 'verdict', when: 'at-once', verdict: null, text: '', ...told.verdict }]),
      { kind: 'finished' },
    ];
    const device = `device-${run}`;
    const events = kinds.map((body, i) => ({
      id: `${device}-${i}`,
      device,
      n: i + 1,
      at: `${told.day}T09:0${i}:00.000Z`,
      offsetMs: 0,
      ...body,
    }));
    await takeEvents(shop.db, run, parseEvents({ events }).events);
    return plan;
  }
  const ask = async (query: LogQuery): Promise<LogAnswer> =>
    (await request(app).get(API.logFind(query)).expect(200)).body as LogAnswer;
  const names = async (query: LogQuery): Promise<string[]> =>
    (await ask(query)).found.map(({ name }) => name);

  beforeAll(async () => {
    await tell('chest', 'Sea chest', {
      school: 'wet-glue',
      day: '2024-05-14',
      text: 'Cracking came within a minute; wax put along the hinges.',
      colour: '#2f4f4f',
      outcome: { spacingMm: 6, openingMm: 0.5 },
      verdict: { verdict: 'good', text: 'thicker glue' },
      humidity: 0.4,
    });
    await tell('stand', 'Wash stand', {
      school: 'chippy-milk',
      day: '2025-02-03',
      text: 'The shellac was still tacky.',
      colour: '#7a2f2f',
      outcome: { chipped: 0.3 },
      verdict: { verdict: 'bad' },
      humidity: 0.7,
    });
    await tell('shutter', 'Shutters', {
      school: 'dry-brushed',
      day: '2026-01-20',
      text: 'For the north window, l’été.',
      colour: '#305050',
    });
  });

  it('finds by other forms of a word, by its beginning, and in spite of a slip of the pen', async () => {
    expect(await names({ words: 'crack hinge' })).toEqual(['Sea chest']);
    expect(await names({ words: 'shell' })).toContain('Wash stand');
    expect((await names({ words: 'shelac' }))[0]).toBe('Wash stand');
    expect(await names({ words: 'ÉTÉ' })).toEqual(['Shutters']);
    expect(await names({ words: 'umbrella' })).toEqual([]);
    // All words are meant.
    expect(await names({ words: 'hinge shellac' })).toEqual([]);
  });

  it('says where the words were found', async () => {
    const [found] = (await ask({ words: 'hinges' })).found;
    expect(found!.where).toBe('Cracking came within a minute; wax put along the hinges.');
    expect((await ask({})).found.every(({ where }) => where === '')).toBeTrue();
  });

  it('finds colours that look alike, the nearest first, with how far they are off', async () => {
    const { found } = await ask({ colour: '#2f4f4f' });
    expect(found.map(({ name }) => name)).toEqual(['Sea chest', 'Shutters']);
    expect(found[0]!.off).toBe(0);
    expect(found[1]!.off).toBeGreaterThan(0);
    expect(found[1]!.off).toBeLessThan(3);
    expect(await names({ colour: '#2f4f4f', within: 0.1 })).toEqual(['Sea chest']);
    // What has no colour is like none.
    const bare = found.length;
    await tell('glued', 'Glue alone', { school: 'fissures', day: '2020-01-01', text: '', clear: true });
    expect((await ask({ colour: '#2f4f4f' })).count).toBe(bare);
    await shop.db.delete(logEntries).where(eq(logEntries.run, 'glued'));
    await shop.db.delete(runEvents).where(eq(runEvents.run, 'glued'));
    await shop.db.delete(runs).where(eq(runs.id, 'glued'));
  });

  it('finds by way of working, medium, figures, air, verdict and date', async () => {
    expect(await names({ school: 'chippy-milk' })).toEqual(['Wash stand']);
    expect(await names({ medium: 'pva' })).toEqual(['Sea chest']);
    expect(await names({ spacingFromMm: 5, spacingToMm: 7 })).toEqual(['Sea chest']);
    expect(await names({ chippedFrom: 0.25 })).toEqual(['Wash stand']);
    expect(await names({ humidityFrom: 0.6 })).toEqual(['Wash stand']);
    expect(await names({ verdict: 'good' })).toEqual(['Sea chest']);
    expect(await names({ from: '2025-01-01', until: '2025-12-31' })).toEqual(['Wash stand']);
    // A day is whole: what was done on the last of them counts.
    expect(await names({ until: '2024-05-14' })).toEqual(['Sea chest']);
  });

  it('tells what a run says at a glance, the newest first, and what it says since', async () => {
    const { found, count, behind } = await ask({});
    expect(found.map(({ name }) => name)).toEqual(['Shutters', 'Wash stand', 'Sea chest']);
    expect([count, behind]).toEqual([3, 0]);
    expect(found[2]).toEqual(
      jasmine.objectContaining({
        runId: 'chest',
        schools: ['wet-glue'],
        spacingMm: 6,
        openingMm: 0.5,
        verdict: 'good',
        next: 'thicker glue',
        humidity: 0.4,
        afterwards: true,
      }),
    );
    await takeEvents(
      shop.db,
      'shutter',
      parseEvents({
        events: [
          {
            id: 'later',
            device: 'other',
            n: 1,
            at: '2026-02-01T08:00:00.000Z',
            offsetMs: 0,
            kind: 'note',
            partId: null,
            text: 'Faded a little',
          },
        ],
      }).events,
    );
    expect(await names({ words: 'fading' })).toEqual(['Shutters']);
  });

  it('looks for whatever is typed, and refuses what cannot be meant', async () => {
    for (const words of ["it's", 'a & b | !c', "'); drop table runs; --", ':*', '((', '日本'])
      await ask({ words });
    const answer = await request(app).get('/api/log?colour=blue&spacingFromMm=x&skip=-1&bogus=1').expect(400);
    const told = answer.body as { code: string; fields: { path: string }[] };
    expect(told.code).toBe('log.invalid');
    expect(told.fields.map(({ path }) => path).sort()).toEqual(['bogus', 'colour', 'skip', 'spacingFromMm']);
  });
});
