import { InputError } from '../../errors';
import { findIslands, rasterise } from '../../raster';
import {
  FILM,
  type Film,
  FINGERPRINT,
  FINGERPRINT_INPUT,
  grow,
  inputOf,
  overlap,
} from '../../testing/fields';
import { type CrackField, type FieldInput } from './types';
import { Growth } from './growth';
import { fieldInput } from './input';
import { measureField } from './measure';
import { stressShare } from './shearLag';

const figures = (input: FieldInput): ReturnType<typeof measureField> => measureField(grow(input));

/** Slope of ln spacing over ln thickness. */
function exponent(film: Film, thin: number, thick: number): number {
  const spacing = [thin, thick].map((h) => {
    const input = inputOf({ ...film, h });
    const side = 36 * input.pullLengthMm * Math.max(1, 0.6 * input.slipNumber);
    return figures({ ...input, widthMm: side, heightMm: side }).areaSpacingMm;
  });
  return Math.log(spacing[1]! / spacing[0]!) / Math.log(thick / thin);
}

/** Where cracks cross the middle of a long strip that is weak along its length only. */
function stripFragments(field: CrackField): number[] {
  const x = field.input.widthMm / 2;
  const crossings: number[] = [];
  for (let i = 0; i < field.count; i++) {
    const x0 = field.x0[i]!;
    const x1 = field.x1[i]!;
    if ((x0 - x) * (x1 - x) <= 0 && x0 !== x1) {
      crossings.push(field.y0[i]! + ((field.y1[i]! - field.y0[i]!) * (x - x0)) / (x1 - x0));
    }
  }
  crossings.sort((a, b) => a - b);
  return crossings
    .slice(1)
    .map((y, i) => y - crossings[i]!)
    .filter((gap) => gap > 0.01);
}

describe('crack field: physics', () => {
  for (const [slipNumber, widthMm, heightMm] of [
    [0, 60, 1200],
    [4, 150, 1500],
  ] as const) {
    it(`breaks an even strip into fragments no longer than shear lag allows, P ${slipNumber}`, () => {
      const input: FieldInput = {
        ...inputOf(FILM, { widthMm, heightMm, scatter: 0, strokes: 'one-way', strokeContrast: 0.5 }),
        strengthRatio: 0.8,
        slipNumber,
        fractureLengthMm: 1e-6,
      };
      // Across the strokes the film has 0.5/0.75 of its strength; along them it never breaks here.
      const strength = (0.8 * 0.5) / 0.75;
      let low = 0;
      let high = 60;
      for (let step = 0; step < 60; step++) {
        const s = 0.5 * (low + high);
        if (stressShare(s / 2, s / 2, slipNumber) < strength) low = s;
        else high = s;
      }
      const largest = low * input.pullLengthMm;
      const found = stripFragments(grow(input));
      expect(found.length).toBeGreaterThan(60);
      expect(Math.max(...found)).toBeLessThan(1.01 * largest);
      expect(Math.max(...found)).toBeGreaterThan(0.93 * largest);
      // Random sequential fragmentation: mean 0.6 … 0.75 of the largest (Kelly & Tyson 1965: 0.67 in the sliding limit).
      const mean = found.reduce((a, b) => a + b) / found.length;
      expect(mean / largest).toBeGreaterThan(0.58);
      expect(mean / largest).toBeLessThan(0.76);
    });
  }

  it('spaces with √thickness on an elastic layer', () => {
    expect(exponent({ ...FILM, stiffness: 0.02 }, 0.08, 0.32)).toBeCloseTo(0.5, 1);
  });

  it('spaces in proportion to thickness where it slides by friction', () => {
    // Groisman & Kaplan 1994, Europhys. Lett. 25: spacing proportional to thickness (from memory).
    const n = exponent({ ...FILM, stiffness: 0.5, yield: 0.02 }, 0.08, 0.32);
    expect(n).toBeGreaterThan(0.92);
    expect(n).toBeLessThan(1.08);
  });

  it('spaces in proportion to thickness on a rigid bond', () => {
    const n = exponent({ ...FILM, stiffness: Infinity, toughness: 0.002, strength: 0.9 }, 0.08, 0.32);
    expect(n).toBeGreaterThan(0.9);
    expect(n).toBeLessThan(1.06);
  });

  it('does not crack below the critical thickness of a bonded film, and does above', () => {
    // h_c = 3 Γ E/(Z s0²), Z 1.976: Hutchinson & Suo 1992 with the field's nucleation factor 3.
    const critical = (3 * FILM.toughness * FILM.modulus) / (1.976 * (FILM.modulus * FILM.strain) ** 2);
    const cracks = (share: number): number =>
      grow(
        inputOf(
          { ...FILM, h: critical * share, stiffness: Infinity, strength: 0.3 },
          { widthMm: 20, heightMm: 20 },
        ),
      ).crackCount;
    expect(cracks(0.9)).toBe(0);
    expect(cracks(0.95)).toBe(0);
    expect(cracks(1.05)).toBeGreaterThan(100);
  });

  it('halves the spacing and keeps the open area when the layer below is four times as stiff', () => {
    const soft = figures(inputOf(FILM, { widthMm: 200, heightMm: 200 }));
    const stiff = figures(
      inputOf({ ...FILM, stiffness: 4 * FILM.stiffness }, { widthMm: 200, heightMm: 200 }),
    );
    expect(soft.areaSpacingMm / stiff.areaSpacingMm).toBeGreaterThan(1.8);
    expect(soft.areaSpacingMm / stiff.areaSpacingMm).toBeLessThan(2.2);
    expect(stiff.openSum / soft.openSum).toBeGreaterThan(0.9);
    expect(stiff.openSum / soft.openSum).toBeLessThan(1.1);
  });

  it('does not crack an even film stronger than its stress', () => {
    expect(grow({ ...inputOf(FILM, { scatter: 0 }), strengthRatio: 1.05 }).count).toBe(0);
  });
});

