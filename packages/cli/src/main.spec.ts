import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type PhotoReading } from '@zaffet/core/photo';
import jpeg from 'jpeg-js';
import { PNG } from 'pngjs';
import { run } from './main';
import { type explainFigure, predict } from './predict';
import { type Timetable } from './schedule';

const DEMO = fileURLToPath(new URL('../../../demo/plans/1-sea-chest.json', import.meta.url));

async function call(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let out = '';
  let err = '';
  const code = await run(args, { out: (text) => void (out += text), err: (text) => void (err += text) });
  return { code, out, err };
}

describe('zaffet predict', () => {
  let folder: string;
  beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'zaffet-cli-'))));
  afterAll(() => rmSync(folder, { recursive: true }));
  const file = (name: string, text: string): string => {
    const path = join(folder, name);
    writeFileSync(path, text);
    return path;
  };

  it('prints the forecast of a demo plan as JSON', async () => {
    const { code, out, err } = await call('predict', DEMO);
    expect([code, err]).toEqual([0, '']);
    const prediction = JSON.parse(out) as Awaited<ReturnType<typeof predict>>;
    expect(prediction).toEqual(await predict(DEMO));
    expect(prediction.crackedCoat).toBe('top');
    const spacing = prediction.figures.find((figure) => figure.key === 'spacing')!;
    expect(spacing.unit).toBe('mm');
    expect(spacing.value!).toBeGreaterThan(spacing.low!);
    expect(spacing.value!).toBeLessThan(spacing.high!);
    expect(spacing.movers[0]).toMatch(/: [+−][\d.]+ mm$/);
    expect(prediction.layers.reduce((sum, layer) => sum + layer.value!, 0)).toBeCloseTo(1, 9);
    expect(prediction.quantities.map((q) => q.step)).toEqual(['base', 'glue', 'top']);
    expect(prediction.hazards.every((hazard) => hazard.cautions.length > 0)).toBeTrue();
    expect(prediction.coats.map((coat) => coat.id)).toEqual(['base', 'glue', 'top']);
    // The lid takes sections: paint follows the glue while it still grabs, as on every place.
    const lag = Date.parse(prediction.coats[2]!.laidAt) - Date.parse(prediction.coats[1]!.laidAt);
    expect(lag).toBeGreaterThanOrEqual(120_000);
    expect(lag).toBeLessThan(240_000);
    expect(prediction.findings.map((finding) => finding.text).join('\n')).toMatch(/window/i);
  });

  it('refuses a bad file with exit code 2 and every field', async () => {
    const text = JSON.stringify({ format: 'zaffet-plan', version: 1, name: 'x' });
    const { code, out, err } = await call('predict', file('bad.json', text));
    expect([code, out]).toEqual([2, '']);
    expect(err).toContain('steps is missing.');
    expect(err).toContain('air is missing.');
  });

  it('refuses what is no file, no JSON, no plan', async () => {
    expect(await call('predict', join(folder, 'nowhere.json'))).toEqual(
      jasmine.objectContaining({ code: 2, out: '' }),
    );
    expect((await call('predict', join(folder, 'nowhere.json'))).err).toContain('there is no such file');
    expect((await call('predict', file('cut.json', '{"format": "zaf'))).err).toContain('not readable JSON');
    expect((await call('predict', file('other.json', '{"a": 1}'))).err).toContain('not a Zaffet plan file');
    expect((await call('predict', folder)).code).toBe(2);
  });

  it('explains a figure by the knobs that move it, and how much of a layer is seen', async () => {
    const { code, out } = await call('explain', DEMO, 'spacing');
    expect(code).toBe(0);
    const spacing = JSON.parse(out) as Awaited<ReturnType<typeof explainFigure>>;
    expect(spacing.name).toBe('Crack spacing');
    expect(spacing.movers.join('; ')).toMatch(/µm (glue|top coat): [+−]/);
    const layer = JSON.parse((await call('explain', DEMO, 'base')).out) as typeof spacing;
    expect(layer.value!).toBeGreaterThan(0.05);
    const unknown = await call('explain', DEMO, 'charm');
    expect([unknown.code, unknown.out]).toEqual([2, '']);
    expect(unknown.err).toMatch(/no figure charm\. Ask for one of spacing, opening.*layer: panel, base/);
  });

  it('tells every zone of the panel, and explains a figure of one', async () => {
    const worn = fileURLToPath(new URL('../../../demo/plans/6-chart-locker-front.json', import.meta.url));
    const { zones, colour } = await predict(worn);
    const area = Object.values(zones).reduce((sum, zone) => sum + zone.areaShare, 0);
    expect(area).toBeCloseTo(1, 9);
    for (const zone of Object.values(zones)) {
      expect(zone.layers.reduce((sum, layer) => sum + layer.value!, 0)).toBeCloseTo(1, 9);
      expect(zone.colour.mean).toMatch(/^#[0-9a-f]{6}$/);
    }
    expect(colour.withinDeltaE00).toBeGreaterThan(1);
    expect(colour.movers[0]).toMatch(/: [\d.]+ ΔE away$/);
    const told = JSON.parse((await call('explain', worn, 'worn', 'corner')).out) as Awaited<
      ReturnType<typeof explainFigure>
    >;
    expect(told.value).toBe(zones.corner.figures.find((figure) => figure.key === 'worn')!.value);
    expect((await call('explain', worn, 'worn', 'middle')).err).toMatch(
      /no zone middle\. Ask for one of panel, field/,
    );
  });

  it('takes several files, one line each, and keeps none back for a bad one', async () => {
    const other = fileURLToPath(new URL('../../../demo/plans/2-wash-stand.json', import.meta.url));
    const { code, out, err } = await call('predict', DEMO, file('cut.json', '{"for'), other);
    expect(code).toBe(2);
    expect(err).toContain('cut.json: The file or request is not readable JSON');
    const lines = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { plan: string });
    expect(lines).toEqual([await predict(DEMO), await predict(other)]);
  });

  it('names a deadline that cannot be met, and one that is', async () => {
    const dueIn = async (days: number): Promise<Timetable> => {
      const plan = JSON.parse(readFileSync(DEMO, 'utf8')) as {
        startsAt: string;
        timing: { deadlineAt: string | null };
      };
      const due = Date.parse(plan.startsAt) + days * 86_400_000;
      plan.timing.deadlineAt = new Date(due).toISOString();
      const path = file(`due-${days}.json`, JSON.stringify(plan));
      return JSON.parse((await call('schedule', path)).out) as Timetable;
    };
    const [missed, met] = [await dueIn(0.1), await dueIn(60)];
    const late = (Date.parse(missed.readyAt!) - Date.parse(missed.dueAt!)) / 60_000;
    expect(missed.lateMin).toBeCloseTo(late, 0);
    expect(missed.missed.join(' ')).toContain(`The deadline ${missed.dueAt!} is missed`);
    expect([met.lateMin, met.missed]).toEqual([0, []]);
  });

  it('says what is done when, as predicted, in JSON, as a table and as a calendar', async () => {
    const { code, out } = await call('schedule', DEMO);
    expect(code).toBe(0);
    const told = JSON.parse(out) as Timetable;
    expect(told.obstacle).toBeNull();
    expect(told.missed).toEqual([]);
    // The moments are those of the forecast.
    const prediction = await predict(DEMO);
    for (const { id, laidAt } of prediction.coats) {
      const step = told.steps.find((one) => one.part === prediction.part && one.step === id)!;
      expect(Math.abs(Date.parse(step.at) - Date.parse(laidAt)))
        .withContext(id)
        .toBeLessThan(1000);
    }
    const table = (await call('schedule', DEMO, '--as', 'csv')).out.trim().split('\r\n');
    const calendar = (await call('schedule', DEMO, '--as', 'ics')).out;
    expect(table[0]).toMatch(/^from,until,hand,what,part,/);
    expect(calendar.match(/BEGIN:VEVENT/g)!.length).toBe(told.sittings.length);
    const bad = await call('schedule', DEMO, '--as', 'parchment');
    expect([bad.code, bad.out]).toEqual([2, '']);
    expect(bad.err).toContain('--as json, csv or ics');
  });

  it('begins a plan at another instant', async () => {
    const shelf = fileURLToPath(new URL('../../../demo/plans/4-lamp-shelf-front-rail.json', import.meta.url));
    const filed = await predict(shelf);
    const moved = JSON.parse(
      (await call('predict', shelf, '--at', '2026-08-01T06:00:00+02:00')).out,
    ) as typeof filed;
    expect(moved.startsAt).toBe('2026-08-01T04:00:00.000Z');
    const after = (prediction: typeof filed): number[] =>
      prediction.coats.map(({ laidAt }) => Date.parse(laidAt) - Date.parse(prediction.startsAt));
    expect(after(moved)[0]).toBe(after(filed)[0]!);
    const bad = await call('predict', DEMO, '--at', '2026-02-31T08:00:00Z');
    expect([bad.code, bad.out]).toEqual([2, '']);
    expect(bad.err).toContain('--at is "2026-02-31T08:00:00Z"; it must be a date and time');
  });

  it('says how to be called', async () => {
    for (const args of [
      [],
      ['predict'],
      ['dance', DEMO],
      ['explain', DEMO],
      ['explain', DEMO, 'chips', 'edge', 'x'],
    ]) {
      const { code, err } = await call(...args);
      expect(code).toBe(2);
      expect(err).toContain('usage: zaffet predict <plan file>');
    }
  });

  it('runs as a command', () => {
    const bin = fileURLToPath(new URL('../bin/zaffet.mjs', import.meta.url));
    const out = execFileSync(process.execPath, [bin, 'predict', DEMO], { encoding: 'utf8' });
    expect((JSON.parse(out) as { plan: string }).plan).toBe("Keeper's sea chest");
  });
});

