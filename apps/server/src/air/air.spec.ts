import {
  API,
  type Fault,
  type KeptReading,
  type ReadingsAnswer,
  SIMULATED_SOURCE,
  USUAL_SHOP,
} from '@zaffet/contract';
import { simulatedShopAir } from '@zaffet/workshop';
import { createServer, type Server } from 'node:http';
import { type AddressInfo } from 'node:net';
import { specShop } from '../testing/specShop';
import { simulatedReading } from './instruments';

describe('the air', () => {
  const shop = specShop();
  let server: Server;
  let url = '';

  beforeAll(async () => {
    server = createServer(shop.build());
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(async () => {
    server.close();
    server.closeAllConnections();
  });

  const post = (body: unknown): Promise<Response> =>
    fetch(`${url}${API.air}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const readings = async (from: string, until: string): Promise<ReadingsAnswer['readings']> =>
    ((await (await fetch(`${url}${API.air}?from=${from}&until=${until}`)).json()) as ReadingsAnswer).readings;
  /** The readings that a page hears, until there are so many. */
  async function hear(
    path: string,
    count: number,
    meanwhile: () => Promise<unknown>,
  ): Promise<KeptReading[]> {
    const away = new AbortController();
    const response = await fetch(`${url}${path}`, { signal: away.signal });
    expect(response.headers.get('content-type')).toBe('text/event-stream');
    await meanwhile();
    const heard: KeptReading[] = [];
    let text = '';
    const reader = response.body!.getReader();
    while (heard.length < count) {
      const { value, done } = await reader.read();
      if (done) break;
      text += new TextDecoder().decode(value);
      const whole = text.split('\n\n');
      text = whole.pop()!;
      for (const line of whole)
        if (line.startsWith('data: ')) heard.push(JSON.parse(line.slice(6)) as KeptReading);
    }
    away.abort();
    return heard;
  }

  it('is sent by instruments, one reading or many, and told by the hour', async () => {
    const many = Array.from({ length: 120 }, (_, i) => ({
      at: new Date(Date.parse('2026-02-12T06:00:00Z') + i * 60_000).toISOString(),
      temperatureC: i < 60 ? 18 : 20,
      humidity: 0.5,
    }));
    const answer = await post({ source: 'attic', readings: many });
    expect(answer.status).toBe(201);
    expect(await answer.json()).toEqual({ kept: 120 });
    expect(await readings('2026-02-12', '2026-02-13')).toEqual([
      { at: '2026-02-12T06:00:00.000Z', temperatureC: 18, humidity: 0.5 },
      { at: '2026-02-12T07:00:00.000Z', temperatureC: 20, humidity: 0.5 },
    ]);
  });

  it('takes a reading again without counting it twice', async () => {
    const at = '2026-04-01T08:10:00Z';
    await post({ source: 'bench', at, temperatureC: 30, humidity: 0.3 });
    await post({ source: 'bench', at, temperatureC: 20, humidity: 0.5 });
    const twice = { at, temperatureC: 21, humidity: 0.6 };
    await post({ source: 'bench', readings: [{ ...twice, humidity: 0.1 }, twice] });
    expect(await readings('2026-04-01', '2026-04-02')).toEqual([
      { at: '2026-04-01T08:00:00.000Z', temperatureC: 21, humidity: 0.6 },
    ]);
  });

  it('is refused with what is wrong with it, and then nothing is kept', async () => {
    const good = { at: '2026-03-01T08:00:00Z', temperatureC: 20, humidity: 0.5 };
    const refused = await post({ readings: [good, { ...good, humidity: 50 }, { ...good, at: 'noon' }] });
    expect(refused.status).toBe(400);
    const fault = (await refused.json()) as Fault;
    expect(fault.code).toBe('air.refused');
    expect(fault.fields.map(({ path }) => path)).toEqual(['readings.1.humidity', 'readings.2.at']);
    expect(fault.fields[0]!.message).toMatch(/is 50; it must be a number from 0.05 to 0.98/);
    expect(await readings('2026-03-01', '2026-03-02')).toEqual([]);
    expect((await post({ temperatureC: 20 })).status).toBe(400);
    expect((await post([])).status).toBe(400);
    const from = await fetch(`${url}${API.air}?from=noon`);
    expect(from.status).toBe(400);
    expect(((await from.json()) as Fault).fields[0]!.path).toBe('from');
  });

  it('is heard by pages as it comes in, without the stand-in unless they want it', async () => {
    const heard = await hear(API.airStream(false), 1, () =>
      post({ source: 'attic', temperatureC: 19.5, humidity: 0.44 }),
    );
    expect(heard[0]).toEqual(
      jasmine.objectContaining({ source: 'attic', temperatureC: 19.5, humidity: 0.44 }),
    );
    expect(Math.abs(Date.parse(heard[0]!.at) - Date.now())).toBeLessThan(60_000);
  });

  it('is read by the stand-in while a page wants it: the simulated weather’s air in this shop', async () => {
    const moments = Array.from({ length: 200 }, (_, i) => Date.parse('2026-05-12T08:00:00Z') + i * 60_000);
    const read = moments.map((at) => simulatedReading(at, USUAL_SHOP)).filter((one) => one !== null);
    expect(read.length).toBeGreaterThan(150);
    const air = simulatedShopAir(moments[0]!, 5, USUAL_SHOP);
    for (const { at, temperatureC } of read) {
      const hour = air.findLast((point) => point.at <= Date.parse(at))!;
      expect(Math.abs(temperatureC - hour.temperatureC)).toBeLessThan(2);
    }
  });

  it('is streamed by the stand-in, called simulated', async () => {
    // A reading may be lost for ten minutes: the moment is one that is read.
    const now = spyOn(Date, 'now').and.returnValue(firstRead());
    const heard = await hear(API.airStream(true), 1, () => Promise.resolve());
    now.and.callThrough();
    expect(heard[0]!.source).toBe(SIMULATED_SOURCE);
  });

  const firstRead = (): number => {
    const from = Date.parse('2026-05-12T08:00:00Z');
    return Array.from({ length: 100 }, (_, i) => from + i * 60_000).find(
      (at) => simulatedReading(at, USUAL_SHOP) !== null,
    )!;
  };
});
