import { forecast } from '@zaffet/core';
import { readdirSync, readFileSync } from 'node:fs';
import { ERRORS, ZaffetError } from './errors';
import { newPlan, SCHOOLS, type School } from './plan/create';
import { LIMITS } from './plan/limits';
import { toModel } from './plan/toModel';
import { parsePlan, parseSave } from './schemas';
import { samplePlan } from './testing/plan';

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
      expect(forecast(toModel(plan)).crackedCoat)
        .withContext(file)
        .toBe(plan.steps.length - 1);
    }
  });

  it('gives back what it was given', () => {
    expect(parsePlan(JSON.parse(JSON.stringify(samplePlan())))).toEqual(samplePlan());
  });

  const bad: [string, unknown, RegExp][] = [
    ['steps.0.thicknessUm', 5000, /^steps\.0\.thicknessUm is 5000; it must be a number from 10 to 600 µm\.$/],
    ['steps.0.thicknessUm', '90', /steps\.0\.thicknessUm is "90"; it must be a number/],
    ['steps.1.passes', 2.5, /steps\.1\.passes is 2\.5; it must be a whole number from 1 to 8/],
    ['steps.2.medium', 'treacle', /steps\.2\.medium is "treacle"; it must be one of chalk,/],
    ['steps.2.colour', 'red', /must be a colour such as #4a6b5d/],
    ['steps.2.start.waitMin', undefined, /steps\.2\.start\.waitMin is missing/],
    ['steps.2.start.at', '2026-05-12T08:00:00Z', /steps\.2\.start\.at is not part of a plan/],
    ['steps.2.id', 'id-2', /has the same id as another step/],
    ['steps', [], /steps has 0 entries; allowed is 1 to 20/],
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
      'steps.2.start',
      { rule: 'at', at: '2027-05-12T08:00:00Z' },
      /^steps\.2\.start\.at is more than 14 days after the plan's start/m,
    ],
    ['startsAt', 'tomorrow', /must be a date and time such as/],
    ['name', '', /name is empty/],
    ['name', 'x'.repeat(200), /name is too long; at most 120/],
    ['piece.parts', [], /piece\.parts has 0 entries; allowed is exactly 1/],
    ['piece.parts.0.substrate', 'ice', /must be one of raw-softwood/],
    ['piece.parts.0.history.handled', 'yes', /piece\.parts\.0\.history\.handled/],
    ['look.spacingMm', 0, /look\.spacingMm is 0; it must be a number from 0\.1 to 100 mm/],
    ['extra', 1, /extra is not part of a plan; remove it/],
    ['seed', -1, /seed is -1/],
  ];
  for (const [path, value, message] of bad) {
    it(`refuses ${path} = ${JSON.stringify(value)?.slice(0, 30)}, saying what is allowed`, () => {
      const said = refusal(changed(path, value));
      expect(said[0]).toBe('plan.invalid');
      expect(said.slice(1).join('\n')).toMatch(message);
    });
  }

  it('names every refused field at once', () => {
    const broken = changed('steps.0.thicknessUm', 0) as { air: { humidity: number } };
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

describe('reading a save', () => {
  it('wants a revision and a plan', () => {
    expect(parseSave({ revision: 3, plan: samplePlan() }).revision).toBe(3);
    expect(() => parseSave({ plan: samplePlan() })).toThrowError(ZaffetError, /revision is missing/);
    expect(() => parseSave({ revision: 0, plan: samplePlan() })).toThrowError(ZaffetError, /revision is 0/);
    expect(() => parseSave({ revision: 1, plan: {} })).toThrowError(ZaffetError);
  });
});

describe('a new plan', () => {
  for (const school of Object.keys(SCHOOLS) as School[]) {
    it(`cracks well from the start: ${school}`, () => {
      let next = 0;
      const plan = newPlan(school, 'New', 3, '2026-01-01T09:00:00Z', () => `n${++next}`);
      expect(parsePlan(plan)).toEqual(plan);
      const result = forecast(toModel(plan));
      expect(result.coats[2]!.crack!.pattern.strength).toBeGreaterThan(0.6);
      expect(result.findings.every((finding) => finding.level === 'good')).toBeTrue();
    });
  }
});

describe('limits and errors', () => {
  it("are the core's ranges in the plan file's units", () => {
    expect(LIMITS.thicknessUm).toEqual({ min: 10, max: 600, step: 1, unit: 'µm' });
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
    const plan = samplePlan();
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
    expect(model.coats[1]!.thickness).toBeCloseTo(110e-6, 12);
    expect(model.coats[2]!.start).toEqual({ rule: 'at', moment: 5400 });
    // What lies before the plan's start is not its air.
    expect(model.air.map((sample) => sample.from)).toEqual([0, 7200]);
    expect(model.air[1]!.temperature).toBeCloseTo(298.15, 9);
  });
});
