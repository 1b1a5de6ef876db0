import { exactCos, exactExp, exactLn, exactSin } from '../../numeric/exact';
import { noiseAt, type Octave } from '../../numeric/noise';
import { NUCLEATION } from '../constants';
import { findFlaws, type Flaws } from './flaws';
import { Fan } from './fan';
import { grownField } from './grown';
import { LocalFilm } from './localFilm';
import { openFurther } from './opening';
import { pathOctaves } from './octaves';
import { NONE, SEGMENT_STRIDE, Segments } from './segments';
import { birthPull, edgePull, frictionFactor, stressShare } from './shearLag';
import { strokeMap, type StrokeMap, THICKEST } from './strokes';
import { newTip, type Tip } from './tip';
import { type CrackField, type FieldInput } from './types';

/*
 * Sequential growth of cracks in a drying film. There is no stress grid: at a tip or a flaw the stress follows from
 * the distances to the nearest free surfaces, found by rays, put into the one-dimensional shear-lag solution
 * (shearLag.ts); its second harmonic over directions gives the opening direction, its energy decides whether the
 * tip runs. The film is loaded in small ratios of stress over strength, so that more shrinkage only appends events:
 * the pattern at half time is a true part of the pattern at the end.
 *
 * Lengths in mm; stress in units of the final uncracked stress. Only + − × ÷ √ and own series are used, so that the
 * same seed grows the same field on every machine.
 */

const FIRST_LEVEL = 0.3;
const MAX_STEPS_PER_LEVEL = 48;
const ALTERNATE = 4;
const OPENING_CHECKPOINTS = 5;
/** Scatter of the path's toughness. */
const PATH_SCATTER = 0.3;
const MEANDER = 0.5;
/** Weight of a flaw's own random axis, which decides where the stress has no direction. */
const FLAW_AXIS = 0.12;
const SITE_DIRECTIONS = 4;
/** Steps are not made shorter than this share of what suits the mean film. */
const FINEST = 0.4;

interface Quality {
  readonly directions: number;
  readonly stepFactor: number;
  readonly levelFactor: number;
  readonly flawDensity: number;
}

const QUALITY: Readonly<Record<FieldInput['quality'], Quality>> = {
  full: { directions: 12, stepFactor: 1, levelFactor: 1.02, flawDensity: 5 },
  coarse: { directions: 6, stepFactor: 2, levelFactor: 1.05, flawDensity: 3 },
};

/**
 * Grows the cracks of one film, level by level. Call `step()` until it returns false, then `result()`; a caller that
 * must stay responsive pauses between steps, one that has a newer plan simply stops calling.
 */
export class Growth {
  private readonly input: FieldInput;
  private readonly segments: Segments;
  private readonly map: StrokeMap;
  private readonly quality: Quality;
  private readonly stepMm: number;
  private readonly spacingMm: number;
  private readonly pathScatter: number;
  private readonly flawAxis: number;
  private readonly octaves: Octave[];
  private readonly fan: Fan;
  private readonly film: LocalFilm;
  private readonly finalRatio: number;
  private readonly firstLevel: number;
  private readonly levels: number;
  private level = 0;
  private checkpoint = 1;
  private load = 0;
  private readonly tips: Tip[] = [];
  private crackCount = 0;
  private joined = 0;
  private readonly angles: number[] = [];
  private readonly flaws: Flaws;
  /** Share of the final stress below which a flaw cannot start a crack, as last worked out. */
  private readonly siteBound: Float64Array;
  private readonly noise = { value: 0, dx: 0, dy: 0 };
  private readonly siteSeen = new Float64Array(SITE_DIRECTIONS);

