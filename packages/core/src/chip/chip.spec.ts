import { boundaryBond, type Boundary, chipShare } from './chip';
import { adhesionClass, adhesionGrade, flakeSizeClass, flakingClass } from './ratings';

const sealed: Boundary = { bond: 16, baseBond: 0.62, bonding: 0, closed: 1, cycles: 0, lumps: false };

describe('a boundary', () => {
  it('is easiest to part while the sealer is tacky: neither wet nor dry', () => {
    const bonds = [0, 0.05, 0.2, 0.45, 0.7, 1].map((closed) => boundaryBond({ ...sealed, closed }));
    const least = Math.min(...bonds);
    expect(least).toBe(bonds[3]!);
    expect(bonds[0]!).toBeGreaterThan(bonds[1]!);
    expect(bonds[5]!).toBeGreaterThan(3 * least);
  });

  it('holds better with additive, worse with lumps and every wetting', () => {
    expect(boundaryBond({ ...sealed, bonding: 1 })).toBeCloseTo(6 * boundaryBond(sealed), 6);
    expect(boundaryBond({ ...sealed, lumps: true })).toBeLessThan(boundaryBond(sealed));
    expect(boundaryBond({ ...sealed, cycles: 2 })).toBeLessThan(boundaryBond({ ...sealed, cycles: 1 }));
  });

  it('lets go smoothly: from 10 to 90 % over at least a factor of three in drive', () => {
    let low = 0;
    let high = 0;
    for (let drive = 0.01; drive < 100; drive *= 1.02) {
      if (low === 0 && chipShare(drive, 1) >= 0.1) low = drive;
      if (high === 0 && chipShare(drive, 1) >= 0.9) high = drive;
    }
    expect(high / low).toBeGreaterThan(3);
    expect(chipShare(0, 1)).toBe(0);
    expect(chipShare(1, 0.4)).toBeCloseTo(0.2, 6);
  });
});

describe('published ratings', () => {
  it('follow ISO 4628-5 for flaking: 0.1, 0.3, 1, 3 and 15 % are classes 1 to 5 (from memory)', () => {
    expect([0, 0.001, 0.003, 0.01, 0.03, 0.15, 0.6].map(flakingClass)).toEqual([0, 1, 2, 3, 4, 5, 5]);
    expect([0.0005, 0.002, 0.008, 0.02, 0.05].map(flakeSizeClass)).toEqual([1, 2, 3, 4, 5]);
  });

  it('follow ISO 2409 and ASTM D3359 B for the cross-cut (from memory)', () => {
    expect([0, 0.04, 0.1, 0.3, 0.5, 0.8].map(adhesionClass)).toEqual([0, 1, 2, 3, 4, 5]);
    expect([0, 0.04, 0.1, 0.3, 0.5, 0.8].map(adhesionGrade)).toEqual(['5B', '4B', '3B', '2B', '1B', '0B']);
  });
});
