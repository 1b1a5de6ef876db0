import { type Known } from '../basis';
import { type PanelPlan } from '../plan';
import { after, coat, FIRST, overGlue, planOf, seal, when } from '../testing/plans';
import { jobOf, problemOf } from '../testing/timetables';
import {
  followed,
  type Followed,
  type FollowedTask,
  type Job,
  type PartTask,
  type Problem,
  schedule,
} from '.';

const alone = (job: Job): readonly PartTask[] =>
  followed(problemOf([job]), { entries: [], order: { learned: {} } }, -Infinity).tasks[0]!;

describe('what a part has of its own', () => {
  const plan = planOf([
    coat('base', 'latex', 90, FIRST),
    seal('sealer', 'polyW', 80, when('through-dry')),
    coat('milk', 'milk', 90, after(3000)),
  ]);
  const tasks = (done: Known['done']): readonly PartTask[] => {
    const job = jobOf('part', plan);
    const known = { now: 0, done, answers: [], air: [] };
    return alone({ ...job, basis: { ...job.basis, known } });
  };

  it('begins each thing as soon as it can, in one place after another', () => {
    const [base, sealer, milk] = tasks({});
    expect(base!.opens).toBe(0);
    expect(sealer!.opens).toBeGreaterThan(3600);
    expect(milk!.opens).toBeGreaterThan(sealer!.opens + 2900);
    expect(milk!.closes).toBeGreaterThan(milk!.opens - 7200);
  });

  it('takes what was begun at its moment, also before the hands were thought to be free', () => {
    const [base, sealer] = tasks({ base: { from: 100, until: 110 }, sealer: { from: 130, until: null } });
    expect([base!.opens, sealer!.opens]).toEqual([100, 130]);
    expect(base!.hands).toBeGreaterThan(30);
  });

  it('goes on from when something was told to have ended', () => {
    const preparing = (until: number): number => {
      const job = jobOf('part', plan, { prepares: [{ step: 'degrease', hands: 600, rest: 1800 }] });
      const known = { now: 0, done: { degrease: { from: 0, until } }, answers: [], air: [] };
      return alone({ ...job, basis: { ...job.basis, known } })[1]!.opens;
    };
    expect([preparing(600), preparing(1500)]).toEqual([2400, 3300]);
  });

  it('tells a window that is missed: milk paint long after its sealer had dried', () => {
    const late = planOf([...plan.steps.slice(0, 2), coat('milk', 'milk', 90, after(200_000))]);
    const job = jobOf('part', late);
    const milk = alone(job)[2]!;
    expect(milk.closes).not.toBeNull();
    expect(milk.closes!).toBeLessThan(milk.opens);
  });
});