describe('crack field: pattern', () => {
  it('follows the strokes: longer islands along them, the more the deeper they are', () => {
    const ratios = [0, 0.3, 0.6].map((strokeContrast) => {
      const f = figures(inputOf(FILM, { widthMm: 200, heightMm: 200, strokes: 'one-way', strokeContrast }));
      return f.spacingAlongMm / f.spacingAcrossMm;
    });
    expect(ratios[0]).toBeCloseTo(1, 1);
    expect(ratios[1]).toBeGreaterThan(1.1);
    expect(ratios[2]).toBeGreaterThan(1.5);
  });

  it('keeps the mean spacing whatever the strokes', () => {
    const even = figures(inputOf(FILM, { widthMm: 200, heightMm: 200 })).areaSpacingMm;
    const stroked = figures(
      inputOf(FILM, { widthMm: 200, heightMm: 200, strokes: 'one-way', strokeContrast: 0.45 }),
    ).areaSpacingMm;
    expect(stroked / even).toBeGreaterThan(0.92);
    expect(stroked / even).toBeLessThan(1.08);
  });

  it('meets older cracks nearly at right angles, and has no direction of its own', () => {
    const field = grow(inputOf(FILM, { widthMm: 300, heightMm: 300 }));
    const mean = field.junctionAngles.reduce((a, b) => a + b) / field.junctionAngles.length;
    expect((mean * 180) / Math.PI).toBeGreaterThan(72);
    const histogram = new Float64Array(12);
    for (let i = 0; i < field.count; i++) {
      const ex = field.x1[i]! - field.x0[i]!;
      const ey = field.y1[i]! - field.y0[i]!;
      const angle = (Math.atan2(ey, ex) + Math.PI) % Math.PI;
      histogram[Math.min(11, Math.floor((angle / Math.PI) * 12))]! += Math.hypot(ex, ey);
    }
    expect(Math.max(...histogram) / Math.min(...histogram)).toBeLessThan(1.5);
  });

  it('has lines of many widths', () => {
    const field = grow(inputOf(FILM));
    const mean = field.width.reduce((a, b) => a + b) / field.count;
    const spread = Math.sqrt(field.width.reduce((a, b) => a + (b - mean) ** 2, 0) / field.count);
    expect(spread / mean).toBeGreaterThan(0.25);
  });

  it('differs little in its figures from seed to seed', () => {
    const spacings = [1, 2, 3, 4, 5, 6].map((seed) => figures(inputOf(FILM, { seed })).areaSpacingMm);
    const mean = spacings.reduce((a, b) => a + b) / spacings.length;
    const spread = Math.sqrt(spacings.reduce((a, b) => a + (b - mean) ** 2, 0) / spacings.length);
    expect(spread / mean).toBeLessThan(0.04);
  });

  it('moves only a little for a small change of thickness, wherever the film stands', () => {
    // Thicknesses over a factor of 1.7, so that no rung of anything can hide between them.
    const kept: number[] = [];
    for (let k = 0; k < 10; k++) {
      const h = 0.12 * 1.06 ** k;
      for (const seed of [1, 2]) {
        kept.push(
          overlap(
            grow(inputOf({ ...FILM, h }, { seed })),
            grow(inputOf({ ...FILM, h: 1.02 * h }, { seed })),
            1,
          ),
        );
      }
    }
    const strangers = overlap(grow(inputOf(FILM, { seed: 1 })), grow(inputOf(FILM, { seed: 21 })), 1);
    expect(kept.reduce((a, b) => a + b) / kept.length).toBeGreaterThan(0.85);
    expect(Math.min(...kept)).toBeGreaterThan(strangers + 0.05);
    expect(strangers).toBeLessThan(0.6);
  });

  it('has the same figures on a board and on a large panel, away from the rim', () => {
    const spacing = (input: FieldInput): number =>
      measureField(grow(input), 2 * input.pullLengthMm).areaSpacingMm;
    const board = [1, 2, 3, 4].map((seed) => spacing(inputOf(FILM, { seed })));
    const ratio = board.reduce((a, b) => a + b) / 4 / spacing(inputOf(FILM, { widthMm: 600, heightMm: 400 }));
    expect(ratio).toBeGreaterThan(0.94);
    expect(ratio).toBeLessThan(1.06);
  });

  it('breaks into islands of many sizes, near lognormal', () => {
    const pitchMm = 0.4;
    const grid = { columns: 750, rows: 500, pitchMm, leftMm: 0, topMm: 0 };
    const field = grow(inputOf(FILM, { widthMm: 300, heightMm: 200 }));
    const raster = rasterise(field, { ...grid, load: 1, fill: 1 });
    const { areaMm2, cut } = findIslands(raster.open, grid);
    // A few pixels between two cracks at a junction are dust, no island.
    const logs = Array.from(areaMm2)
      .filter((area, id) => cut[id] === 0 && area > 1)
      .map(Math.log)
      .sort((a, b) => a - b);
    const n = logs.length;
    const mean = logs.reduce((a, b) => a + b) / n;
    const moment = (power: number): number => logs.reduce((sum, x) => sum + (x - mean) ** power, 0) / n;
    const deviation = Math.sqrt(moment(2));
    expect(n).toBeGreaterThan(300);
    // Sizes of sequential random breaking (Kolmogorov 1941): logarithms scatter like a normal value.
    expect(deviation).toBeGreaterThan(0.4);
    expect(deviation).toBeLessThan(1.1);
    expect(Math.abs(moment(3)) / deviation ** 3).toBeLessThan(1);
    const within = logs.filter((x) => Math.abs(x - mean) < deviation).length / n;
    expect(within).toBeGreaterThan(0.6);
    expect(within).toBeLessThan(0.78);
  });

  it('runs even under dabs and lengthwise under one-way strokes', () => {
    const ratio = (input: FieldInput): number => {
      const { spacingAlongMm, spacingAcrossMm } = figures(input);
      return spacingAlongMm / spacingAcrossMm;
    };
    const dabbed = [1, 2, 3].map((seed) => ratio(inputOf(FILM, { seed })));
    for (const value of dabbed) expect(Math.max(value, 1 / value)).toBeLessThan(1.15);
    const stroked = ratio(inputOf(FILM, { strokes: 'one-way', strokeContrast: 0.45 }));
    expect(Math.max(stroked, 1 / stroked)).toBeGreaterThan(1.3);
  });
});

