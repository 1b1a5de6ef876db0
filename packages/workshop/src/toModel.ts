import {
  type AirFile,
  type FilmPlanStep,
  type MappedStep,
  type Part,
  type PartRelief,
  type PartZone,
  type PlanStep,
  type StepMap,
  type TintFile,
} from '@zaffet/contract';
import { type AirSample } from '@zaffet/core/air';
import { outlineMap, type Region, withinOutline } from '@zaffet/core/maps';
import {
  type PanelMap,
  type PanelPlan,
  type Place,
  type Relief,
  type StartRule,
  type Step,
  type Tint,
} from '@zaffet/core/plan';
import {
  celsiusToKelvin,
  minutesToSeconds,
  mmToMetres,
  SECONDS_PER_HOUR,
  umToMetres,
} from '@zaffet/core/units';
import { workTime } from './calendar';
import { type PartPlan } from './partPlan';

const secondsBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 1000;

function startOf({ start }: PlanStep, startsAt: string): StartRule {
  switch (start.rule) {
    case 'at':
      return { rule: 'at', moment: Math.max(0, secondsBetween(startsAt, start.at)) };
    case 'after':
      return { rule: 'after', wait: minutesToSeconds(start.waitMin) };
    case 'state':
      return { rule: 'state', state: start.state, wait: minutesToSeconds(start.waitMin) };
  }
}

/** A place of a part as the core has it. */
export const regionOf = ({ leftMm, topMm, widthMm, heightMm, oval }: PartZone): Region => ({
  left: mmToMetres(leftMm),
  top: mmToMetres(topMm),
  width: mmToMetres(widthMm),
  height: mmToMetres(heightMm),
  oval,
});

/** Maps as the core has them, so that one that stays the same is turned once. */
const models = new WeakMap<StepMap, PanelMap>();

function modelMap(map: StepMap): PanelMap {
  let model = models.get(map);
  if (model === undefined) {
    const { columns, rows, percent } = map;
    const values = new Array<number>(percent.length);
    for (let i = 0; i < values.length; i++) values[i] = percent[i]! / 100;
    model = { columns, rows, values };
    models.set(map, model);
  }
  return model;
}

/** While a part is drawn larger its outlines are new every time: no more than so many are kept. */
const MOST_OUTLINES = 12;
/** Outlines drawn before, by the part's places and the names that are asked for. */
const outlines = new WeakMap<readonly PartZone[], Map<string, PanelMap>>();

/** Where a step goes that names places of the part; null where it names none this part has. */
function outlineOf(part: Part, { only, except }: MappedStep): PanelMap | null {
  const called = (names: readonly string[]): PartZone[] =>
    part.zones.filter(({ name }) => names.includes(name));
  const left = called(except);
  if (only === null && left.length === 0) return null;
  let known = outlines.get(part.zones);
  if (known === undefined) outlines.set(part.zones, (known = new Map<string, PanelMap>()));
  const key = JSON.stringify([part.widthMm, part.heightMm, only, except]);
  let outline = known.get(key);
  if (outline === undefined) {
    const size = { width: mmToMetres(part.widthMm), height: mmToMetres(part.heightMm) };
    outline = outlineMap(size, only === null ? null : called([only]).map(regionOf), left.map(regionOf));
    if (known.size >= MOST_OUTLINES) known.clear();
    known.set(key, outline);
  }
  return outline;
}

/** Painted maps within the outline they were last asked for in. */
const inOutlines = new WeakMap<StepMap, { readonly outline: PanelMap; readonly map: PanelMap }>();

function within(painted: StepMap, outline: PanelMap): PanelMap {
  const before = inOutlines.get(painted);
  if (before?.outline === outline) return before.map;
  const map = withinOutline(modelMap(painted), outline);
  inOutlines.set(painted, { outline, map });
  return map;
}

/** Where on a part a step is done, and where more and less of it. */
function placeOf(step: MappedStep, part: Part): { where: Place; map?: PanelMap } {
  const painted = part.maps[step.id];
  const outline = outlineOf(part, step);
  const { where } = step;
  if (painted === undefined) return outline === null ? { where } : { where, map: outline };
  return { where, map: outline === null ? modelMap(painted) : within(painted, outline) };
}

const tintOf = ({ tint }: { readonly tint: TintFile | null }): { tint?: Tint } =>
  tint === null ? {} : { tint: { colour: tint.colour, strength: tint.strength } };

const filmOf = (
  step: FilmPlanStep,
  part: Part,
): Pick<FilmPlanStep, 'medium' | 'dilution' | 'passes' | 'strokes' | 'cover' | 'colour'> & {
  thickness: number;
  where: Place;
  map?: PanelMap;
} => ({
  medium: step.medium,
  thickness: umToMetres(step.thicknessUm),
  dilution: step.dilution,
  passes: step.passes,
  strokes: step.strokes,
  cover: step.cover,
  colour: step.colour,
  ...placeOf(step, part),
});