  constructor(input: FieldInput) {
    this.input = input;
    this.quality = QUALITY[input.quality];
    // About the mean spacing: a friction-held film is spaced by its slip, an elastic one by its pull length.
    const slipSpacing = 1.4 * input.strengthRatio * input.slipNumber;
    this.spacingMm = input.pullLengthMm * Math.max(1.7, slipSpacing);
    this.map = strokeMap(input, this.spacingMm);
    // Steps suit the finest web anywhere on the panel, within reason.
    const finest = Math.max(FINEST, this.map.leastPull);
    this.stepMm = 0.12 * this.spacingMm * finest * this.quality.stepFactor;
    const cell = 2.05 * this.stepMm;
    this.segments = new Segments(input, cell);
    this.pathScatter = PATH_SCATTER * input.scatter;
    this.flawAxis = FLAW_AXIS * input.scatter;
    this.octaves = pathOctaves(0.45, input.seed);

    this.fan = new Fan(this.quality.directions);
    this.film = new LocalFilm(input, this.map, this.stepMm);

    this.finalRatio = 1 / input.strengthRatio;
    this.firstLevel = FIRST_LEVEL / this.map.greatestStrain;
    this.levels =
      this.finalRatio <= this.firstLevel
        ? 0
        : Math.floor(exactLn(this.finalRatio / this.firstLevel) / exactLn(this.quality.levelFactor)) + 2;

    this.flaws = findFlaws(
      input,
      this.quality.flawDensity,
      this.spacingMm,
      0.25 * this.stepMm,
      this.octaves,
      this.pathScatter,
      finest,
      (x, y) => {
        this.film.at(x, y);
        return this.film.pullRatio;
      },
    );
    // No flaw starts a crack before it would in a film nobody else relieves, across the weakest stroke, at the
    // thickest spot: a bound that spares asking them all from the first level on.
    const weakest = 1 - (0.5 * input.strokeContrast) / (1 - 0.5 * input.strokeContrast);
    const { greatestPull, greatestStrain } = this.map;
    const thickest = input.pullLengthMm * greatestPull * Math.sqrt(THICKEST);
    const strain = input.strain * greatestStrain;
    const forEnergy = Math.sqrt(
      (NUCLEATION * input.fractureLengthMm * weakest) /
        (strain * strain * thickest * frictionFactor(input.slipNumber)),
    );
    this.siteBound = this.flaws.strength.map((strength) =>
      Math.max(forEnergy, (strength * weakest) / (this.finalRatio * greatestStrain)),
    );
  }

  /** Share of the loading done, 0 … 1. */
  get progress(): number {
    return this.levels === 0 ? 1 : this.level / this.levels;
  }

  /** Loads the film to its next level; false when the last one is done. */
  step(): boolean {
    if (this.level >= this.levels) return false;
    const ratio =
      this.level === this.levels - 1
        ? this.finalRatio
        : this.firstLevel * exactExp(this.level * exactLn(this.quality.levelFactor));
    this.load = Math.min(1, ratio / this.finalRatio);
    this.runArrested();
    this.nucleate();
    this.level++;
    // Nothing is left on its way at the end.
    while (this.level === this.levels && this.tips.some((tip) => tip.state === 'running')) this.runArrested();
    while (
      this.checkpoint <= OPENING_CHECKPOINTS &&
      this.load >= this.checkpoint / OPENING_CHECKPOINTS - 1e-12
    ) {
      openFurther(this.segments, this.film, this.input.slipNumber, this.stepMm, this.load);
      this.checkpoint++;
    }
    return this.level < this.levels;
  }

  /** The field as grown so far. */
  result(): CrackField {
    return grownField(this.input, this.segments, this.tips, this.stepMm, {
      crackCount: this.crackCount,
      joinedTips: this.joined,
      junctionAngles: Float32Array.from(this.angles),
    });
  }

  /** Stress harmonics from what a tip remembers, after refreshing a third of the directions. */
  private lookFromTip(tip: Tip, x: number, y: number): void {
    const { fan, film } = this;
    const k = fan.directions;
    const all = tip.phase < 0;
    const from = all ? 0 : tip.phase;
    tip.phase = all ? 0 : (tip.phase + 1) % 3;
    const reach = (3 + Math.max(0, this.input.slipNumber - 1)) * film.pull;
    const signedArc = tip.sign * tip.arc;
    for (let i = from; i < k; i += all ? 1 : 3) {
      const a = this.segments.ray(x, y, fan.cos[i]!, fan.sin[i]!, reach, tip.crack, signedArc, film.exclude);
      const b = this.segments.ray(
        x,
        y,
        -fan.cos[i]!,
        -fan.sin[i]!,
        reach,
        tip.crack,
        signedArc,
        film.exclude,
      );
      tip.seen[i] = stressShare(a / film.pull, b / film.pull, this.input.slipNumber);
    }
    fan.weigh(tip.seen, film);
  }

  private runArrested(): void {
    for (const tip of this.tips) {
      if (tip.state === 'arrested' && tip.requiredLoad <= this.load) {
        tip.state = 'running';
        this.run(tip, MAX_STEPS_PER_LEVEL);
      } else if (tip.state === 'running') this.run(tip, MAX_STEPS_PER_LEVEL);
    }
  }

