import { type DryingAir, GAS_CONSTANT } from '../air';
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
const STEP_SHARE = 0.07;
/** Longest drying followed [s]. */
export const HORIZON = 14 * 86400;
const MAX_STEPS = 4000;
const QUARTER_PI_SQUARED = Math.PI ** 2 / 4;

/** Water share, of the whole film's volume, under which the coat is too stiff to be drawn into what lies below. */
const STIFF = 0.6;

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
 * Explicit midpoint rule with steps of 7 % of the water still to be lost; steps end at changes of the air, so no
 * change is smeared. Kernel: its input was checked by `forecast`.
 *
 * @returns the curve, with the reason it ended
 * @remarks Water at touch-dry within 0.1 % of the coat's first water against the odex package (dry.spec.ts).
 */
export function dryFilm(input: FilmInput): DryingCurve {
  const { medium, ground, air, laidAt } = input;
  const solidsShare = medium.volumeSolids / (1 + input.dilution);
  const s = solidsShare * input.wetUm;
  const w0 = input.wetUm - s;
  const below = ground.kind === 'layer' ? ground : null;
  const sb = below?.solidsUm ?? 0;
  const suction = below?.medium.suctionUm ?? (ground.kind === 'substrate' ? ground.substrate.suctionUm : 0);
  const capacity = below
    ? below.medium.suctionCapacity * sb
    : ground.kind === 'substrate'
      ? ground.substrate.capacityUm
      : 0;

  let size = 128;
  let time = new Float64Array(size);
  let water = new Float64Array(size);
  let waterBelow = new Float64Array(size);
  let evaporated = new Float64Array(size);

  let w = w0;
  let b = below?.waterUm ?? 0;
  let u = ground.kind === 'substrate' ? ground.takenUpUm : 0;
  let e = 0;
  let t = 0;
  let count = 0;
  let iAir = indexAt(air, laidAt);

  // Rates at a state, written to these variables: a small array per step would be slower.
  let rateW = 0;
  let rateB = 0;
  let rateU = 0;
  let rateE = 0;
  let weq = 0;
  let beq = 0;
  let arr = 1;
  let freeRate = 0;

  const useAir = (sample: DryingAir): void => {
    freeRate = sample.evaporation * 1e6;
    arr = arrhenius(DIFFUSION_ACTIVATION, sample.temperature);
    weq = s * balanceWater(medium.boundWater, sample.humidity);
    beq = below ? sb * balanceWater(below.medium.boundWater, sample.humidity) : 0;
  };
  const rates = (wNow: number, bNow: number, uNow: number): void => {
    const total = wNow + s;
    const phi = wNow / total;
    const diffusivity = medium.diffusivityUm2S * Math.exp(medium.diffusivityExponent * phi) * arr;
    const surplus = wNow - weq;
    const diffusive = surplus > 0 ? (QUARTER_PI_SQUARED * diffusivity * surplus) / (total * total) : 0;
    const toAir = diffusive > 0 ? (freeRate * diffusive) / (freeRate + diffusive) : 0;
    let soft = (phi - STIFF * medium.gelWater) / ((1 - STIFF) * medium.gelWater);
    soft = soft < 0 ? 0 : soft > 1 ? 1 : soft;
    rateU = 0;
    if (suction > 0 && capacity > uNow && soft > 0) {
      const pull = suction * suction * (below ? arr : 1);
      rateU = (pull / (2 * (uNow + suction))) * (1 - uNow / capacity) * soft;
    }
    let release = 0;
    if (below && bNow > beq && soft < 1) {
      const thickB = sb + bNow;
      const diffusivityB =
        below.medium.diffusivityUm2S * Math.exp((below.medium.diffusivityExponent * bNow) / thickB) * arr;
      release =
        (QUARTER_PI_SQUARED * (bNow - beq) * (1 - soft)) /
        ((total / diffusivity + thickB / diffusivityB) * (total + thickB));
      const spare = freeRate - toAir;
      if (release > spare) release = spare;
    }
    rateW = -toAir - rateU;
    rateB = (below ? rateU : 0) - release;
    rateE = toAir + release;
  };
  const record = (): void => {
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
  };

  useAir(air[iAir]!);
  record();
  const end = Math.min(input.coveredAt - laidAt, HORIZON);
  let ended: DryingCurve['ended'] = 'horizon';
  for (let step = 0; step < MAX_STEPS; step++) {
    if (t >= end) {
      ended = input.coveredAt - laidAt <= HORIZON ? 'covered' : 'horizon';
      break;
    }
    if (w <= medium.throughWater * s && (!below || b <= below.medium.throughWater * sb)) {
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
    // The slack of 1 % of the solids lets the step grow near balance; half a decay time keeps the rule stable.
    let h = end - t;
    if (rateW < 0 && restW > 0) {
      h = Math.min(h, (STEP_SHARE * (restW + 0.01 * s)) / -rateW, (0.5 * restW) / -rateW);
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
    // Projection: water never falls past its balance, whatever the step.
    w = Math.max(w + h * rateW, Math.min(w, weq));
    b = Math.max(b + h * rateB, Math.min(b, beq));
    u += h * rateU;
    e += h * rateE;
    t += h;
    record();
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

function indexAt(air: readonly DryingAir[], moment: number): number {
  let i = 0;
  while (i < air.length - 1 && air[i]!.until <= moment) i++;
  return i;
}

function grown(array: Float64Array, size: number): Float64Array<ArrayBuffer> {
  const next = new Float64Array(size);
  next.set(array);
  return next;
}