describe('crack field: growth', () => {
  it('only adds cracks when the film shrinks more', () => {
    const before = grow(inputOf(FILM));
    const after = grow(inputOf({ ...FILM, strain: FILM.strain * 1.02 }));
    const ends = new Set<string>();
    for (let i = 0; i < after.count; i++) ends.add(`${after.x1[i]} ${after.y1[i]}`);
    let kept = 0;
    for (let i = 0; i < before.count; i++) if (ends.has(`${before.x1[i]} ${before.y1[i]}`)) kept++;
    expect(kept / before.count).toBeGreaterThan(0.99);
    expect(after.count).toBeGreaterThan(before.count);
  });

  it('gives every segment a birth within the loading', () => {
    const field = grow(inputOf(FILM));
    for (let i = 0; i < field.count; i++) {
      expect(field.birth[i]! > 0 && field.birth[i]! <= 1).toBeTrue();
      const p = field.previous[i]!;
      if (p >= 0) expect(field.birth[i]!).toBeGreaterThanOrEqual(field.birth[p]!);
    }
  });

  it('is the same from the same seed, and on every engine', () => {
    expect(grow(FINGERPRINT_INPUT).fingerprint).toBe(grow(FINGERPRINT_INPUT).fingerprint);
    expect(grow(FINGERPRINT_INPUT).fingerprint).toBe(FINGERPRINT);
    expect(grow({ ...FINGERPRINT_INPUT, seed: 12 }).fingerprint).not.toBe(FINGERPRINT);
  });

  it('can be stopped between levels and says how far it is', () => {
    const growth = new Growth(inputOf(FILM));
    let before = -1;
    for (let i = 0; i < 40; i++) {
      growth.step();
      expect(growth.progress).toBeGreaterThan(before);
      before = growth.progress;
    }
    expect(growth.result().count).toBeGreaterThanOrEqual(0);
  });

  it('grows much the same pattern coarsely', () => {
    const fine = figures(inputOf(FILM, { widthMm: 150, heightMm: 100 }));
    const coarse = figures(inputOf(FILM, { widthMm: 150, heightMm: 100, quality: 'coarse' }));
    expect(coarse.areaSpacingMm / fine.areaSpacingMm).toBeGreaterThan(0.88);
    expect(coarse.areaSpacingMm / fine.areaSpacingMm).toBeLessThan(1.15);
  });
});

