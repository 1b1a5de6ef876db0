import { isFilmStep, type LogEntry, VERDICT_TIMES, type UnitSystem } from '@zaffet/contract';
import { mmToMetres, celsiusToKelvin } from '@zaffet/core/units';
import { entryOf, type Run, SCHOOLS, type School, stepsDone } from '@zaffet/workshop';
import { FATE_WORDS, VERDICT_WORDS } from './bench';
import { lengthText } from './calibration';
import { figures, perCent, celsius } from './format';
import { mediumName, stepTitle } from './names';

/** Everything that was said in a run, a line each: what the log is searched through. */
export function logText(runId: string, run: Run): string {
  const { plan, notes, photos, verdicts, details } = run;
  const entry = entryOf(runId, run);
  const steps = stepsDone(run);
  const told = VERDICT_TIMES.flatMap((when) => verdicts[when] ?? []);
  const lines = [
    plan.name,
    plan.piece.name,
    ...entry.parts,
    ...plan.finishes.map(({ name }) => name),
    ...entry.schools.map((key) => SCHOOLS[key as School]),
    ...steps.map((step) => stepTitle(step, plan.media)),
    ...steps.filter(isFilmStep).map((step) => `${mediumName(step.medium, plan.media)} ${step.colourName}`),
    ...Object.values(run.steps).flatMap(({ skipped }) => skipped ?? []),
    ...notes.map(({ text }) => text),
    ...photos.map(({ text }) => text),
    ...told.flatMap(({ verdict, text }) => [verdict === null ? '' : VERDICT_WORDS[verdict], text]),
    details?.forWhom ?? '',
    details?.fate == null ? '' : FATE_WORDS[details.fate],
  ];
  return [...new Set(lines.map((line) => line.trim()).filter((line) => line !== ''))].join('\n');
}

/** A smaller share nobody sees. */
const SEEN = 0.005;

/** What came out, in a line; empty where nobody measured. */
export function entryFigures({ spacingMm, openingMm, chipped, worn }: LogEntry, units: UnitSystem): string {
  const length = (mm: number): string => lengthText(mmToMetres(mm), units);
  return [
    ...(spacingMm === null ? [] : [`cracks ${length(spacingMm)} apart`]),
    ...(openingMm === null ? [] : [`${length(openingMm)} open`]),
    ...(chipped === null || chipped < SEEN ? [] : [`${perCent(chipped)} chipped`]),
    ...(worn === null || worn < SEEN ? [] : [`${perCent(worn)} worn`]),
  ].join(', ');
}

/** Made in what air, and in how much work; empty where nobody said. */
export const entryMade = ({ temperatureC, humidity, hours }: LogEntry, units: UnitSystem): string =>
  [
    ...(temperatureC === null ? [] : [celsius(celsiusToKelvin(temperatureC), units)]),
    ...(humidity === null ? [] : [`${perCent(humidity)} humid`]),
    ...(hours === null ? [] : [`${figures(hours)} h by hand`]),
  ].join(', ');
