import { filePlan, isFilmStep, type Plan, type PlanStep, type RunEvent } from '@zaffet/contract';
import { crackPattern, Growth } from '@zaffet/core/crack';
import {
  brushRelief,
  type CrackedLayer,
  drawPanel,
  type FaceView,
  patternInput,
  runScene,
} from '@zaffet/core/face';
import { type Forecast, forecast } from '@zaffet/core/forecast';
import { isClear, medium } from '@zaffet/core/media';
import { normalQuantile, uniform } from '@zaffet/core/numeric';
import { figureRow } from '@zaffet/core/readout';
import { wishValues } from '@zaffet/core/solve';
import { basisOf, hiddenShop, newPlan, partPlan, type School, timetable } from '@zaffet/workshop';
import jpeg from 'jpeg-js';
import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';

/*
 * Makes the demo's log out of `demo/log.json`: pieces a workshop did in the last year, carried out by a shop whose paints
 * are not those of the tables, measured with a ruler that is a little off, and photographed as the engine draws them.
 * Everything in it is made up. By hand: `npm run demo:log`.
 */

interface Told {
  readonly id: string;
  readonly school: School;
  readonly name: string;
  readonly piece: string;
  readonly part: string;
  readonly size: readonly [number, number];
  readonly at: string;
  readonly air: readonly [number, number];
  readonly seed: number;
  /** `#rrggbb name`, of the paints from the lowest on. */
  readonly colours: readonly string[];
  /** Films that came out thicker or thinner than meant, by their medium. */
  readonly film: Readonly<Record<string, number>>;
  readonly notes: readonly string[];
  readonly outcome: readonly ('spacing' | 'opening' | 'chips' | 'worn')[];
  readonly at_once: string | null;
  readonly next: string;
  readonly use: string | null;
  readonly forWhom: string;
  readonly fate: string | null;
  readonly price: number | null;
  readonly hours: number | null;
  readonly cost: number | null;
  readonly photos: readonly ('before' | 'dry' | 'sealed')[];
  readonly carried: boolean;
}

const DEMO = new URL('../demo/', import.meta.url);
/** What a photograph shows [mm], and how finely [px]. */
const SHOWN = { width: 240, height: 180 } as const;
const PIXELS = { columns: 960, rows: 720 } as const;
const QUALITY = 74;

/** This shop is as far off the tables as shops mostly are. */
const HALF = 0.5;

/** A picture's own spread of light and the camera's noise; by eye. */
const CAMERA = { fall: 0.16, noise: 3.2 } as const;

function planOf(told: Told): Plan {
  let n = 0;
  const id = (): string => `${told.id}-${++n}`;
  const made = newPlan(told.school, told.name, told.seed, `${told.at}T07:00:00.000Z`, id);
  let paints = 0;
  const coloured = (step: PlanStep): PlanStep => {
    if (!isFilmStep(step) || step.kind !== 'coat' || isClear(medium(step.medium))) return step;
    const [colour, ...name] = (told.colours[paints++] ?? '').split(' ');
    return colour === undefined || colour === '' ? step : { ...step, colour, colourName: name.join(' ') };
  };
  const [widthMm, heightMm] = told.size;
  return {
    ...made,
    air: { ...made.air, temperatureC: told.air[0], humidity: told.air[1] },
    finishes: made.finishes.map((finish) => ({ ...finish, steps: finish.steps.map(coloured) })),
    piece: {
      ...made.piece,
      name: told.piece,
      parts: made.piece.parts.map((part) => ({ ...part, name: told.part, widthMm, heightMm })),
    },
  };
}

/** The plan as this shop did it: films as thick as they came out. */
const asDone = (plan: Plan, { film }: Told): Plan => ({
  ...plan,
  finishes: plan.finishes.map((finish) => ({
    ...finish,
    steps: finish.steps.map((step) =>
      isFilmStep(step) && film[step.medium] !== undefined
        ? { ...step, thicknessUm: Math.round(step.thicknessUm * film[step.medium]!) }
        : step,
    ),
  })),
});

/** What really came out: by this shop's paints, which the tables do not know. */
function truthOf(plan: Plan, told: Told): Forecast {
  const media = plan.finishes.flatMap(({ steps }) =>
    steps.flatMap((step) => ('medium' in step ? [step.medium] : [])),
  );
  const basis = basisOf(partPlan(asDone(plan, told), null));
  const { mean, ...off } = hiddenShop(media);
  return forecast({
    ...basis,
    shop: { ...basis.shop, learned: { ...off, mean: mean.map((value) => HALF * value) } },
  });
}