describe('crack field: drawing and doors', () => {
  it('draws as much open area as the cracks have, less where they overlap', () => {
    const field = grow(inputOf(FILM, { widthMm: 60, heightMm: 60 }));
    const raster = rasterise(field, { columns: 600, rows: 600, pitchMm: 0.1, load: 1, fill: 1 });
    const drawn = raster.open.reduce((a, b) => a + b) / raster.open.length;
    const { openSum } = measureField(field);
    expect(drawn / openSum).toBeGreaterThan(0.88);
    expect(drawn / openSum).toBeLessThan(1.0);
  });

  it('draws nothing before the first crack and less at half time', () => {
    const field = grow(inputOf(FILM, { widthMm: 60, heightMm: 60 }));
    const area = (load: number): number =>
      rasterise(field, { columns: 200, rows: 200, pitchMm: 0.3, load, fill: 1 }).open.reduce((a, b) => a + b);
    expect(area(0)).toBe(0);
    expect(area(0.6)).toBeLessThan(0.8 * area(1));
  });

  it('refuses a window that cannot be grown', () => {
    const law = {
      thicknessUm: 30,
      complianceUm: 1e5,
      pullLengthUm: 1600,
      strain: 0.14,
      strengthRatio: 0.3,
      fractureLengthUm: 2,
      mixing: 1,
      fillLeft: 1,
      relaxation: 1,
      mobilityAtGel: 0.4,
      driveRatio: 0,
    };
    const window = {
      widthMm: 100,
      heightMm: 100,
      edges: inputOf(FILM).edges,
      seed: 1,
      strokes: 'one-way',
      quality: 'full',
    } as const;
    expect(fieldInput(law, window).pullLengthMm).toBeCloseTo(1.6, 5);
    expect(() => fieldInput(law, { ...window, widthMm: 1 })).toThrowError(InputError, /field\.widthMm is 1/);
    expect(() => fieldInput(law, { ...window, seed: 0.5 })).toThrowError(InputError, /whole number/);
  });
});
