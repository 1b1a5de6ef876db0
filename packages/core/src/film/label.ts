import { dryingAir, USUAL_PLATE } from '../air';
import { type Medium, type MediumParameter, PARAMETERS, substrate } from '../media';
import { celsiusToKelvin } from '../units';
import { dryFilm } from './dry';
import { oxidised, stateTimes } from './states';

/** How soon a medium is touch-dry and takes its next coat, as tins say it: laid as usual, 21 °C, 50 %, nothing drinks [s]. */
export interface LabelTimes {
  readonly touch: number;
  readonly recoat: number;
}

export const LABEL_AIR = { temperature: celsiusToKelvin(21), humidity: 0.5, speed: 0.1, altitude: 0 };
const AIR = dryingAir([{ from: 0, ...LABEL_AIR }], USUAL_PLATE);

/** What the label of a medium would say; null for what never gets there. */
export function labelTimes(medium: Medium): LabelTimes | null {
  if (medium.carrier === 'none') return null;
  const curve = dryFilm({
    medium,
    wetUm: medium.wetFilmUm,
    dilution: 0,
    ground: { kind: 'substrate', substrate: substrate('sealed'), takenUpUm: 0 },
    air: AIR,
    laidAt: 0,
    coveredAt: Infinity,
  });
  const { touch, recoat } = stateTimes(curve, LABEL_AIR.temperature);
  return touch === null || recoat === null ? null : { touch, recoat };
}

/** A value between two that makes a rising or falling time what it shall be; the nearer end where none does. */
function fitted(low: number, high: number, wanted: number, timeAt: (value: number) => number): number {
  const rises = timeAt(high) > timeAt(low);
  let [a, b] = [Math.log(low), Math.log(high)];
  for (let step = 0; step < 40; step++) {
    const mid = 0.5 * (a + b);
    if (timeAt(Math.exp(mid)) < wanted === rises) a = mid;
    else b = mid;
  }
  return Math.exp(0.5 * (a + b));
}

/**
 * What of a medium must change so that it dries as its label says: its rates are fitted, provenance "from the label".
 * Films that air hardens get their hardening from both times; others their diffusion from recoat, and the water at which
 * they no longer grab from touch-dry. Times out of reach come as near as the parameters' ranges allow.
 */
export function fromLabel(medium: Medium, label: LabelTimes): Partial<Record<MediumParameter, number>> {
  const touch = Math.max(60, label.touch);
  const recoat = Math.max(touch, label.recoat);
  const told = (changes: Partial<Medium>): LabelTimes =>
    labelTimes({ ...medium, ...changes }) ?? { touch: Infinity, recoat: Infinity };
  if (medium.oxidationHours > 0) {
    const { min, max } = PARAMETERS.oxidationHours;
    const oxidationHours = fitted(
      Math.max(0.05, min),
      max,
      recoat,
      (hours) => told({ oxidationHours: hours }).recoat,
    );
    const cured = oxidised({ ...medium, oxidationHours }, touch, LABEL_AIR.temperature);
    return { oxidationHours, oxidationTouch: Math.min(0.95 * medium.oxidationRecoat, cured) };
  }
  const { min, max } = PARAMETERS.diffusivityUm2S;
  const diffusivityUm2S = fitted(min, max, recoat, (value) => told({ diffusivityUm2S: value }).recoat);
  // From what it still takes the next coat at, up to where it has just stopped flowing.
  const least = Math.max(PARAMETERS.touchWater.min, 1.02 * medium.recoatWater);
  const most = Math.min(PARAMETERS.touchWater.max, (0.95 * medium.gelWater) / (1 - medium.gelWater));
  const touchWater = fitted(
    least,
    most,
    touch,
    (value) => told({ diffusivityUm2S, touchWater: value }).touch,
  );
  return { diffusivityUm2S, touchWater };
}
