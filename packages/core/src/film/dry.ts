import { airIndexAt, type DryingAir, evaporationIn, GAS_CONSTANT } from '../air';
import { type DryingCurve, type FilmInput } from './types';

/*
 * The kernel works in µm and s (1 µm²/s = 1e-12 m²/s). State of the run:
 *   w  water in the coat,  b  water in the layer below,  u  water taken up by what lies below,  e  water evaporated.
 *
 *   air       dw/dt = −Jt,   Jt = J Jd/(J + Jd),   Jd = (π²/4) D(φ)/(w + s)² (w − weq),   D = D0 exp(B φ) · arrhenius
 *             While wet D is huge and the air decides (J); below the gel point diffusion decides, so that the time
 *             to through-dry goes with the square of the thickness. Free-volume form of D after Fujita.
 *   suction   du/dt = S²/(2(u + S·1 s)) (1 − u/capacity) soft,   until the coat has consolidated (soft → 0)
 *   release   the layer below gives water back through both films in series, limited by what the air still takes
 */

/** Activation energy of diffusion in the film and of suction [J/mol]; assumed. */
const DIFFUSION_ACTIVATION = 30000;
export const REFERENCE_TEMPERATURE = 294.15;
/** A step may use up this share of the water still to be lost. */
const STEP_SHARE = 0.085;
/** The same where the rate is nearly constant. */
const MOST_SHARE = 0.16;
/** Longest drying followed [s]. */
export const HORIZON = 14 * 86400;
const MAX_STEPS = 4000;
const QUARTER_PI_SQUARED = Math.PI ** 2 / 4;

/** Water share, of the whole film's volume, under which the coat is too stiff to be drawn into what lies below. */
const STIFF = 0.6;

/** Places of the rates: water of the coat, of the layer below, taken up, evaporated. */
const W = 0;
const B = 1;
const U = 2;
const E = 3;

export function arrhenius(activation: number, temperature: number): number {
  return Math.exp(-(activation / GAS_CONSTANT) * (1 / temperature - 1 / REFERENCE_TEMPERATURE));
}

/** Water a film keeps in balance with the air, per solids: bound · RH/(1.05 − RH). */
export function balanceWater(bound: number, humidity: number): number {
  return (bound * humidity) / (1.05 - humidity);
}

/**
 * Dries one coat on its ground, from laid to through-dry, covered or in balance with the air.
 *
 * Explicit midpoint rule with steps of 8.5 % of the water still to be lost, up to 16 % while the rate holds; steps end
 * at changes of the air, so no change is smeared. Kernel: its input was checked by `forecast`.
 *
 * @returns the curve, with the reason it ended
 * @remarks Water at touch-dry within 0.1 % of the coat's first water against the odex package (dry.spec.ts).
 */
