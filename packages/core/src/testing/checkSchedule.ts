import { type Basis } from '../basis';
import { forecast, type Forecast } from '../forecast';
import { type Facing } from '../piece';
import { isFilm, type Step, type WorkTime } from '../plan';
import { type Entry, type Job, type Problem, type Schedule } from '../schedule';

/*
 * What a timetable must keep, looked at from outside: every rule anew from the problem and from forecasts at the moments
 * it tells. Imports nothing of the solver but what its words mean.
 */

const MINUTE = 60;
/** Moments are told to the second. */
const NEAR = 1;
const OPPOSITE: Partial<Record<Facing, Facing>> = {
  top: 'bottom',
  bottom: 'top',
  front: 'back',
  back: 'front',
  left: 'right',
  right: 'left',
};

/** Findings that say a moment was wrong. */
const OF_MOMENTS = [
  'glue-closing',
  'glue-dried',
  'medium-wet',
  'hide-not-cured',
  'base-not-dry',
  'start-never',
  'blade-hard',
  'cloth-in-vain',
  'salt-loose',
  'buff-early',
  'buff-late',
  'spray-recoat',
  'wax-on-wet-dark',
  'heat-on-solvent',
  'heat-on-bleach',
  'bleach-after-alcohol',
  'milk-old',
];

const WORK: readonly Entry['kind'][] = ['prepare', 'step', 'coat', 'piece', 'buff', 'sections'];
const isWork = ({ kind }: Entry): boolean => WORK.includes(kind);
const nameOf = ({ partId, stepId, kind, coat, from }: Entry): string =>
  `${kind} ${partId}/${stepId}/${coat} at ${Math.round(from / 6) / 10} min`;

/** What is broken, a sentence each; nothing where all is kept. */
export function broken(problem: Problem, table: Schedule): string[] {
  const found: string[] = [];
  const told = problem.jobs.map((job) => {
    const { work: _, ...plan } = job.basis.plan;
    const basis: Basis = { plan, shop: job.basis.shop };
    const moments = table.moments[job.id] ?? {};
    return { job, alone: forecast(basis), timed: forecast({ ...basis, moments }) };
  });
  for (const { job, alone, timed } of told) {
    found.push(...allThere(job, table), ...inOrder(job, table), ...moments(job, table, timed));
    found.push(...noWorse(job, alone, timed));
    if (timed.readyAt !== null && table.ready !== null && table.ready < timed.readyAt - MINUTE)
      found.push(`${job.id} is ready at ${timed.readyAt}, after all is said to be`);
  }
  found.push(...hands(problem, table), ...hours(problem, table), ...brushes(problem, table));
  found.push(...faces(problem, table, new Map(told.map(({ job, timed }) => [job.id, timed]))));
  found.push(...pots(problem, table), ...given(problem, table));
  return found;
}

const of = ({ id }: Job, { entries }: Schedule): Entry[] =>
  entries.filter((entry) => entry.partId === id && isWork(entry));

/** Every step is done, once, with all its coats. */
function allThere(job: Job, table: Schedule): string[] {
  const entries = of(job, table);
  const inSections = entries.filter(({ kind }) => kind === 'sections').map(({ stepId }) => stepId);
  return job.basis.plan.steps.flatMap((step, i) => {
    const own = entries.filter(({ stepId, kind }) => stepId === step.id && kind !== 'buff');
    const before = job.basis.plan.steps[i - 1];
    if (step.kind === 'wait') return own.length === 0 ? [] : [`${step.id} waits, and has hands`];
    if (before !== undefined && inSections.includes(before.id))
      return own.length === 0 ? [] : [`${job.id}/${step.id} is done again after its sections`];
    const wanted = step.kind === 'seal' ? step.coats : step.kind === 'companion' ? (own[0]?.of ?? 1) : 1;
    const coats = own.map(({ coat }) => coat).sort((a, b) => a - b);
    const right = coats.length === wanted && coats.every((coat, k) => coat === k);
    const buffs = entries.filter(({ stepId, kind }) => stepId === step.id && kind === 'buff').length;
    const buffed = step.kind === 'seal' && step.buffAfter !== null ? 1 : 0;
    return [
      ...(right
        ? []
        : [`${job.id}/${step.id} is done ${coats.join(', ') || 'never'} instead of ${wanted} times`]),
      ...(buffs === buffed ? [] : [`${job.id}/${step.id} is buffed ${buffs} times instead of ${buffed}`]),
    ];
  });
}

