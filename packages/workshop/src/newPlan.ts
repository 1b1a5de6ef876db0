import {
  type Finish,
  type Look,
  type Part,
  type Plan,
  PLAN_FORMAT,
  PLAN_VERSION,
  type PlanStep,
  type TimingFile,
  type Wants,
} from '@zaffet/contract';
import { type Facing } from '@zaffet/core/piece';
import { when } from './create';
import { SCHOOL_STEPS, type School } from './schools';

export const NO_WANTS: Wants = { spacingMm: null, openingMm: null, chips: null, worn: null, under: null };
export const NO_LOOK: Look = {
  ...NO_WANTS,
  zones: {},
  shows: {},
  glossUnits: null,
  natural: null,
  degree: 'keep',
};

/** Id of what most parts are turned with: the piece itself. */
export const BODY = 'piece';
export const NO_TIMING: TimingFile = {
  deadlineAt: null,
  backward: false,
  prepares: true,
  pins: [],
  deliveries: [],
  order: [],
};

/** A panel of old varnish, scuffed, as most pieces that are painted over. */
export function newPart(
  id: string,
  name: string,
  size: { readonly widthMm: number; readonly heightMm: number },
  finish: string,
  facing: Facing = 'loose',
): Part {
  return {
    id,
    name,
    ...size,
    oval: false,
    facing,
    body: facing === 'loose' ? null : BODY,
    substrate: 'scuffed',
    ground: { colour: null, grain: 'along' },
    relief: null,
    history: { handled: true, tannin: false, coat: 'varnish', age: 'years', condition: 'sound' },
    moisture: null,
    fittings: [],
    prepared: [],
    unneeded: [],
    zones: [],
    finish,
    maps: {},
    flat: true,
    use: 'display',
  };
}

/** A piece of parts that are turned together, but for those that lie by themselves. */
export const bodied = (name: string, parts: readonly Part[]): Plan['piece'] => ({
  name,
  bodies: parts.some(({ body }) => body === BODY) ? [{ id: BODY, name: name.trim() || 'Piece' }] : [],
  parts,
});

export const newFinish = (id: string, name: string, steps: readonly PlanStep[]): Finish => ({
  id,
  name,
  whatIfOf: null,
  steps,
  look: NO_LOOK,
});

/** A new plan of a school, on one panel where no piece is told: what lies below, what makes it crack, chip or come off, what goes over it. */
export function newPlan(
  school: School,
  name: string,
  seed: number,
  startsAt: string,
  nextId: () => string,
  piece?: { readonly name: string; readonly parts: (finish: string) => readonly Part[] },
  work: Plan['work'] = null,
): Plan {
  const part = nextId();
  const steps = SCHOOL_STEPS[school](nextId, when('recoat'));
  const finish = nextId();
  const panel = {
    name,
    bodies: [],
    parts: [newPart(part, 'Panel', { widthMm: 600, heightMm: 400 }, finish)],
  };
  return {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    name,
    seed,
    startsAt,
    piece: piece === undefined ? panel : bodied(piece.name, piece.parts(finish)),
    finishes: [newFinish(finish, 'Finish', steps)],
    palette: [],
    air: { origin: 'told', temperatureC: 21, humidity: 0.5, draughtMS: 0.1, altitudeM: 0, later: [] },
    work,
    timing: NO_TIMING,
    media: [],
    prices: {},
  };
}