  private nucleate(): void {
    const { input, segments, fan, film } = this;
    const n = this.flaws.x.length;
    for (let i = 0; i < n; i++) {
      if (this.siteBound[i]! > this.load) continue;
      const x = this.flaws.x[i]!;
      const y = this.flaws.y[i]!;
      film.at(x, y);
      const reach = (5 + Math.max(0, input.slipNumber - 1)) * film.pull;
      // Four directions from the finer fan.
      const stride = this.quality.directions / SITE_DIRECTIONS;
      for (let d = 0; d < SITE_DIRECTIONS; d++) {
        const j = Math.floor(d * stride);
        const a = segments.ray(x, y, fan.cos[j]!, fan.sin[j]!, reach, -1, 0, 0);
        const b = segments.ray(x, y, -fan.cos[j]!, -fan.sin[j]!, reach, -1, 0, 0);
        this.siteSeen[d] = stressShare(a / film.pull, b / film.pull, input.slipNumber);
      }
      fan.weigh(this.siteSeen, film, stride);
      const tA = fan.a + this.flawAxis * exactCos(2 * this.flaws.axis[i]!);
      const tB = fan.b + this.flawAxis * exactSin(2 * this.flaws.axis[i]!);
      const m = Math.sqrt(tA * tA + tB * tB);
      const c2 = m > 0 ? tA / m : 1;
      const s2 = m > 0 ? tB / m : 0;
      const nx = Math.sqrt(0.5 * (1 + c2));
      const ny = (s2 < 0 ? -1 : 1) * Math.sqrt(Math.max(0, 0.5 * (1 - c2)));
      const a = segments.ray(x, y, nx, ny, reach, -1, 0, 0) / film.pull;
      const b = segments.ray(x, y, -nx, -ny, reach, -1, 0, 0) / film.pull;
      const weak = film.weakness(c2, s2);
      const stress = (stressShare(a, b, input.slipNumber) * film.strainRatio) / weak;
      const energy =
        film.strain *
        film.strain *
        film.pull *
        frictionFactor(input.slipNumber) *
        birthPull(a, b, input.slipNumber);
      const forStrength = stress > 1e-6 ? this.flaws.strength[i]! / (stress * this.finalRatio) : 2;
      const forEnergy = energy > 1e-12 ? Math.sqrt((NUCLEATION * input.fractureLengthMm * weak) / energy) : 2;
      const required = forStrength > forEnergy ? forStrength : forEnergy;
      if (required > this.load) {
        this.siteBound[i] = required;
        continue;
      }
      this.siteBound[i] = 2;
      this.start(x, y, nx, ny, a, b);
    }
  }

  /** A new crack with its normal (nx, ny): two tips running apart, grown in turns. */
  private start(x: number, y: number, nx: number, ny: number, a: number, b: number): void {
    const crack = this.crackCount++;
    const { directions } = this.quality;
    const one = newTip(crack, 1, x, y, nx, ny, a, b, directions);
    const other = newTip(crack, -1, x, y, nx, ny, a, b, directions);
    this.tips.push(one, other);
    for (let grown = 0; grown < MAX_STEPS_PER_LEVEL; grown += ALTERNATE) {
      if (one.state === 'running') this.run(one, ALTERNATE);
      if (other.state === 'running') this.run(other, ALTERNATE);
      if (one.state !== 'running' && other.state !== 'running') break;
    }
  }

  private run(tip: Tip, steps: number): void {
    for (let i = 0; i < steps && tip.state === 'running'; i++) this.advance(tip, i);
  }