/** One thing after another, in the order of the plan. */
function inOrder(job: Job, table: Schedule): string[] {
  const place = (entry: Entry): number =>
    entry.kind === 'prepare' ? -1 : job.basis.plan.steps.findIndex(({ id }) => id === entry.stepId);
  const entries = of(job, table);
  return entries.slice(1).flatMap((entry, i) => {
    const before = entries[i]!;
    const right = place(before) <= place(entry) && before.until <= entry.from + NEAR;
    return right ? [] : [`${nameOf(entry)} comes before ${nameOf(before)} is done`];
  });
}

/** No step begins before its own rule lets it: the forecast at these moments begins each when it is told. */
function moments(job: Job, table: Schedule, timed: Forecast): string[] {
  const entries = of(job, table);
  return job.basis.plan.steps.flatMap((step, i) => {
    const entry = entries.find(({ stepId, kind }) => stepId === step.id && kind !== 'buff');
    if (entry === undefined) return [];
    const { from } = timed.times[i]!;
    const late =
      Math.abs(from - entry.from) > NEAR ? [`${nameOf(entry)} begins at ${from} by its own rule`] : [];
    if (step.kind === 'seal') {
      const coats = entries.filter(({ stepId, kind }) => stepId === step.id && kind !== 'buff');
      const film = timed.coats.find(({ coat }) => coat.id === step.id)!;
      if (Math.abs(film.laidAt - coats.at(-1)!.from) > NEAR)
        late.push(`${nameOf(coats.at(-1)!)} is laid at ${film.laidAt} by the coat below it`);
      const buff = entries.find(({ stepId, kind }) => stepId === step.id && kind === 'buff');
      if (buff !== undefined && buff.from < film.laidAt + step.buffAfter! - NEAR)
        late.push(`${nameOf(buff)} comes before it is told`);
    }
    const sections = entries.find(({ kind, stepId }) => kind === 'sections' && stepId === step.id);
    const over = timed.times[i + 1];
    if (sections !== undefined && over !== undefined && Math.abs(over.from - from - sections.lag) > NEAR)
      late.push(`${nameOf(sections)}: paint follows ${over.from - from} s behind, told are ${sections.lag}`);
    return late;
  });
}

/** No moment makes worse what the part by itself does well. */
function noWorse(job: Job, alone: Forecast, timed: Forecast): string[] {
  const codes = ({ findings }: Forecast): string[] =>
    findings
      .filter(({ code }) => OF_MOMENTS.includes(code))
      .map(({ code, stepId }) => `${code} at ${stepId}`);
  const known = codes(alone);
  return codes(timed)
    .filter((code) => !known.includes(code))
    .map((code) => `${job.id}: ${code}`);
}

/** Nobody does two things at once, and nobody is there who is not. */
function hands({ people }: Problem, { entries }: Schedule): string[] {
  const found = entries
    .filter(({ hand }) => hand < 0 || hand >= people)
    .map((entry) => `${nameOf(entry)} by nobody`);
  for (let hand = 0; hand < people; hand++) {
    const own = entries.filter((entry) => entry.hand === hand).sort((a, b) => a.from - b.from);
    own.slice(1).forEach((entry, i) => {
      if (own[i]!.until > entry.from + NEAR) found.push(`${nameOf(entry)} while at ${nameOf(own[i]!)}`);
    });
  }
  return found;
}

const inside = (time: WorkTime | undefined, from: number, until: number): boolean =>
  time === undefined || time.some(({ opens, closes }) => opens <= from + NEAR && until <= closes + NEAR);