describe('zaffet calibrate', () => {
  const BOARD = fileURLToPath(new URL('../../../demo/runs/demo-board-glue.json', import.meta.url));
  let folder: string;
  beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'zaffet-cli-'))));
  afterAll(() => rmSync(folder, { recursive: true }));

  it('prints what a measured board teaches, and predicts by it: the glue slips more, the cracks are wider apart', async () => {
    const { code, out, err } = await call('calibrate', BOARD);
    expect([code, err]).toEqual([0, '']);
    const told = JSON.parse(out) as {
      lessons: { key: string; factor: number; says: string }[];
      compared: unknown[];
      leaveOneOut: { tables: number; fitted: number }[];
    };
    expect(told.lessons.find(({ key }) => key === 'slip:pva')!.factor).toBeGreaterThan(1.1);
    expect(told.lessons.map(({ says }) => says).join()).toContain('White glue slips');
    expect(told.compared.length).toBe(20);
    const file = join(folder, 'shop.json');
    writeFileSync(file, out);
    const spacing = async (...more: string[]): Promise<{ value: number; low: number; high: number }> => {
      const prediction = JSON.parse((await call('predict', DEMO, ...more)).out) as Awaited<
        ReturnType<typeof predict>
      >;
      return prediction.figures.find(({ key }) => key === 'spacing') as never;
    };
    const [was, is] = [await spacing(), await spacing('--knowing', file)];
    expect(is.value).toBeGreaterThan(1.1 * was.value);
    expect(is.high / is.low).toBeLessThan(was.high / was.low);
    const moments = async (...more: string[]): Promise<string> => (await call('schedule', DEMO, ...more)).out;
    expect(await moments('--knowing', file)).not.toBe(await moments());
  });

  it('refuses what is no run, holds no readings, or is no calibration, and says so', async () => {
    const none = await call('calibrate', DEMO);
    expect([none.code, none.out]).toEqual([2, '']);
    expect(none.err).toContain('events of a run');
    const plan = join(folder, 'bad.json');
    writeFileSync(plan, JSON.stringify({ learned: { keys: ['air'], mean: [9], covariance: [[1]] } }));
    const bad = await call('predict', DEMO, '--knowing', plan);
    expect(bad.code).toBe(2);
    expect(bad.err).toContain('learned.mean');
  });
});