/** What a ruler and an eye say of it: each a little off. */
function measured(truth: Forecast, told: Told): object {
  const values = wishValues(truth);
  const read = (key: Told['outcome'][number], channel: number): number | null => {
    if (!told.outcome.includes(key)) return null;
    const { scatter } = figureRow(key);
    const value = values[key];
    const off = scatter * normalQuantile(uniform(told.seed, channel, 3));
    if (value === null) return null;
    if (key === 'spacing' || key === 'opening') return value * Math.exp(off);
    const odds = Math.log(Math.max(0.005, value) / (1 - Math.min(0.995, value))) + off;
    return 1 / (1 + Math.exp(-odds));
  };
  const mm = (metres: number | null, digits: number): number | null =>
    metres === null ? null : Number((1000 * metres).toFixed(digits));
  const share = (value: number | null): number | null => (value === null ? null : Number(value.toFixed(2)));
  return {
    spacingMm: mm(read('spacing', 1), 1),
    openingMm: mm(read('opening', 2), 2),
    chipped: share(read('chips', 3)),
    worn: share(read('worn', 4)),
    cracked: told.outcome.includes('spacing') ? true : null,
  };
}

/** The middle of a part as a camera sees it: its cracks grown, its layers drawn, light from one side, a little noise. */
function photograph(truth: Forecast, told: Told, bare: boolean): Buffer {
  const { scene } = truth;
  const wide = Math.min(SHOWN.width, told.size[0], told.size[1] / 0.75);
  const view: FaceView = {
    widthMm: wide,
    heightMm: 0.75 * wide,
    leftMm: (told.size[0] - wide) / 2,
    topMm: (told.size[1] - 0.75 * wide) / 2,
    edges: { left: 'pinned', right: 'pinned', top: 'pinned', bottom: 'pinned' },
    reduced: false,
  };
  const { columns, rows } = PIXELS;
  const pitchMm = wide / columns;
  const cracked = bare
    ? []
    : scene.networks
        .filter(({ law }) => crackPattern(law).spacingUm > 400)
        .map((network): CrackedLayer => {
          const growth = new Growth(patternInput(scene, network, view, 'full'));
          while (growth.step());
          return { key: network.key, field: growth.result() };
        });
  const panel = runScene(
    scene,
    {
      columns,
      rows,
      pitchMm,
      leftMm: view.leftMm,
      topMm: view.topMm,
      opening: bare ? null : 1,
      until: bare ? 0 : scene.events.length,
    },
    cracked,
    (strokes, layer) => brushRelief(columns, rows, pitchMm, strokes, scene.seed ^ (layer & 1 ? 0x7f : 0)),
  );
  const { rgba } = drawPanel(scene, panel, { raking: 0.25 });
  for (let i = 0; i < columns * rows; i++) {
    const [x, y] = [(i % columns) / columns, Math.floor(i / columns) / rows];
    const light = 1 + CAMERA.fall * (0.55 - x * 0.7 - y * 0.4);
    const grain = CAMERA.noise * normalQuantile(uniform(i, told.seed, 9));
    for (let c = 0; c < 3; c++) rgba[4 * i + c] = rgba[4 * i + c]! * light + grain;
  }
  return jpeg.encode({ width: columns, height: rows, data: Buffer.from(rgba.buffer) }, QUALITY).data;
}