/** All work lies wholly in working time, and what is judged by eye in daylight. */
function hours({ work, daylight, jobs }: Problem, { entries }: Schedule): string[] {
  return entries.flatMap((entry) => {
    const step = jobs
      .find(({ id }) => id === entry.partId)!
      .basis.plan.steps.find(({ id }) => id === entry.stepId);
    const byEye =
      isWork(entry) && (step?.kind === 'wipe' || (step?.kind === 'distress' && step.tool !== 'bleach'));
    return [
      ...(inside(work, entry.from, entry.until) ? [] : [`${nameOf(entry)} runs out of hours`]),
      ...(!byEye || inside(daylight, entry.from, entry.until)
        ? []
        : [`${nameOf(entry)} is judged in the dark`]),
    ];
  });
}

/** A brush is washed after use, unless the same paint follows soon. */
function brushes({ jobs, minutes, people }: Problem, { entries }: Schedule): string[] {
  const found: string[] = [];
  for (let hand = 0; hand < people; hand++) {
    const own = entries.filter((entry) => entry.hand === hand).sort((a, b) => a.from - b.from);
    own.forEach((entry, i) => {
      if (!isWork(entry)) return;
      const job = jobs.find(({ id }) => id === entry.partId)!;
      const recipe = lastRecipe(job, entry);
      if (recipe === null) return;
      const next = own[i + 1];
      if (next?.kind === 'clean' && Math.abs(next.from - entry.until) <= NEAR) return;
      // What must be done before its window closes may come first.
      const soon = own.slice(i + 1).find(({ kind }) => kind === 'clean');
      const between = own.slice(i + 1, soon === undefined ? undefined : own.indexOf(soon)).filter(isWork);
      const waits = minutes.brushWaits * MINUTE;
      if (
        soon !== undefined &&
        soon.from - entry.until <= waits &&
        between.length === 1 &&
        between[0]!.closes !== null
      )
        return;
      const film = own.slice(i + 1).find(isWork);
      const same =
        film !== undefined &&
        firstRecipe(
          jobs.find(({ id }) => id === film.partId)!,
          film,
        ) === recipe &&
        film.from - entry.until <= minutes.brushWaits * MINUTE + NEAR;
      if (!same) found.push(`${nameOf(entry)} leaves a brush unwashed`);
    });
  }
  return found;
}

const recipesOf = (job: Job, stepId: string | undefined): string[] =>
  stepId === undefined ? [] : (job.pots[stepId] ?? []).map(({ recipe }) => recipe);
const stepAfter = ({ basis }: Job, stepId: string): Step | undefined =>
  basis.plan.steps[basis.plan.steps.findIndex(({ id }) => id === stepId) + 1];
const lays = (job: Job, { stepId, kind }: Entry): boolean =>
  kind !== 'buff' && job.basis.plan.steps.some((step) => step.id === stepId && isFilm(step));

const firstRecipe = (job: Job, entry: Entry): string | null =>
  lays(job, entry) ? (recipesOf(job, entry.stepId)[0] ?? null) : null;
const lastRecipe = (job: Job, entry: Entry): string | null =>
  entry.kind === 'sections'
    ? (recipesOf(job, stepAfter(job, entry.stepId)?.id)[0] ?? null)
    : firstRecipe(job, entry);

