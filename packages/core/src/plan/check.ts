import { MANNERS } from '../colour';
import { STROKES } from '../crack';
import { checkRange, InputError } from '../errors';
import { type Learned, mediumLookup, type MediumLookup, substrate } from '../media';
import { checkMap, FILM_MAP_RANGE, MAP_RANGE } from './map';
import { DISTRESS_TOOLS } from '../tools';
import { WOODS } from '../wood';
import { PLAN_RANGES } from './ranges';
import {
  type Coat,
  COAT_AGES,
  COMPANION_TASKS,
  COVERS,
  type FilmStep,
  GRAIN_WAYS,
  GRITS,
  isFilm,
  laysLayer,
  mapOf,
  OLD_COATS,
  HEAT_TOOLS,
  type PanelPlan,
  PLACES,
  RELIEF_KINDS,
  RESIST_AGENTS,
  SHEENS,
  START_STATES,
  type StartRule,
  type Step,
  type Tint,
  USES,
  whereOf,
  type WorkTime,
} from './types';

const COLOUR = /^#[0-9a-f]{6}$/;

function refuse(field: string, value: unknown, allowed: string): never {
  throw new InputError({ code: field.replace(/\[\d+\]/g, ''), field, value, allowed });
}

function checkWhole(field: string, value: number, range: { min: number; max: number }): void {
  checkRange(field, value, range, '');
  if (!Number.isInteger(value)) refuse(field, value, `a whole number from ${range.min} to ${range.max}`);
}

function checkOneOf(field: string, value: string | number, allowed: readonly (string | number)[]): void {
  if (!allowed.includes(value)) refuse(field, value, `one of ${allowed.join(', ')}`);
}

function checkColour(field: string, value: string): void {
  if (!COLOUR.test(value)) refuse(field, value, 'a colour such as #4a6b5d, or none');
}

function checkStart(start: StartRule, at: string): void {
  checkOneOf(`${at}.start.rule`, start.rule, ['state', 'after', 'at']);
  if (start.rule === 'at') checkRange(`${at}.start.moment`, start.moment, PLAN_RANGES.wait, 's');
  else checkRange(`${at}.start.wait`, start.wait, PLAN_RANGES.wait, 's');
  if (start.rule === 'state') checkOneOf(`${at}.start.state`, start.state, START_STATES);
}

function checkFilm(film: FilmStep, at: string, media: MediumLookup): void {
  media(film.medium);
  checkRange(`${at}.thickness`, film.thickness, PLAN_RANGES.thickness, 'm');
  checkRange(`${at}.dilution`, film.dilution, PLAN_RANGES.dilution, '');
  checkWhole(`${at}.passes`, film.passes, PLAN_RANGES.passes);
  checkOneOf(`${at}.strokes`, film.strokes, STROKES);
  checkOneOf(`${at}.cover.style`, film.cover.style, COVERS);
  checkRange(`${at}.cover.share`, film.cover.share, PLAN_RANGES.share, '');
  if (film.colour !== null) checkColour(`${at}.colour`, film.colour);
  if (film.kind === 'coat') {
    checkRange(`${at}.bonding`, film.bonding, PLAN_RANGES.share, '');
    if (film.texture !== undefined) checkRange(`${at}.texture`, film.texture, PLAN_RANGES.texture, 'L/L');
    checkColours(film, at);
    if (film.mixedAge !== null) checkRange(`${at}.mixedAge`, film.mixedAge, PLAN_RANGES.mixedAge, 's');
  } else {
    if (film.sheen !== undefined) checkOneOf(`${at}.sheen`, film.sheen, SHEENS);
    checkWhole(`${at}.coats`, film.coats, PLAN_RANGES.sealCoats);
    if (film.buffAfter !== null) checkRange(`${at}.buffAfter`, film.buffAfter, PLAN_RANGES.wait, 's');
  }
}

function checkColours({ others = [], manner }: Coat, at: string): void {
  if (manner !== undefined) checkOneOf(`${at}.manner`, manner, MANNERS);
  checkWhole(`${at}.others`, others.length, PLAN_RANGES.otherColours);
  others.forEach(({ colour, share }, i) => {
    checkColour(`${at}.others[${i}].colour`, colour);
    checkRange(`${at}.others[${i}].share`, share, PLAN_RANGES.share, '');
  });
  const all = others.reduce((sum, { share }) => sum + share, 0);
  checkRange(`${at}.others.share`, all, PLAN_RANGES.otherShares, '');
}

function checkTint(at: string, tint: Tint | undefined): void {
  if (tint === undefined) return;
  checkColour(`${at}.colour`, tint.colour);
  checkRange(`${at}.strength`, tint.strength, PLAN_RANGES.tintStrength, '');
}

