import {
  API,
  type EventsAnswer,
  filePlan,
  type LogAnswer,
  type PlanSummary,
  type RunAnswer,
  type StaleAnswer,
  type StoredPlan,
} from '@zaffet/contract';
import { hashOf, launch, photographOf, planNamed, putPhotograph, send } from './index';
import { type TestPostgres } from './postgres';

/** What came of two Zaffets on one database, whose server died under them. */
export interface Together {
  readonly saves: number;
  /** Saves that were refused because the other Zaffet's was first. */
  readonly stale: number;
  readonly events: number;
  readonly photos: number;
  readonly searches: number;
  /** Requests that failed while the database was away. */
  readonly away: number;
  readonly wrong: string[];
}

const RUN = 'together';
const PHOTO_BYTES = 60_000;
const MADE = 3;
/** The event that ends the run. */
const LAST = 'ended';

const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Two Zaffets on one PostgreSQL server, with savers, tablets, cameras, seekers and followers at both. */
class Shop {
  saves = 0;
  stale = 0;
  searches = 0;
  away = 0;
  /** Saves of which nobody knows whether they were taken. */
  private inDoubt = 0;
  readonly wrong: string[] = [];
  readonly told = new Set<string>();
  readonly photos = new Set<string>();
  private readonly heard: string[][] = [];
  over = false;

  constructor(private readonly urls: readonly string[]) {}

  /** Again and again until it is over; what fails is waited for, as a page does. */
  private async always(work: () => Promise<void>): Promise<void> {
    for (let done = false; !done; done = this.over) {
      try {
        await work();
      } catch {
        this.away += 1;
        await rest(50);
      }
    }
  }

  /** An answer that is none of the server's faults. @throws where it is, or where none came */
  private static async sound(asked: Promise<Response>): Promise<Response> {
    const answer = await asked;
    if (answer.status >= 500) throw new Error(`${answer.status} ${await answer.text()}`);
    return answer;
  }

  /** Counts one up in a plan that others count in as well. */
  async counter(url: string, id: string, who: string): Promise<void> {
    await this.always(async () => {
      const { saveId, plan } = (await (await Shop.sound(fetch(url + API.plan(id)))).json()) as StoredPlan;
      let from = { saveId, plan };
      for (;;) {
        // By name: what stands there already in every letter is taken for saved.
        const plan = { ...from.plan, seed: from.plan.seed + 1, name: `Counted by ${who}` };
        const next = { saveId: from.saveId, plan };
        this.inDoubt += 1;
        const answer = await Shop.sound(send(url + API.plan(id), 'PUT', next));
        this.inDoubt -= 1;
        if (answer.status === 409) {
          this.stale += 1;
          const { current } = (await answer.json()) as StaleAnswer;
          from = current;
          continue;
        }
        if (answer.status !== 200) this.wrong.push(`a save was answered with ${answer.status}`);
        this.saves += 1;
        return;
      }
    });
  }

  async tablet(url: string, device: string): Promise<void> {
    let [n, waiting] = [0, [] as object[]];
    await this.always(async () => {
      for (let i = 0; i < MADE; i++) {
        n += 1;
        const stamp = { id: `${device}-${n}`, device, n, at: new Date().toISOString(), offsetMs: 0 };
        waiting.push({ ...stamp, kind: 'note', partId: null, text: `said ${n}` });
      }
      const batch = waiting.slice(0, 50);
      const answer = await Shop.sound(send(url + API.runEvents(RUN), 'POST', { events: batch }));
      const { taken } = (await answer.json()) as EventsAnswer;
      for (const id of Object.keys(taken)) this.told.add(id);
      waiting = waiting.filter((event) => !this.told.has((event as { id: string }).id));
      await rest(20);
    });
  }

  /** The same picture goes to both. */
  async camera(): Promise<void> {
    await this.always(async () => {
      const photograph = photographOf(PHOTO_BYTES);
      for (const { status } of await Promise.all(
        this.urls.map((url) => Shop.sound(putPhotograph(url, photograph))),
      ))
        if (status === 204) this.photos.add(photograph.hash);
        else this.wrong.push(`a photograph was answered with ${status}`);
      await rest(100);
    });
  }

  async seeker(url: string): Promise<void> {
    await this.always(async () => {
      const answer = await Shop.sound(fetch(url + API.logFind({ words: RUN })));
      const { found } = (await answer.json()) as LogAnswer;
      if (found.length > 1) this.wrong.push(`${found.length} runs were found`);
      this.searches += 1;
      await rest(50);
    });
  }

