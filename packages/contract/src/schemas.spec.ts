import { forecast } from '@zaffet/core/forecast';
import { basisOf, newPlan, partPlan, SCHOOL_KEYS, toModel } from '@zaffet/workshop';
import { readdirSync, readFileSync } from 'node:fs';
import { ERRORS, ZaffetError } from './errors';
import { LIMITS } from './plan/limits';
import { parsePlan, parseSave } from './schemas';
import { samplePart, samplePlan } from '../../workshop/src/testing/plan';

/** The sentences a bad value is refused with. */
function refusal(value: unknown): string[] {
  try {
    parsePlan(value);
    return [];
  } catch (error) {
    if (!(error instanceof ZaffetError)) throw error;
    return [error.fault.code, ...error.fault.fields.map((field) => field.message)];
  }
}

/** The sample with one value replaced, by its path. */
function changed(path: string, value: unknown): unknown {
  const copy = JSON.parse(JSON.stringify(samplePlan())) as Record<string, unknown>;
  const keys = path.split('.');
  let at = copy as Record<string, unknown>;
  for (const key of keys.slice(0, -1)) at = at[key] as Record<string, unknown>;
  const last = keys.at(-1)!;
  if (value === undefined) delete at[last];
  else at[last] = value;
  return copy;
}

describe('reading a plan', () => {
  it('takes every demo plan and forecasts it', () => {
    const folder = new URL('../../../demo/plans/', import.meta.url);
    const files = readdirSync(folder);
    expect(files.length).toBeGreaterThan(2);
    for (const file of files) {
      const plan = parsePlan(JSON.parse(readFileSync(new URL(file, folder), 'utf8')));
      for (const { id, name } of plan.piece.parts) {
        const result = forecast(basisOf(partPlan(plan, id)));
        const where = `${file}, ${name}`;
        expect(result.findings.filter((finding) => finding.level === 'stop'))
          .withContext(where)
          .toEqual([]);
        expect(
          result.crackedCoat !== null ||
            result.whole.chippedShare + result.whole.wornShare > 0.05 ||
            result.layers.length > 4,
        )
          .withContext(where)
          .toBeTrue();
      }
    }
  });

  it('gives back what it was given', () => {
    expect(parsePlan(JSON.parse(JSON.stringify(samplePlan())))).toEqual(samplePlan());
  });

  const bad: [string, unknown, RegExp][] = [
    [
      'finishes.0.steps.0.thicknessUm',
      5000,
      /^finishes\.0\.steps\.0\.thicknessUm is 5000; it must be a number from 4 to 1200 µm\.$/,
    ],
    [
      'finishes.0.steps.0.thicknessUm',
      '90',
      /finishes\.0\.steps\.0\.thicknessUm is "90"; it must be a number/,
    ],
    [
      'finishes.0.steps.1.passes',
      2.5,
      /finishes\.0\.steps\.1\.passes is 2\.5; it must be a whole number from 1 to 8/,
    ],
    [
      'finishes.0.steps.2.medium',
      'treacle',
      /finishes\.0\.steps\.2\.medium is "treacle"; it must be one of chalk,/,
    ],
    ['finishes.0.steps.2.colour', 'red', /must be a colour such as #4a6b5d/],
    ['finishes.0.steps.2.start.waitMin', undefined, /finishes\.0\.steps\.2\.start\.waitMin is missing/],
    [
      'finishes.0.steps.2.start.at',
      '2026-05-12T08:00:00Z',
      /finishes\.0\.steps\.2\.start\.at is not known here/,
    ],
    ['finishes.0.steps.2.id', 'id-2', /finishes\.0\.steps\.2\.id is "id-2", as another step is/],
    ['finishes.0.steps', [], /finishes\.0\.steps has 0 entries; allowed is 1 to 40/],
    ['air.humidity', 55, /air\.humidity is 55; it must be a number from 0\.05 to 0\.98/],
    ['air.temperatureC', -10, /from 2 to 45 °C/],
    [
      'air.later',
      [
        { at: '2026-05-12T10:00:00Z', temperatureC: 20, humidity: 0.5 },
        { at: '2026-05-12T09:00:00Z', temperatureC: 20, humidity: 0.5 },
      ],
      /in order of time/,
    ],
    [
      'finishes.0.steps.2.start',
      { rule: 'at', at: '2027-05-12T08:00:00Z' },
      /^finishes\.0\.steps\.2\.start\.at is more than 14 days after the plan's start/m,
    ],
    ['startsAt', 'tomorrow', /must be a date and time such as/],
    ['name', '', /name is empty/],
    ['name', 'x'.repeat(200), /name is too long; at most 120/],
    ['piece.parts', [], /piece\.parts has 0 entries; allowed is 1 to 24/],
    ['piece.parts.0.substrate', 'ice', /must be one of raw-softwood/],
    ['piece.parts.0.history.handled', 'yes', /piece\.parts\.0\.history\.handled/],
    [
      'finishes.0.look.spacingMm',
      0,
      /finishes\.0\.look\.spacingMm is 0; it must be a number from 0\.1 to 100 mm/,
    ],
    ['extra', 1, /extra is not known here; remove it/],
    ['seed', -1, /seed is -1/],
    [
      'finishes.0.steps.0.kind',
      'varnish',
      /finishes\.0\.steps\.0\.kind is "varnish"; it must be one of coat, seal/,
    ],
    [
      'finishes.0.steps.0.cover.share',
      1.5,
      /finishes\.0\.steps\.0\.cover\.share is 1\.5; it must be a number from 0 to 1/,
    ],
    ['piece.parts.0.use', 'boat', /must be one of display/],
    [
      'finishes.0.steps.1',
      { id: 'h', kind: 'heat', tool: 'gun', durationS: 1, off: false, start: { rule: 'after', waitMin: 0 } },
      /finishes\.0\.steps\.1\.durationS is 1; it must be a number from 5 to 3600 s/,
    ],
    [
      'media',
      [{ key: 'mine', name: 'Mine', like: 'chalk', changes: { volumeSolids: 4 } }],
      /media\.0\.changes\.volumeSolids is 4; it must be a number from 0\.05 to 1/,
    ],
    [
      'media',
      [{ key: 'pva', name: 'Mine', like: 'pva', changes: {} }],
      /which another medium has; choose a new key/,
    ],
  ];
  for (const [path, value, message] of bad) {
    it(`refuses ${path} = ${JSON.stringify(value)?.slice(0, 30)}, saying what is allowed`, () => {
      const said = refusal(changed(path, value));
      expect(said[0]).toBe('plan.invalid');
      expect(said.slice(1).join('\n')).toMatch(message);
    });
  }

  it('names every refused field at once', () => {
    const broken = changed('finishes.0.steps.0.thicknessUm', 0) as { air: { humidity: number } };
    broken.air.humidity = 3;
    expect(refusal(broken).length).toBe(3);
  });

  it('tells a file of another kind, or of a newer Zaffet, apart', () => {
    for (const other of [
      null,
      12,
      'plan',
      [],
      {},
      { format: 'other', version: 1 },
      { format: 'zaffet-plan' },
    ]) {
      expect(refusal(other)).toEqual(['plan.not-a-plan']);
    }
    expect(refusal({ ...samplePlan(), version: 99 })).toEqual(['plan.too-new']);
    expect(refusal({ ...samplePlan(), version: 0 })[0]).toBe('plan.invalid');
  });
});

describe('maps of a plan', () => {
  const base = samplePlan().finishes[0]!.steps[0]!.id;
  const map = (changes: object): unknown =>
    changed('piece.parts.0.maps', {
      [base]: { columns: 3, rows: 2, percent: [100, 120, 80, 100, 100, 100], ...changes },
    });

  it('reach the core as factors, each turned once', () => {
    const plan = partPlan(parsePlan(map({})));
    const step = toModel(plan).steps[0]!;
    expect(step.kind === 'coat' && step.map?.values).toEqual([1, 1.2, 0.8, 1, 1, 1]);
    const again = toModel(plan).steps[0]!;
    expect(step.kind === 'coat' && again.kind === 'coat' && step.map === again.map).toBeTrue();
  });

  it('are refused with the cell that is wrong and what is allowed', () => {
    expect(refusal(map({ percent: [100] }))[1]).toMatch(/percent must be a list of 6 whole numbers/);
    // A film may be left out in places, and lie four times as thick in others.
    expect(refusal(map({ percent: [100, 0, 401, 100, 100, 100] }))[1]).toBe(
      `piece.parts.0.maps.${base}.percent.2 is 401; it must be a whole number from 0 to 400.`,
    );
    expect(refusal(map({ columns: 900 }))[1]).toMatch(/columns is 900; it must be a number from 1 to 160/);
    expect(
      refusal(changed('piece.parts.0.maps', { nobody: { columns: 1, rows: 1, percent: [100] } }))[1],
    ).toMatch(/there is no step that may have a map of that id/);
  });
});

describe('a piece of several parts', () => {
  const plan = samplePlan();
  const [lid] = plan.piece.parts;
  const two = {
    ...plan,
    piece: { ...plan.piece, parts: [lid!, { ...lid!, id: 'front', name: 'Front', widthMm: 300 }] },
  };

  it('gives each part its own panel, pattern and map, of the same finish', () => {
    expect(parsePlan(two)).toEqual(two);
    const front = partPlan(two, 'front');
    expect(toModel(front).panel.width).toBeCloseTo(0.3, 9);
    expect(front.steps).toEqual(partPlan(two).steps);
    expect(front.seed).not.toBe(partPlan(two).seed);
    expect(partPlan(two, 'gone').part.id).toBe(lid!.id);
  });

  it('leaves out what is switched off, and can be tried with a what-if', () => {
    const finish = two.finishes[0]!;
    const other = {
      ...finish,
      id: 'other',
      whatIfOf: finish.id,
      steps: finish.steps.map((step, i) => ({ ...step, id: `w${i}`, off: i === 1 })),
    };
    const tried = { ...two, finishes: [finish, other] };
    expect(parsePlan(tried)).toEqual(tried);
    expect(partPlan(tried, 'front', 'other').steps.map(({ id }) => id)).toEqual(['w0', 'w2']);
    expect(partPlan(tried, 'front').steps.length).toBe(3);
  });

  it('is refused where names lead nowhere', () => {
    expect(refusal(changed('piece.parts.0.finish', 'gone')).join()).toMatch(
      /piece\.parts\.0\.finish is "gone", but there is no finish of that id/,
    );
    expect(refusal(changed('finishes.0.whatIfOf', 'gone')).length).toBe(2);
    const idle = plan.finishes.map((finish) => ({
      ...finish,
      steps: finish.steps.map((step) => ({ ...step, off: true })),
    }));
    expect(refusal(changed('finishes', idle)).join()).toMatch(
      /finishes\.0\.steps are all left out; at least one must be done/,
    );
    const coats = Array.from({ length: 32 }, (_, i) => ({ ...plan.finishes[0]!.steps[0]!, id: `c${i}` }));
    expect(refusal(changed('finishes.0.steps', coats)).join()).toMatch(
      /finishes\.0\.steps lay more than 31 films and resists; leave some out/,
    );
    const left = coats.map((step, i) => ({ ...step, off: i > 0 && i < 3 }));
    expect(refusal(changed('finishes.0.steps', left))).toEqual([]);
  });

  it('is work that ends before it begins, runs into itself, or lies in no zone', () => {
    const day = [{ opensMin: 480, closesMin: 1020 }];
    const week = { mon: day, tue: day, wed: day, thu: day, fri: day, sat: [], sun: [] };
    const work = {
      zone: 'Europe/Lisbon',
      week,
      daysOff: [],
      extra: [],
      people: 1,
      daylight: null,
      minutes: {},
    };
    expect(refusal(changed('work', work))).toEqual([]);
    const told = (changes: object): string => refusal(changed('work', { ...work, ...changes })).join();
    const monday = (...stretches: [number, number][]): object => ({
      week: { ...week, mon: stretches.map(([opensMin, closesMin]) => ({ opensMin, closesMin })) },
    });
    expect(told(monday([600, 500]))).toMatch(/work\.week\.mon\.0 must close later than it opens/);
    expect(told(monday([480, 720], [700, 900]))).toMatch(
      /work\.week\.mon\.1 opens before the stretch before it closes/,
    );
    expect(told({ zone: 'Atlantis/Deep' })).toMatch(/must be a time zone such as Europe\/Lisbon/);
    expect(refusal(changed('work', { ...work, zone: '+05:30' }))).toEqual([]);
    expect(told({ people: 4 })).toMatch(/work\.people is 4; it must be a number from 1 to 3/);
    expect(told({ daysOff: ['12 May'] })).toMatch(/a day such as 2026-05-14/);
    expect(told({ extra: [{ from: '2026-05-14T10:00Z', until: '2026-05-14T09:00Z' }] })).toMatch(
      /must end later than it begins/,
    );
    expect(told({ minutes: { turn: 500 } })).toMatch(
      /work\.minutes\.turn is 500; it must be a number from 0 to 120 min/,
    );
    expect(told({ minutes: { juggling: 5 } })).toMatch(/juggling is not known here/);
  });

  it('is a part of no body, or an order of parts that goes round', () => {
    const plan = samplePlan();
    expect(refusal(changed('piece.parts.0.body', 'nowhere')).join()).toMatch(
      /piece\.parts\.0\.body is "nowhere", but there is no body of that id/,
    );
    const id = plan.piece.parts[0]!.id;
    const order = [
      { first: id, then: 'b' },
      { first: 'b', then: 'c' },
      { first: 'c', then: id },
    ];
    expect(refusal(changed('timing.order', order)).join()).toMatch(/timing\.order\.0 leads back/);
    expect(refusal(changed('timing.order', order.slice(0, 2)))).toEqual([]);
  });
});

describe('several colours in a coat', () => {
  const withOthers = (...shares: readonly number[]): unknown => {
    const plan = samplePlan();
    const [first, ...rest] = plan.finishes[0]!.steps;
    const others = shares.map((share) => ({ name: 'Rope', colour: '#b89a6a', share }));
    return { ...plan, finishes: [{ ...plan.finishes[0]!, steps: [{ ...first!, others }, ...rest] }] };
  };

  it('are at most three beside its own, which keeps a place', () => {
    expect(() => parsePlan(withOthers(0.3, 0.3, 0.3))).not.toThrow();
    expect(refusal(withOthers(0.5, 0.5))[1]).toMatch(
      /^finishes\.0\.steps\.0\.others take 1 of the coat together; it must be at most 0\.95/,
    );
    expect(refusal(withOthers(0.1, 0.1, 0.1, 0.1))[1]).toMatch(/others has 4 entries; allowed is 0 to 3/);
  });
});

describe("a painter's own medium", () => {
  it('is laid under its own key, and changes the forecast', () => {
    const plan = samplePlan();
    const own = {
      ...plan,
      media: [{ key: 'thin-glue', name: 'Thin glue', like: 'pva', changes: { volumeSolids: 0.2 } }],
      finishes: plan.finishes.map((finish) => ({
        ...finish,
        steps: finish.steps.map((step, i) =>
          i === 1 && step.kind === 'coat' ? { ...step, medium: 'thin-glue' } : step,
        ),
      })),
    };
    expect(parsePlan(own)).toEqual(own);
    const dry = (p: typeof plan): number => forecast(basisOf(partPlan(p))).coats[1]!.dryThickness;
    expect(dry(own) / dry(plan)).toBeCloseTo(0.2 / 0.42, 6);
    expect(refusal({ ...own, media: [] }).join()).toMatch(
      /finishes\.0\.steps\.1\.medium is "thin-glue"; it must be one of chalk/,
    );
  });
});

describe('reading a save', () => {
  it('wants a plan, and reads one from an older page, which names no save', () => {
    expect(parseSave({ saveId: 'abc', plan: samplePlan() }).saveId).toBe('abc');
    expect(parseSave({ revision: 3, plan: samplePlan() }).saveId).toBe('');
    expect(() => parseSave({ saveId: 'abc' })).toThrowError(ZaffetError, /plan is missing/);
    expect(() => parseSave({ saveId: 'abc', plan: {} })).toThrowError(ZaffetError);
  });
});

describe('a new plan', () => {
  for (const school of SCHOOL_KEYS) {
    it(`does what its school is for: ${school}`, () => {
      let next = 0;
      const plan = newPlan(school, 'New', 3, '2026-01-01T09:00:00Z', () => `n${++next}`);
      expect(parsePlan(plan)).toEqual(plan);
      const result = forecast(basisOf(partPlan(plan)));
      const troubles = result.findings.filter(({ level }) => level === 'stop' || level === 'warn');
      // Black wax over white: one school does so, and hears of the other.
      expect(troubles.map(({ code }) => code)).toEqual(school === 'warm-air' ? ['dark-wax-bare'] : []);
      const seen = result.layers.filter((layer) => layer.share > 0.03);
      expect(seen.length).toBeGreaterThan(1);
      if (['wet-glue', 'hide-glue', 'dried-medium', 'fissures'].includes(school))
        expect(result.coats[2]!.crack!.strength).toBeGreaterThan(0.6);
    });
  }
});

describe('limits and errors', () => {
  it("are the core's ranges in the plan file's units", () => {
    expect(LIMITS.thicknessUm).toEqual({ min: 4, max: 1200, step: 1, unit: 'µm' });
    expect(LIMITS.temperatureC.min).toBeCloseTo(2, 6);
    expect(LIMITS.waitMin.max).toBe(14 * 24 * 60);
  });

  it('have a sentence and a status for every code', () => {
    for (const [code, { status, message }] of Object.entries(ERRORS)) {
      expect(status).withContext(code).toBeGreaterThanOrEqual(400);
      expect(message).withContext(code).toMatch(/[.]$/);
    }
  });
});

describe("a plan in the core's terms", () => {
  it("is in SI, with moments from the plan's start", () => {
    const plan = samplePart();
    const model = toModel({
      ...plan,
      steps: [
        plan.steps[0]!,
        plan.steps[1]!,
        { ...plan.steps[2]!, start: { rule: 'at', at: '2026-05-12T09:30:00Z' } },
      ],
      air: {
        ...plan.air,
        later: [
          { at: '2026-05-12T07:00:00Z', temperatureC: 5, humidity: 0.5 },
          { at: '2026-05-12T10:00:00Z', temperatureC: 25, humidity: 0.4 },
        ],
      },
    });
    expect(model.panel.width).toBeCloseTo(0.6);
    const glue = model.steps[1]!;
    expect(glue.kind === 'coat' ? glue.thickness : NaN).toBeCloseTo(110e-6, 12);
    expect(model.steps[2]!.start).toEqual({ rule: 'at', moment: 5400 });
    // What lies before the plan's start is not its air.
    expect(model.air.map((sample) => sample.from)).toEqual([0, 7200]);
    expect(model.air[1]!.temperature).toBeCloseTo(298.15, 9);
  });
});