function checkStep(step: Step, at: string, media: MediumLookup): void {
  checkStart(step.start, at);
  const map = mapOf(step);
  checkOneOf(`${at}.where`, whereOf(step), PLACES);
  if (map !== undefined) checkMap(`${at}.map`, map, isFilm(step) ? FILM_MAP_RANGE : MAP_RANGE);
  switch (step.kind) {
    case 'coat':
    case 'seal':
      return checkFilm(step, at, media);
    case 'resist':
      checkOneOf(`${at}.agent`, step.agent, RESIST_AGENTS);
      checkRange(`${at}.thickness`, step.thickness, PLAN_RANGES.thickness, 'm');
      return checkRange(`${at}.share`, step.share, PLAN_RANGES.share, '');
    case 'heat':
      checkOneOf(`${at}.tool`, step.tool, HEAT_TOOLS);
      return checkRange(`${at}.duration`, step.duration, PLAN_RANGES.heatDuration, 's');
    case 'rewet':
      checkTint(`${at}.tint`, step.tint);
      return checkRange(`${at}.amount`, step.amount, PLAN_RANGES.rewetAmount, 'm');
    case 'distress':
      checkOneOf(`${at}.tool`, step.tool, DISTRESS_TOOLS);
      checkOneOf(`${at}.grit`, step.grit, GRITS);
      checkWhole(`${at}.rounds`, step.rounds, PLAN_RANGES.rounds);
      checkRange(`${at}.pressure`, step.pressure, PLAN_RANGES.pressure, '');
      checkTint(`${at}.tint`, step.tint);
      return checkRange(`${at}.smear`, step.smear, PLAN_RANGES.share, '');
    case 'wipe':
      return;
    case 'wait':
      return checkRange(`${at}.duration`, step.duration, PLAN_RANGES.wait, 's');
    case 'companion':
      checkOneOf(`${at}.task`, step.task, COMPANION_TASKS);
      if (step.wood !== undefined) checkOneOf(`${at}.wood`, step.wood, WOODS);
      checkRange(`${at}.hands`, step.hands, PLAN_RANGES.hands, 's');
      return checkRange(`${at}.rest`, step.rest, PLAN_RANGES.wait, 's');
    default:
      refuse(`${at}.kind`, (step as Step).kind, 'a kind of step');
  }
}

/** Stretches of work one after another. @throws InputError as `checkPlan` */
export function checkWork(work: WorkTime): void {
  checkWhole('work', work.length, PLAN_RANGES.stretches);
  work.forEach(({ opens, closes }, i) => {
    if (!(closes > opens)) refuse(`work[${i}].closes`, closes, `later than ${opens} s, when work begins`);
    const before = work[i - 1];
    if (before !== undefined && opens < before.closes)
      refuse(
        `work[${i}].opens`,
        opens,
        `no earlier than ${before.closes} s, when the stretch before it ends`,
      );
  });
}

/**
 * The door of every forecast: checks a whole plan once, so that the kernels behind it need not.
 * @returns the lookup of the plan's media, generic and own
 * @throws InputError naming the field, the value and what is allowed
 */
export function checkPlan(plan: PanelPlan, learned: Learned | null = null): MediumLookup {
  const media = mediumLookup(plan.media, learned);
  substrate(plan.panel.substrate);
  checkRange('panel.width', plan.panel.width, PLAN_RANGES.side, 'm');
  checkRange('panel.height', plan.panel.height, PLAN_RANGES.side, 'm');
  const { colour, grain, relief } = plan.panel;
  if (colour !== undefined) checkColour('panel.colour', colour);
  if (grain !== undefined) checkOneOf('panel.grain', grain, GRAIN_WAYS);
  if (relief !== undefined) {
    checkOneOf('panel.relief.kind', relief.kind, RELIEF_KINDS);
    checkRange('panel.relief.depth', relief.depth, PLAN_RANGES.reliefDepth, 'm');
    checkRange('panel.relief.pitch', relief.pitch, PLAN_RANGES.reliefPitch, 'm');
  }
  checkOneOf('panel.use', plan.panel.use, USES);
  checkOneOf('panel.history.coat', plan.panel.history.coat, OLD_COATS);
  checkOneOf('panel.history.age', plan.panel.history.age, COAT_AGES);
  if (plan.bareWanted !== undefined) checkRange('bareWanted', plan.bareWanted, PLAN_RANGES.share, '');
  checkWhole('seed', plan.seed, PLAN_RANGES.seed);
  checkWhole('steps', plan.steps.length, PLAN_RANGES.steps);
  checkWhole('layers', plan.steps.filter(laysLayer).length, PLAN_RANGES.layers);
  checkWhole('air.samples', plan.air.length, PLAN_RANGES.airSamples);
  if (plan.work !== undefined) checkWork(plan.work);
  plan.steps.forEach((step, i) => checkStep(step, `steps[${i}]`, media));
  return media;
}