  /** Follows the run by a stream and fetches what is new, as the bench does; only a line of it makes it ask. */
  async follower(url: string): Promise<void> {
    const ids: string[] = [];
    this.heard.push(ids);
    const fetchMore = async (): Promise<void> => {
      for (let more = true; more;) {
        const answer = await Shop.sound(fetch(`${url}${API.runEvents(RUN)}?after=${ids.length}`));
        const { events } = (await answer.json()) as RunAnswer;
        ids.push(...events.map(({ event }) => event.id));
        more = events.length > 0;
      }
    };
    await this.always(async () => {
      const { body } = await Shop.sound(fetch(url + API.runStream(RUN)));
      for await (const piece of body!.pipeThrough(new TextDecoderStream())) {
        if (piece.includes('data: ')) await fetchMore();
        if (ids.includes(LAST)) return;
      }
    });
  }

  /** What was lost, doubled or not heard. */
  async lost(shared: string): Promise<void> {
    const [one, other] = await Promise.all(
      this.urls.map(
        async (url) =>
          (await (await fetch(url + API.plan(shared))).json()) as StoredPlan & { revision: number },
      ),
    );
    if (JSON.stringify(one) !== JSON.stringify(other)) this.wrong.push('the two tell different plans');
    const counted = one!.plan.seed;
    if (counted < this.saves || counted > this.saves + this.inDoubt)
      this.wrong.push(`${this.saves} saves acknowledged (${this.inDoubt} in doubt), ${counted} counted`);
    const all: string[] = [];
    for (let more = true; more;) {
      const { events } = (await (
        await fetch(`${this.urls[0]}${API.runEvents(RUN)}?after=${all.length}`)
      ).json()) as RunAnswer;
      events.forEach(({ seq }, i) => {
        if (seq !== all.length + i + 1) this.wrong.push(`event ${seq} stands at ${all.length + i + 1}`);
      });
      all.push(...events.map(({ event }) => event.id));
      more = events.length > 0;
    }
    if (new Set(all).size < all.length) this.wrong.push('events are there twice');
    for (const id of this.told) if (!all.includes(id)) this.wrong.push(`event ${id} is lost`);
    this.heard.forEach((ids, n) => {
      if (JSON.stringify(ids) !== JSON.stringify(all))
        this.wrong.push(`follower ${n} heard ${ids.length} of ${all.length}`);
    });
    for (const hash of this.photos) {
      const answer = await fetch(this.urls[1]! + API.photo(hash));
      if (hashOf(new Uint8Array(await answer.arrayBuffer())) !== hash)
        this.wrong.push(`photograph ${hash} is lost`);
    }
  }
}

/**
 * Lets two Zaffets work on one database, whose server dies and comes back in the midst of it.
 * @param lasts - how long before that, and after [ms]
 */
export async function together(postgres: TestPostgres, lasts: number): Promise<Together> {
  const zaffets = [1, 2].map(() => launch({ DATABASE_URL: postgres.url }));
  const urls = await Promise.all(zaffets.map(({ url }) => url));
  if (urls.includes('')) throw new Error(zaffets.map(({ said }) => said()).join('\n'));
  const [here, there] = urls as [string, string];
  const made = await send(here + API.plans, 'POST', { ...planNamed('Shared'), seed: 0 });
  const { id } = (await made.json()) as PlanSummary;
  await send(there + API.runEvents(RUN), 'POST', {
    events: [
      {
        ...{ id: 'begun', device: 'first', n: 1, at: new Date().toISOString(), offsetMs: 0 },
        ...{ kind: 'run-begun', planId: null, plan: filePlan(planNamed(RUN)) },
      },
    ],
  });
  const shop = new Shop(urls);
  const followers = urls.map((url) => shop.follower(url));
  await rest(500);
  const others = [
    ...urls.flatMap((url, n) => [
      shop.counter(url, id, `${n}a`),
      shop.counter(url, id, `${n}b`),
      shop.tablet(url, `tablet-${n}`),
      shop.seeker(url),
    ]),
    shop.camera(),
  ];
  await rest(lasts);
  await postgres.restart();
  await rest(lasts);
  shop.over = true;
  await Promise.all(others);
  for (const { child, said } of zaffets) if (child.exitCode !== null) throw new Error(`one ended: ${said()}`);
  // The last line that is told brings everybody up to date.
  await send(here + API.runEvents(RUN), 'POST', {
    events: [
      {
        ...{ id: LAST, device: 'first', n: 2, at: new Date().toISOString(), offsetMs: 0 },
        ...{ kind: 'note', partId: null, text: 'the end' },
      },
    ],
  });
  await Promise.race([Promise.all(followers), rest(20_000)]);
  await shop.lost(id);
  for (const { child, ended } of zaffets) {
    child.kill('SIGTERM');
    await ended;
  }
  const { saves, stale, told, photos, searches, away, wrong } = shop;
  return { saves, stale, events: told.size, photos: photos.size, searches, away, wrong };
}