/** One face of a body lies up; it is turned by hands, and not while paint on it runs or would be lain on. */
function faces(
  { jobs, minutes }: Problem,
  { entries }: Schedule,
  forecasts: ReadonlyMap<string, Forecast>,
): string[] {
  const found: string[] = [];
  const turn = minutes.turn * MINUTE;
  for (const body of new Set(jobs.map((job) => job.body ?? `part ${job.id}`))) {
    const on = jobs.filter((job) => (job.body ?? `part ${job.id}`) === body);
    const own = entries
      .filter((entry) => isWork(entry) && on.some(({ id }) => id === entry.partId))
      .sort((a, b) => a.from - b.from);
    let up: Facing = 'top';
    own.forEach((entry, i) => {
      const face = on.find(({ id }) => id === entry.partId)!.up;
      for (const before of own.slice(0, i)) {
        const lay = on.find(({ id }) => id === before.partId)!.up;
        if (lay === face) continue;
        const ends = Math.max(
          before.until,
          wetUntil(before, forecasts.get(before.partId)!, OPPOSITE[lay] === face),
        );
        if (entry.from < ends + turn - NEAR)
          found.push(`${nameOf(entry)}: turned while ${nameOf(before)} is wet`);
      }
      if (face !== up && turn > 0) {
        const turned = entries.some(
          ({ kind, from, until, up: to, body: what }) =>
            kind === 'turn' &&
            what === entry.body &&
            to === face &&
            Math.abs(until - entry.from) <= NEAR &&
            Math.abs(until - from - turn) <= NEAR,
        );
        if (!turned) found.push(`${nameOf(entry)}: nobody turned it`);
      }
      up = face;
    });
  }
  return found;
}

/** Until when what an entry laid runs, or cannot be lain on [s from the plan's start]; its end where it laid nothing. */
function wetUntil(entry: Entry, told: Forecast, lainOn: boolean): number {
  const plan = told.course.plan;
  const at = plan.steps.findIndex(({ id }) => id === entry.stepId);
  const index = entry.kind === 'sections' ? at + 1 : at;
  const step = plan.steps[index];
  if (step === undefined || !isFilm(step) || entry.kind === 'buff') return entry.until;
  // Coats of a seal below the last are not told by a forecast: they dry no slower than the last for this.
  if (entry.coat + 1 < entry.of) return entry.until;
  const film = told.coats.find(({ stepIndex }) => stepIndex === index)!;
  return (lainOn ? film.open.recoat : film.open.tacky) ?? Infinity;
}

/** What is used was mixed before, has rested and still keeps. */
function pots({ jobs }: Problem, { entries, mixes }: Schedule): string[] {
  const mixed = entries.filter(({ kind }) => kind === 'mix');
  const found = mixes
    .filter(({ at, recipe }) => !mixed.some((entry) => entry.from === at && entry.recipe === recipe))
    .map(({ recipe }) => `${recipe} is said to be mixed, and nobody does it`);
  for (const entry of entries.filter(isWork)) {
    const job = jobs.find(({ id }) => id === entry.partId)!;
    if (!lays(job, entry)) continue;
    const over = entry.kind === 'sections' ? stepAfter(job, entry.stepId)?.id : undefined;
    const needs = [...(job.pots[entry.stepId] ?? []), ...(over === undefined ? [] : (job.pots[over] ?? []))];
    for (const { recipe, mixing, rest, life } of needs) {
      if (mixing === 0) continue;
      const there = mixed.some(
        (pot) =>
          pot.recipe === recipe &&
          Math.abs(pot.until - pot.from - mixing) <= NEAR &&
          pot.until + rest <= entry.from + NEAR &&
          entry.until <= pot.until + life + NEAR,
      );
      if (!there) found.push(`${nameOf(entry)}: nothing in the pot`);
    }
  }
  return found;
}

/** Deliveries, the beginning, and parts that are done before others. */
function given({ jobs, from }: Problem, { entries }: Schedule): string[] {
  const found = entries
    .filter((entry) => entry.from < from - NEAR)
    .map((entry) => `${nameOf(entry)} too soon`);
  for (const job of jobs) {
    const own = entries.filter((entry) => entry.partId === job.id && isWork(entry));
    for (const entry of own)
      if (entry.from < (job.notBefore[entry.stepId] ?? -Infinity) - NEAR)
        found.push(`${nameOf(entry)} before it is delivered`);
    for (const first of job.follows) {
      const ends = Math.max(
        ...entries.filter((e) => e.partId === first && isWork(e)).map(({ until }) => until),
      );
      if (own.some((entry) => entry.from < ends - NEAR))
        found.push(`${job.id} begins before ${first} is done`);
    }
  }
  return found;
}