describe('a timetable that is carried out', () => {
  const MINUTE = 60;
  const HOUR = 3600;
  const parts: readonly PanelPlan[] = [
    overGlue(140, 120, 300),
    planOf([coat('base', 'latex', 90, FIRST), coat('again', 'latex', 90, when('recoat'))]),
    planOf([coat('under', 'latex', 90, FIRST), coat('over', 'latex', 90, when('recoat', 600))]),
  ];
  const jobs = parts.map((plan, i) => jobOf(`part ${i}`, plan));
  const knowing = (done: readonly Known['done'][], now: number, of: readonly Job[] = jobs): Job[] =>
    of.map((job, i) => ({
      ...job,
      basis: { ...job.basis, known: { now, done: done[i] ?? {}, answers: [], air: [] } },
    }));
  const goesOn = (done: readonly Known['done'][], now: number, changes: Partial<Problem> = {}): Followed =>
    followed(problemOf(knowing(done, now), changes), schedule(problemOf(jobs, changes)), now);
  const handsOf = ({ tasks }: Followed): FollowedTask[] => tasks.flat().sort((a, b) => a.from - b.from);

  it('is the timetable while all goes as it was meant', () => {
    for (const people of [1, 2]) {
      const table = schedule(problemOf(jobs, { people }));
      const { tasks, ready, overtime } = goesOn([], 0, { people });
      tasks.forEach((own, job) => {
        const entries = table.entries.filter(
          ({ partId, kind }) => partId === `part ${job}` && kind !== 'clean' && kind !== 'mix',
        );
        expect(own.map(({ from, until }) => [from, until])).toEqual(
          entries.map(({ from, until }) => [from, until]),
        );
      });
      expect(ready).toBe(table.ready);
      expect(overtime).toBeNull();
    }
  });

  it('has hands at one thing at a time, nothing before now, every window kept', () => {
    const base = goesOn([], 0).tasks[1]![0]!;
    for (const late of [0, 5, 15, 40, 90]) {
      const from = base.from + late * MINUTE;
      const now = from + base.hands;
      const { tasks } = goesOn([{}, { base: { from, until: now } }], now);
      const found = handsOf({ tasks, ready: null, overtime: null });
      found.slice(1).forEach((task, i) => expect(task.from).toBeGreaterThanOrEqual(found[i]!.until - 1e-6));
      expect(found.filter((task) => task.from < now).length).toBe(1);
      for (const task of found) {
        expect(task.late).toBeFalse();
        if (task.closes !== null) expect(task.from).toBeLessThanOrEqual(task.closes + 1e-6);
      }
    }
  });

  it('moves what other parts wait for hands for, when one is late', () => {
    const [plain, late] = [0, 30 * MINUTE].map((by) => {
      const glue = goesOn([], 0).tasks[0]!.find(({ kind }) => kind === 'sections')!;
      return goesOn(
        [{ base: { from: 0, until: 600 }, glue: { from: glue.from + by, until: null } }],
        glue.from + by + 60,
      );
    });
    const others = ({ tasks }: Followed): number =>
      Math.min(
        ...tasks
          .slice(1)
          .flat()
          .map(({ from }) => from),
      );
    expect(others(late!)).toBeGreaterThan(others(plain!));
  });

  it('keeps hands at what is under way until it is told to have ended', () => {
    const now = 2 * HOUR;
    const { tasks } = goesOn([{}, { base: { from: 0, until: null } }], now);
    expect(tasks[1]![0]!.until).toBe(now);
    expect(goesOn([{}, { base: { from: 0, until: 700 } }], now).tasks[1]![0]!.until).toBe(700);
  });

  it('has left the coats of a seal that others went over', () => {
    const plan = planOf([{ ...seal('sealer', 'polyW', 60, FIRST), coats: 2 }]);
    const job = jobOf('part', plan);
    const now = 4 * HOUR;
    const done = { sealer: { from: 0, until: null, coats: [0, 3 * HOUR] } };
    const [first, second] = followed(problemOf(knowing([done], now, [job])), schedule(problemOf([job])), now)
      .tasks[0]!;
    expect(first!.until).toBe(first!.hands);
    expect(second!.until).toBe(now);
  });

  it('keeps the order that was meant: no part is brought forward by what it has done already', () => {
    const coats = (n: number): PanelPlan =>
      planOf(
        Array.from({ length: n }, (_, i) => coat(`c${i}`, 'latex', 90, i === 0 ? FIRST : when('recoat'))),
      );
    const many = [3, 3, 2, 4].map((n, i) => jobOf(`part ${i}`, coats(n)));
    const table = schedule(problemOf(many));
    const { tasks } = followed(problemOf(many), table, 0);
    const order = (all: readonly { from: number; id: string }[]): string[] =>
      [...all].sort((a, b) => a.from - b.from).map(({ id }) => id);
    const meant = table.entries
      .filter(({ kind }) => kind === 'step')
      .map(({ partId, stepId, from }) => ({ from, id: `${partId} ${stepId}` }));
    expect(
      order(
        tasks.flatMap((own, job) => own.map(({ stepId, from }) => ({ from, id: `part ${job} ${stepId}` }))),
      ),
    ).toEqual(order(meant));
  });

  it('keeps the histories of two alike parts apart, whatever their names and however little they differ', () => {
    const left = jobOf(
      'left',
      planOf([seal('sealer', 'polyW', 60, FIRST), coat('milk', 'milk', 90, when('tacky'))]),
    );
    const { plan } = left.basis;
    const taller = { ...plan, panel: { ...plan.panel, height: plan.panel.height + 0.001 } };
    const now = 3 * HOUR;
    const done = [
      { sealer: { from: 0, until: 300 } },
      { sealer: { from: now - 5 * MINUTE, until: now } },
      { sealer: { from: now - 3 * MINUTE, until: now } },
    ];
    const windowsOf = (some: readonly Job[], histories: readonly Known['done'][]): number[][] =>
      followed(problemOf(knowing(histories, now, some)), schedule(problemOf(some)), now).tasks.map(
        (tasks) => [tasks[1]!.opens, tasks[1]!.closes!],
      );
    const alone = done.map((history) => windowsOf([left], [history])[0]!);
    for (const right of [{ ...left, id: 'right' }, jobOf('right', taller)]) {
      const together = windowsOf([left, right, { ...left, id: 'third' }], done);
      together.forEach((window, part) =>
        window.forEach((at, end) => expect(Math.abs(at - alone[part]![end]!)).toBeLessThan(MINUTE)),
      );
    }
    expect(alone[1]![1]).toBeGreaterThan(alone[0]![1]! + HOUR);
  });

  it('asks hands to stay for a window that closes after their hours, and not for one that does not', () => {
    const plan = planOf([seal('sealer', 'polyW', 60, FIRST), coat('milk', 'milk', 90, when('tacky'))]);
    const job = jobOf('part', plan);
    const begun = (from: number): Followed =>
      followed(
        problemOf(knowing([{ sealer: { from, until: from + 300 } }], from + 300, [job])),
        schedule(problemOf([job])),
        from + 300,
      );
    expect(begun(HOUR).overtime).toBeNull();
    const evening = begun(9 * HOUR - 5 * MINUTE);
    expect(evening.tasks[0]![1]!.late).toBeFalse();
    expect(evening.overtime).toBeGreaterThan(9 * HOUR);
    expect(evening.overtime).toBe(evening.tasks[0]![1]!.until);
  });

  it('says so where a window has closed already', () => {
    const job = jobOf(
      'part',
      planOf([seal('sealer', 'polyW', 60, FIRST), coat('milk', 'milk', 90, when('tacky'))]),
    );
    const done = [{ sealer: { from: 0, until: 300 } }];
    const at = (now: number): FollowedTask =>
      followed(problemOf(knowing(done, now, [job])), schedule(problemOf([job])), now).tasks[0]![1]!;
    expect(at(HOUR / 2).late).toBeFalse();
    expect(at(8 * HOUR).late).toBeTrue();
  });

  it('takes paint out of the pot that a coat came from already', () => {
    const pot = { recipe: 'grey', mixing: 20 * MINUTE, rest: 0, life: 86_400 };
    const own = jobs.slice(1).map((job) => ({
      ...job,
      pots: Object.fromEntries(job.basis.plan.steps.map(({ id }) => [id, [pot]])),
    }));
    const now = 10 * MINUTE;
    const meant = schedule(problemOf(own));
    const next = (done: Known['done']): number =>
      Math.min(
        ...followed(problemOf(knowing([done], now, own)), meant, now)
          .tasks.flat()
          .filter(({ from }) => from >= now)
          .map(({ from }) => from),
      );
    expect(next({})).toBe(now + 20 * MINUTE);
    expect(next({ base: { from: 0, until: now } })).toBeLessThan(now + 20 * MINUTE);
  });
});
