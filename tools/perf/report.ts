/** One figure of a run, as printed: a JSON line. `reference` was measured in the same run. */
export interface PerfLine {
  readonly name: string;
  readonly median: number;
  readonly unit: string;
  readonly reference: number;
  readonly ratio: number;
  readonly runs: number;
  readonly note: string;
}

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const mid = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[mid]! : 0.5 * (sorted[mid - 1]! + sorted[mid]!);
};

const rounded = (value: number): number => Number(value.toPrecision(4));

/** Median times of two functions [ms], run in turns so that a noisy machine is noisy for both. */
export function race(
  runs: number,
  subject: () => void,
  reference: () => void,
): { subject: number; reference: number } {
  const times: [number[], number[]] = [[], []];
  for (let i = 0; i < runs; i++) {
    [subject, reference].forEach((run, k) => {
      const start = performance.now();
      run();
      times[k]!.push(performance.now() - start);
    });
  }
  return { subject: median(times[0]), reference: median(times[1]) };
}

export function line(
  name: string,
  unit: string,
  value: number,
  reference: number,
  runs: number,
  note: string,
): PerfLine {
  return {
    name,
    median: rounded(value),
    unit,
    reference: rounded(reference),
    ratio: rounded(value / reference),
    runs,
    note,
  };
}