describe('zaffet measure', () => {
  let folder: string;
  beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'zaffet-photo-'))));
  afterAll(() => rmSync(folder, { recursive: true }));

  /** Dark lines both ways, so many pixels apart and wide, on light paint. */
  const grid = (side: number, every: number, wide: number): Buffer => {
    const data = Buffer.alloc(4 * side * side, 255);
    for (let i = 0; i < side * side; i++) {
      const crack = (i % side) % every < wide || Math.floor(i / side) % every < wide;
      data.fill(crack ? 60 : 210, 4 * i, 4 * i + 3);
    }
    return data;
  };

  it('tells the cracks of a rectangle of known size, of a JPEG and of a PNG', async () => {
    const side = 800;
    const data = grid(side, 80, 20);
    const files: readonly [string, Buffer][] = [
      ['cell.jpg', jpeg.encode({ width: side, height: side, data }, 92).data],
      ['cell.png', PNG.sync.write(Object.assign(new PNG({ width: side, height: side }), { data }))],
    ];
    for (const [name, bytes] of files) {
      const path = join(folder, name);
      writeFileSync(path, bytes);
      const { code, out } = await call(
        'measure',
        path,
        '--corners',
        '0,0 800,0 800,800 0,800',
        '--size',
        '80x80',
      );
      expect(code).withContext(name).toBe(0);
      const read = JSON.parse(out) as PhotoReading;
      expect(Math.abs(read.spacingMm! - 8)).toBeLessThan(0.3);
      expect(Math.abs(read.openingMm! - 2)).toBeLessThan(0.1);
      expect(out).not.toContain('mask');
    }
  });

  it('says what a photograph lacks, and what was told wrong', async () => {
    const path = join(folder, 'bare.jpg');
    writeFileSync(path, jpeg.encode({ width: 400, height: 300, data: Buffer.alloc(480000, 180) }, 90).data);
    const said = async (...args: string[]): Promise<string> => {
      const { code, err } = await call('measure', ...args);
      expect(code).toBe(2);
      return err;
    };
    expect(await said(path)).toMatch(/0 of 12.*four corners/);
    expect(await said(path, '--cells', 'nine')).toMatch(/--cells is nine; it must be a number/);
    expect(await said(path, '--corners', '1,2 3,4')).toMatch(/four places/);
    expect(await said(join(folder, 'none.jpg'))).toMatch(/cannot be opened/);
    const words = join(folder, 'words.jpg');
    writeFileSync(words, 'no picture');
    expect(await said(words)).toMatch(/cannot be opened/);
    const bomb = join(folder, 'bomb.png');
    const head = Buffer.alloc(64);
    head.writeUInt32BE(0x89504e47, 0);
    head.writeUInt32BE(60000, 16);
    head.writeUInt32BE(60000, 20);
    writeFileSync(bomb, head);
    expect(await said(bomb)).toMatch(/50 million/);
  });
});
