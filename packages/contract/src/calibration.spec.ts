import { parseCalibration } from './calibration/schema';
import { type CalibrationFile } from './calibration/types';
import { ZaffetError } from './errors';

const FILE: CalibrationFile = {
  learned: {
    keys: ['air', 'slip:pva'],
    mean: [-0.2, 0.3],
    covariance: [
      [0.01, -0.002],
      [-0.002, 0.04],
    ],
    centre: [{ top: 'latex', below: 'pva', films: [0.00004, 0.00007], humidity: 0.5, temperature: 293 }],
  },
  runs: ['run-1'],
  leftOut: ['run-1 part-2'],
};
const refusals = (value: unknown): string[] => {
  try {
    parseCalibration(value);
    return [];
  } catch (error) {
    if (!(error instanceof ZaffetError)) throw error;
    return error.fault.fields.map(({ path }) => path);
  }
};

describe('a calibration', () => {
  it('is read as it was written, and taken back as nothing', () => {
    expect(parseCalibration(FILE)).toEqual(FILE);
    const none = { learned: null, runs: [], leftOut: [] };
    expect(parseCalibration(none)).toEqual(none);
  });

  it('is refused where a factor is none, too far off, or without its row', () => {
    const { learned } = FILE;
    expect(refusals({ ...FILE, learned: { ...learned, keys: ['air', 'magic:pva'] } })).toEqual([
      'learned.keys.1',
    ]);
    expect(refusals({ ...FILE, learned: { ...learned, mean: [-0.2, 4] } })).toEqual(['learned.slip:pva']);
    expect(refusals({ ...FILE, learned: { ...learned, mean: [0.1] } })[0]).toContain('learned');
    expect(refusals({ ...FILE, learned: { ...learned, covariance: [[1]] } })[0]).toContain('learned');
    expect(refusals({ ...FILE, runs: 'all' })).toEqual(['runs']);
    expect(refusals(null).length).toBe(1);
  });
});