function runOf(told: Told): { readonly events: RunEvent[]; readonly pictures: ReadonlyMap<string, Buffer> } {
  const plan = planOf(told);
  const part = plan.piece.parts[0]!;
  const truth = truthOf(plan, told);
  const start = Date.parse(plan.startsAt);
  const events: object[] = [];
  const tell = (at: number, kind: string, body: object = {}): void => {
    events.push({
      id: `${told.id}-e${events.length + 1}`,
      device: `demo-${told.id}`,
      n: events.length + 1,
      at: new Date(at).toISOString(),
      offsetMs: 0,
      kind,
      ...body,
    });
  };
  tell(start, 'run-begun', { planId: null, plan: filePlan(plan) });
  const pictures = new Map<string, Buffer>();
  const picture = (at: number, when: Told['photos'][number]): void => {
    const bytes = photograph(truth, told, when === 'before');
    const hash = createHash('sha256').update(bytes).digest('hex');
    pictures.set(hash, bytes);
    const wideMm = Math.round(Math.min(SHOWN.width, told.size[0], told.size[1] / 0.75));
    tell(at, 'photo', { partId: part.id, stepId: null, when, hash, text: '', wideMm });
  };
  const { entries } = timetable(plan, {}, { tries: 0, seed: 1 }).table;
  let last = start;
  if (told.photos.includes('before')) picture(start, 'before');
  if (told.carried) {
    tell(start, 'air', { source: 'dial on the wall', temperatureC: told.air[0], humidity: told.air[1] });
    for (const entry of entries) {
      if (entry.kind === 'mix' || entry.kind === 'clean' || entry.kind === 'turn') continue;
      const stepIds = entry.kind === 'prepare' ? entry.prepares : [entry.stepId];
      for (const stepId of stepIds) {
        const of = { partId: part.id, stepId, coat: entry.kind === 'prepare' ? 0 : entry.coat };
        const [from, until] = [start + 1000 * Math.round(entry.from), start + 1000 * Math.round(entry.until)];
        tell(from, 'begun', { ...of, minutesAgo: 0 });
        const step = asDone(plan, told).finishes[0]!.steps.find(({ id }) => id === stepId);
        const meant = plan.finishes[0]!.steps.find(({ id }) => id === stepId);
        if (
          step !== undefined &&
          meant !== undefined &&
          isFilmStep(step) &&
          isFilmStep(meant) &&
          step.thicknessUm !== meant.thicknessUm
        )
          tell(until, 'film', { ...of, thicknessUm: step.thicknessUm });
        if (entry.kind === 'sections') {
          // The coat goes on while the glue is wet: two hands, one behind the other.
          const all = plan.finishes[0]!.steps;
          const top = all[all.findIndex(({ id }) => id === stepId) + 1]!;
          const over = { ...of, stepId: top.id };
          const lag = 1000 * Math.round(entry.lag);
          tell(from, 'section', { ...of, index: 0, painted: false, minutesAgo: 0 });
          tell(from + lag, 'begun', { ...over, minutesAgo: 0 });
          tell(until, 'section', { ...of, index: 0, painted: true, minutesAgo: 0 });
          tell(until, 'done', { ...over, minutesAgo: 0 });
        }
        tell(until, 'done', { ...of, minutesAgo: 0 });
        last = Math.max(last, until);
      }
    }
  }
  const day = 86_400_000;
  const end = told.carried ? last + day : start + 6 * 3_600_000;
  for (const when of told.photos) if (when !== 'before') picture(end, when);
  for (const text of told.notes) tell(end, 'note', { partId: null, stepId: null, text });
  if (told.outcome.length > 0) tell(end, 'outcome', { partId: part.id, ...measured(truth, told) });
  if (told.at_once !== null)
    tell(end, 'verdict', { when: 'at-once', verdict: told.at_once, text: told.next });
  if (told.forWhom !== '')
    tell(end, 'details', {
      forWhom: told.forWhom,
      fate: told.fate,
      price: told.price,
      leftOn: null,
      hours: told.hours,
      cost: told.cost,
    });
  tell(end, 'finished');
  if (told.use !== null) tell(end + 60 * day, 'verdict', { when: 'after-use', verdict: told.use, text: '' });
  return { events: events as RunEvent[], pictures };
}

const { entries } = JSON.parse(readFileSync(new URL('log.json', DEMO), 'utf8')) as { entries: Told[] };
const photos = new URL('photos/', DEMO);
rmSync(photos, { recursive: true, force: true });
mkdirSync(photos);
for (const told of entries) {
  const { events, pictures } = runOf(told);
  writeFileSync(new URL(`runs/demo-log-${told.id}.json`, DEMO), `${JSON.stringify({ events }, null, 2)}\n`);
  for (const [hash, bytes] of pictures) writeFileSync(new URL(`${hash}.jpg`, photos), bytes);
  process.stdout.write(`${told.name}: ${events.length} events, ${pictures.size} photographs\n`);
}
process.stdout.write(`${readdirSync(photos).length} photographs\n`);