export function dryFilm(input: FilmInput): DryingCurve {
  const { medium, ground, air, laidAt } = input;
  const solidsShare = medium.volumeSolids / (1 + input.dilution);
  const s = solidsShare * input.wetUm;
  const w0 = input.wetUm - s;
  const layer = ground.kind === 'layer' ? ground : null;
  // Water and solvents pass each other by: only films of one carrier exchange it.
  const below = layer !== null && layer.medium.carrier === medium.carrier ? layer : null;
  const sb = below?.solidsUm ?? 0;
  const suction = below?.medium.suctionUm ?? (ground.kind === 'substrate' ? ground.substrate.suctionUm : 0);
  const capacity = below
    ? below.medium.suctionCapacity * sb
    : ground.kind === 'substrate'
      ? ground.substrate.capacityUm
      : 0;

  // Read once: the rates below run some thousand times a plan.
  const { gelWater, diffusivityUm2S, diffusivityExponent } = medium;
  const stiffFrom = STIFF * gelWater;
  const stiffOver = (1 - STIFF) * gelWater;
  const diffusivityBelow = below?.medium.diffusivityUm2S ?? 0;
  const exponentBelow = below?.medium.diffusivityExponent ?? 0;
  const through = medium.throughWater * s;
  const throughBelow = below === null ? 0 : below.medium.throughWater * sb;

  let size = 128;
  let time = new Float64Array(size);
  let water = new Float64Array(size);
  let waterBelow = new Float64Array(size);
  let evaporated = new Float64Array(size);

  let w = w0;
  let b = layer?.waterUm ?? 0;
  let u = ground.kind === 'substrate' ? ground.takenUpUm : 0;
  let e = 0;
  let t = 0;
  let count = 0;
  let iAir = airIndexAt(air, laidAt);

  // Rates at a state, in a typed array: numbers kept by a closure would be allocated anew at every write.
  const rate = new Float64Array(4);
  let weq = 0;
  let beq = 0;
  let arr = 1;
  let freeRate = 0;

  const useAir = (sample: DryingAir): void => {
    freeRate = evaporationIn(sample, medium.carrier) * 1e6;
    // Hot air warms the film itself once little is left to evaporate: half way is taken from the wet surface on.
    arr = arrhenius(DIFFUSION_ACTIVATION, sample.jet ? warmedFilm(sample) : sample.temperature);
    weq = s * balanceWater(medium.boundWater, sample.jet ? HOT_AIR_HUMIDITY : sample.humidity);
    beq = below ? sb * balanceWater(below.medium.boundWater, sample.humidity) : 0;
  };
  const rates = (wNow: number, bNow: number, uNow: number): void => {
    const total = wNow + s;
    const phi = wNow / total;
    const diffusivity = diffusivityUm2S * Math.exp(diffusivityExponent * phi) * arr;
    const surplus = wNow - weq;
    const diffusive = surplus > 0 ? (QUARTER_PI_SQUARED * diffusivity * surplus) / (total * total) : 0;
    const toAir = diffusive > 0 ? (freeRate * diffusive) / (freeRate + diffusive) : 0;
    let soft = (phi - stiffFrom) / stiffOver;
    soft = soft < 0 ? 0 : soft > 1 ? 1 : soft;
    let rateU = 0;
    if (suction > 0 && capacity > uNow && soft > 0) {
      const pull = suction * suction * (below ? arr : 1);
      rateU = (pull / (2 * (uNow + suction))) * (1 - uNow / capacity) * soft;
    }
    let release = 0;
    if (below && bNow > beq && soft < 1) {
      const thickB = sb + bNow;
      const diffusivityB = diffusivityBelow * Math.exp((exponentBelow * bNow) / thickB) * arr;
      release =
        (QUARTER_PI_SQUARED * (bNow - beq) * (1 - soft)) /
        ((total / diffusivity + thickB / diffusivityB) * (total + thickB));
      const spare = freeRate - toAir;
      if (release > spare) release = spare;
    }
    rate[W] = -toAir - rateU;
    rate[B] = (below ? rateU : 0) - release;
    rate[U] = rateU;
    rate[E] = toAir + release;
  };
  useAir(air[iAir]!);
  const end = Math.min(input.coveredAt - laidAt, HORIZON);
  let ended: DryingCurve['ended'] = 'horizon';
  let stride: number = STEP_SHARE;
  for (let step = 0; step < MAX_STEPS; step++) {
    if (count === size) {
      size *= 2;
      time = grown(time, size);
      water = grown(water, size);
      waterBelow = grown(waterBelow, size);
      evaporated = grown(evaporated, size);
    }
    time[count] = t;
    water[count] = w;
    waterBelow[count] = b;
    evaporated[count] = e;
    count++;
    if (t >= end) {
      ended = input.coveredAt - laidAt <= HORIZON ? 'covered' : 'horizon';
      break;
    }
    if (w <= through && (!below || b <= throughBelow)) {
      ended = 'dry';
      break;
    }
    const restW = w - weq;
    const restB = below ? b - beq : 0;
    const lastAir = iAir === air.length - 1;
    if (lastAir && restW < 0.002 * s && restB <= 0.002 * sb) {
      ended = 'in-balance';
      break;
    }
    rates(w, b, u);
    const rateW = rate[W]!;
    const rateB = rate[B]!;
    const rateU = rate[U]!;
    // The slack of 1 % of the solids lets the step grow near balance; half a decay time keeps the rule stable.
    let h = end - t;
    if (rateW < 0 && restW > 0) {
      h = Math.min(h, (stride * (restW + 0.01 * s)) / -rateW, (0.5 * restW) / -rateW);
    }
    if (rateB < 0 && restB > 0) {
      h = Math.min(h, (STEP_SHARE * (restB + 0.01 * sb)) / -rateB, (0.5 * restB) / -rateB);
    }
    if (rateU > 0) h = Math.min(h, (0.25 * (u + suction)) / rateU);
    const border = air[iAir]!.until - laidAt - t;
    const atBorder = h >= border;
    if (atBorder) h = border;
    if (h < 1e-3) h = 1e-3;

    rates(Math.max(w + 0.5 * h * rateW, 0), Math.max(b + 0.5 * h * rateB, 0), u + 0.5 * h * rateU);
    const midW = rate[W]!;
    // Projection: water never falls past its balance, whatever the step.
    w = Math.max(w + h * midW, Math.min(w, weq));
    b = Math.max(b + h * rate[B]!, Math.min(b, beq));
    // A rate that hardly changes over half a step is well met by a longer one.
    const change = Math.abs(midW - rateW);
    if (change < 0.01 * -rateW) stride = Math.min(MOST_SHARE, 1.3 * stride);
    else if (change > 0.03 * -rateW) stride = STEP_SHARE;
    u += h * rate[U]!;
    e += h * rate[E]!;
    t += h;
    if (atBorder && iAir < air.length - 1) useAir(air[++iAir]!);
  }
  return {
    medium,
    ground,
    count,
    time,
    water,
    waterBelow,
    evaporated,
    solidsUm: s,
    water0Um: w0,
    solidsShare,
    ended,
  };
}

/** Relative humidity of room air heated by a tool; it hardly matters, being near nothing. */
const HOT_AIR_HUMIDITY = 0.05;
/** A drying film under a jet stays this far between its wet temperature and the softening of paint. */
const JET_WARMTH = 0.4;
const PAINT_SOFTENS = 363.15;

function warmedFilm(sample: DryingAir): number {
  return sample.surfaceTemperature + JET_WARMTH * (PAINT_SOFTENS - sample.surfaceTemperature);
}

function grown(array: Float64Array, size: number): Float64Array<ArrayBuffer> {
  const next = new Float64Array(size);
  next.set(array);
  return next;
}