function stepOf(step: PlanStep, startsAt: string, part: Part): Step {
  const base = { id: step.id, start: startOf(step, startsAt) };
  switch (step.kind) {
    case 'coat':
      return {
        ...base,
        ...filmOf(step, part),
        kind: 'coat',
        bonding: step.bonding,
        lumps: step.lumps,
        mixedAge: step.mixedHours === null ? null : step.mixedHours * SECONDS_PER_HOUR,
        keptCold: step.keptCold,
        ...(step.others.length === 0
          ? {}
          : { others: step.others.map(({ colour, share }) => ({ colour, share })), manner: step.manner }),
        ...(step.texture === 0 ? {} : { texture: step.texture }),
      };
    case 'seal':
      return {
        ...base,
        ...filmOf(step, part),
        kind: 'seal',
        coats: step.coats,
        buffAfter: step.buffAfterMin === null ? null : minutesToSeconds(step.buffAfterMin),
        ...(step.sheen === null ? {} : { sheen: step.sheen }),
      };
    case 'resist':
      return {
        ...base,
        kind: 'resist',
        agent: step.agent,
        thickness: umToMetres(step.thicknessUm),
        share: step.share,
        ...placeOf(step, part),
      };
    case 'heat':
      return { ...base, kind: 'heat', tool: step.tool, duration: step.durationS, ...placeOf(step, part) };
    case 'rewet':
      return {
        ...base,
        kind: 'rewet',
        amount: umToMetres(step.amountUm),
        ...tintOf(step),
        ...placeOf(step, part),
      };
    case 'distress':
      return {
        ...base,
        kind: 'distress',
        tool: step.tool,
        grit: step.grit,
        rounds: step.rounds,
        pressure: step.pressure,
        smear: step.smear,
        ...tintOf(step),
        ...placeOf(step, part),
      };
    case 'wipe':
      return { ...base, kind: 'wipe', degrease: step.degrease, ...placeOf(step, part) };
    case 'wait':
      return { ...base, kind: 'wait', duration: minutesToSeconds(step.durationMin) };
    case 'companion':
      return {
        ...base,
        kind: 'companion',
        task: step.task,
        hands: minutesToSeconds(step.handsMin),
        rest: minutesToSeconds(step.restMin),
        ...(step.wood === null ? {} : { wood: step.wood }),
      };
  }
}

const reliefOf = (relief: PartRelief | null): { relief?: Relief } =>
  relief === null
    ? {}
    : {
        relief: {
          kind: relief.kind,
          depth: mmToMetres(relief.depthMm),
          pitch: mmToMetres(relief.pitchMm),
        },
      };

/** Series made before: all parts of a plan share one, so that what evaporates in it is worked out once. */
const airs = new WeakMap<AirFile, { startsAt: string; series: AirSample[] }>();

function airOf({ air, startsAt }: Pick<PartPlan, 'air' | 'startsAt'>): AirSample[] {
  const before = airs.get(air);
  if (before?.startsAt === startsAt) return before.series;
  const constant = { speed: air.draughtMS, altitude: air.altitudeM };
  const sample = (from: number, of: { temperatureC: number; humidity: number }): AirSample => ({
    from,
    temperature: celsiusToKelvin(of.temperatureC),
    humidity: of.humidity,
    ...constant,
  });
  const later = air.later.map((of) => sample(secondsBetween(startsAt, of.at), of));
  // What holds at the start is what was told last before it.
  const past = later.findLast(({ from }) => from <= 0);
  const series = [
    past === undefined ? sample(0, air) : { ...past, from: 0 },
    ...later.filter(({ from }) => from > 0),
  ];
  airs.set(air, { startsAt, series });
  return series;
}

/** A part of a plan in the core's terms: SI, moments in seconds from its start. */
export function toModel(plan: PartPlan): PanelPlan {
  const { part } = plan;
  const { work } = workTime(plan);
  return {
    panel: {
      width: mmToMetres(part.widthMm),
      height: mmToMetres(part.heightMm),
      oval: part.oval,
      substrate: part.substrate,
      history: part.history,
      flat: part.flat,
      use: part.use,
      prepared: part.prepared,
      ...(part.ground.colour === null ? {} : { colour: part.ground.colour }),
      grain: part.ground.grain,
      ...reliefOf(part.relief),
    },
    steps: plan.steps.map((step) => stepOf(step, plan.startsAt, part)),
    air: airOf(plan),
    seed: plan.seed,
    ...(work === undefined ? {} : { work }),
    media: plan.media,
    ...(plan.look.shows['panel'] === undefined ? {} : { bareWanted: plan.look.shows['panel'] }),
  };
}