  private advance(tip: Tip, turnIndex: number): void {
    const { input, segments, fan, film, stepMm: ds } = this;
    const ahead = 0.6 * ds;
    const lx = clamp(tip.x + tip.hx * ahead, input.widthMm);
    const ly = clamp(tip.y + tip.hy * ahead, input.heightMm);
    film.at(lx, ly);
    // Direction: turn towards the plane across the greatest pull, with inertia where the stress has no direction.
    this.lookFromTip(tip, lx, ly);
    const m = Math.sqrt(fan.a * fan.a + fan.b * fan.b);
    const { spacingMm } = this;
    noiseAt(
      this.octaves,
      (lx - 0.5 * input.widthMm) / spacingMm,
      (ly - 0.5 * input.heightMm) / spacingMm,
      this.noise,
    );
    let turn =
      (-1.2 * this.pathScatter * MEANDER * ((this.noise.dx * -tip.hy + this.noise.dy * tip.hx) * ds)) /
      spacingMm;
    if (m > 1e-9 && fan.mean > 1e-9) {
      const c2 = fan.a / m;
      const nx = Math.sqrt(Math.max(0, 0.5 * (1 + c2)));
      const ny = (fan.b < 0 ? -1 : 1) * Math.sqrt(Math.max(0, 0.5 * (1 - c2)));
      let tx = -ny;
      let ty = nx;
      let dot = tx * tip.hx + ty * tip.hy;
      if (dot < 0) {
        tx = -tx;
        ty = -ty;
        dot = -dot;
      }
      const cross = tip.hx * ty - tip.hy * tx;
      turn += (cross * Math.min(1, dot + 0.15) * Math.min(1, (1.6 * m) / fan.mean) * ds) / (0.45 * film.pull);
    }
    const most = ds / (0.22 * this.spacingMm * (film.pull / input.pullLengthMm));
    turn = turn > most ? most : turn < -most ? -most : turn;
    const q = 0.25 * turn * turn;
    const cosT = (1 - q) / (1 + q);
    const sinT = turn / (1 + q);
    const hx = tip.hx * cosT - tip.hy * sinT;
    const hy = tip.hx * sinT + tip.hy * cosT;

    // Energy: every other step, and at the first, with exact rays across the new heading.
    const signedArc = tip.sign * tip.arc;
    if ((turnIndex & 1) === 0) {
      const reach = (5 + Math.max(0, input.slipNumber - 1)) * film.pull;
      tip.energyLeft =
        segments.ray(tip.x, tip.y, -hy, hx, reach, tip.crack, signedArc, film.exclude) / film.pull;
      tip.energyRight =
        segments.ray(tip.x, tip.y, hy, -hx, reach, tip.crack, signedArc, film.exclude) / film.pull;
    }
    const born = birthPull(tip.energyLeft, tip.energyRight, input.slipNumber);
    const c2 = hy * hy - hx * hx;
    const s2 = -2 * hx * hy;
    const energy = (this.load * film.strain) ** 2 * film.pull * frictionFactor(input.slipNumber) * born;
    const tough =
      input.fractureLengthMm *
      Math.max(0.2, 1 + 0.6 * this.pathScatter * this.noise.value) *
      film.weakness(c2, s2);
    if (energy < tough) {
      tip.state = 'arrested';
      tip.requiredLoad = energy > 1e-15 ? this.load * Math.sqrt(tough / energy) : 2;
      return;
    }

    tip.hx = hx;
    tip.hy = hy;
    let nextX = tip.x + hx * ds;
    let nextY = tip.y + hy * ds;
    const clear = segments.ray(tip.x, tip.y, hx, hy, 1.6 * ds, tip.crack, signedArc, film.exclude);
    const met = segments.hit;
    if (clear < NONE && met >= 0) {
      nextX = tip.x + hx * clear;
      nextY = tip.y + hy * clear;
      tip.state = 'done';
      this.joined++;
      const at = met * SEGMENT_STRIDE;
      const ex = segments.data[at + 2]!;
      const ey = segments.data[at + 3]!;
      const length = Math.sqrt(ex * ex + ey * ey);
      const cross = Math.abs(hx * ey - hy * ex) / (length > 0 ? length : 1);
      this.angles.push(Math.asin(Math.min(1, cross)));
    } else {
      const out = segments.toEdge(tip.x, tip.y, hx, hy);
      if (out <= 1.6 * ds) {
        nextX = tip.x + hx * out;
        nextY = tip.y + hy * out;
        tip.state = 'done';
        this.joined++;
      }
    }
    tip.arc += ds;
    const i = segments.add(
      tip.x,
      tip.y,
      nextX,
      nextY,
      tip.crack,
      tip.sign * (tip.arc - 0.5 * ds),
      tip.last,
      this.load,
    );
    const pull =
      film.pull *
      this.load *
      (edgePull(tip.energyLeft, input.slipNumber) + edgePull(tip.energyRight, input.slipNumber));
    segments.width[i] = 2 * film.strain * this.load * film.pull * born;
    segments.pull[i] = pull;
    tip.last = i;
    tip.x = nextX;
    tip.y = nextY;
  }
}

function clamp(x: number, max: number): number {
  return x < 0 ? 0 : x > max ? max : x;
}
