import perspective from 'perspective-transform';
import { type Colour } from '../colour';
import { measureField } from '../crack';
import {
  type Correction,
  coloursIn,
  areApart,
  halved,
  type Known,
  layersIn,
  type Luma,
  measureLuma,
  measurePhoto,
  type Picture,
  type Quad,
  rectified,
  type Spot,
  type Tinted,
} from '.';
import { distances2, middleLines } from './skeleton';
import { playedFace } from '../testing/faces';
import { drawPanel } from '../face';
import { coat, FIRST, planOf, when } from '../testing/plans';
import { uniform } from '../numeric/hash';
import { lensOfQuad, toPixel } from './lens';
import { byCorners } from './measure';

/** Dark lines on light paint, each so wide, blurred by a standard deviation [px]; told by distance functions. */
function drawn(
  size: number,
  width: number,
  lines: readonly ((x: number, y: number) => number)[],
  blur = 1,
): Luma {
  const y = new Float32Array(size * size).fill(0.6);
  const edge = (d: number): number => 1 / (1 + Math.exp((d - width / 2) / (0.55 * blur)));
  for (let i = 0; i < y.length; i++) {
    const [px, py] = [(i % size) + 0.5, Math.floor(i / size) + 0.5];
    const dark = Math.max(...lines.map((line) => edge(Math.abs(line(px, py)))));
    y[i] = 0.6 * (1 - 0.7 * dark) + 0.004 * (uniform(i, 3, 1) - 0.5);
  }
  return { columns: size, rows: size, pitch: 0.1, y, clipped: 0 };
}
const grid = (gap: number): ((x: number, y: number) => number)[] => {
  const off = (at: number): number => ((at + gap / 2) % gap) - gap / 2;
  return [(x) => off(x - gap / 2 + 0.5), (_, y) => off(y - gap / 2 + 0.5)];
};

describe('cracks in a photograph', () => {
  it('a square grid of lines has its mesh for a mean intercept (the idea of ASTM E112)', () => {
    for (const gap of [28, 36]) {
      // The window inside the rim is 23 meshes wide.
      const { spacingMm, trust } = measureLuma(drawn(25 * gap, 6, grid(gap)));
      expect(trust.spacing).toBe('about');
      expect(Math.abs(spacingMm! / (0.1 * gap) - 1)).toBeLessThan(0.02);
    }
  });

  it('straight lines read as wide as they are, at any angle', () => {
    for (const width of [6, 16])
      for (const degrees of [0, 17, 71, 90]) {
        const angle = (degrees * Math.PI) / 180;
        const off = (x: number, y: number): number => {
          const d = x * Math.sin(angle) - y * Math.cos(angle);
          return ((((d + 60) % 120) + 120) % 120) - 60;
        };
        const { openingPx } = measureLuma(drawn(480, width, [off]));
        expect(Math.abs(openingPx / width - 1))
          .withContext(`${width} px at ${degrees}°`)
          .toBeLessThan(0.04);
      }
  });

  it('says that what is too thin cannot be told, instead of a number', () => {
    const thin = measureLuma(drawn(480, 3.6, grid(60)));
    expect([thin.openingMm, thin.openArea]).toEqual([null, null]);
    expect(thin.trust.opening).not.toBe('about');
    const none = measureLuma(drawn(480, 8, [() => 1000]));
    expect([none.spacingMm, none.openingMm, none.trust.spacing]).toEqual([null, null, 'too-few']);
    const glaring = measureLuma({ ...drawn(480, 8, grid(60)), clipped: 0.2 });
    expect([glaring.spacingMm, glaring.trust.spacing]).toEqual([null, 'glare']);
  });

  it('does not mind light that falls off across the picture, nor cracks that are the lighter ones', () => {
    const even = drawn(600, 8, grid(60));
    const plain = measureLuma(even);
    const uneven = measureLuma({
      ...even,
      y: even.y.map(
        (value, i) => value * (1 - 0.5 * ((i % 600) / 600)) * (0.7 + 0.3 * (Math.floor(i / 600) / 600)),
      ),
    });
    expect(uneven.spacingMm! / plain.spacingMm!).toBeCloseTo(1, 1.5);
    expect(uneven.openingMm! / plain.openingMm!).toBeCloseTo(1, 1.5);
    const light = measureLuma({ ...even, y: even.y.map((value) => 0.36 / (value + 0.25)) });
    expect(light.spacingMm! / plain.spacingMm!).toBeCloseTo(1, 1);
  });

  it('scales with the size that is told', () => {
    const a = drawn(480, 8, grid(60));
    const [small, large] = [measureLuma(a), measureLuma({ ...a, pitch: 0.3 })];
    // But for the paint's own level, which is looked for over millimetres.
    expect(large.spacingMm! / small.spacingMm!).toBeCloseTo(3, 3);
    expect(large.openingMm! / small.openingMm!).toBeCloseTo(3, 3);
  });
});

/** Light paint over dark, cracked wide. */
const CRACKLED = planOf([
  coat('base', 'latex', 90, FIRST, { colour: '#2f4c50' }),
  coat('medium', 'crackle', 190, when('through-dry')),
  coat('top', 'chalk', 150, when('touch-dry'), { colour: '#e2d9c3' }),
]);

describe('paint of our own, photographed', () => {
  const face = playedFace(CRACKLED, 'close', 900);
  const field = face.cracked[0]!.field;
  // Light from the side as the relief of real paint throws it.
  const { rgba, columns, rows } = drawPanel(face.result.scene, face.panel, { raking: -0.25 });
  const picture: Picture = { width: columns, height: rows, data: rgba };
  const whole: Quad = [
    { x: 0, y: 0 },
    { x: columns, y: 0 },
    { x: columns, y: rows },
    { x: 0, y: rows },
  ];
  const size = { width: face.view.widthMm, height: face.view.heightMm };

  it('reads what was grown in the window it counts: spacing and opening within 3 %, open area within a point', () => {
    const { luma } = rectified(picture, whole, size);
    const rim = 30;
    const read = measureLuma(luma, { ...byCorners(luma), rim: [rim, rim] });
    const truth = measureField(field, rim * luma.pitch);
    expect(read.trust).toEqual({ spacing: 'about', opening: 'about', area: 'about' });
    expect(Math.abs(read.spacingMm! / truth.spacingMm - 1)).toBeLessThan(0.03);
    expect(Math.abs(read.openingMm! / truth.openingMm - 1)).toBeLessThan(0.03);
    expect(read.narrowMm!).toBeLessThan(read.openingMm!);
    expect(read.wideMm!).toBeGreaterThan(read.openingMm!);
    const along = read.alongMm! / read.acrossMm! / (truth.spacingAlongMm / truth.spacingAcrossMm);
    expect(Math.abs(Math.log(along))).toBeLessThan(0.06);
    let floor = 0;
    for (let y = rim; y < rows - rim; y++)
      for (let x = rim; x < columns - rim; x++) floor += face.panel.floor[y * columns + x]!;
    floor /= (columns - 2 * rim) * (rows - 2 * rim);
    expect(Math.abs(read.openArea! - floor)).toBeLessThan(0.01);
  });

  it('reads the same of a picture taken askew', () => {
    const corners: Quad = [
      { x: 60, y: 40 },
      { x: 1010, y: 90 },
      { x: 960, y: 930 },
      { x: 20, y: 1000 },
    ];
    const askew = { width: 1060, height: 1040, data: new Uint8ClampedArray(4 * 1060 * 1040).fill(120) };
    const back = inverseOf(corners);
    for (let y = 0; y < askew.height; y++)
      for (let x = 0; x < askew.width; x++) {
        const [u, v] = back(x + 0.5, y + 0.5);
        if (u < 0 || v < 0 || u >= 1 || v >= 1) continue;
        const from = 4 * (Math.floor(v * rows) * columns + Math.floor(u * columns));
        askew.data.set(rgba.subarray(from, from + 4), 4 * (y * askew.width + x));
      }
    const [plain, tilted] = [measurePhoto(picture, whole, size), measurePhoto(askew, corners, size)];
    expect(Math.abs(tilted.spacingMm! / plain.spacingMm! - 1)).toBeLessThan(0.05);
    expect(Math.abs(tilted.openingMm! / plain.openingMm! - 1)).toBeLessThan(0.08);
  });

  it('refuses corners that cross, lie outside, or leave too few pixels', () => {
    const [a, b, c, d] = whole;
    expect(() => rectified(picture, [a, c, b, d], size)).toThrowError(/one after the other/);
    expect(() => rectified(picture, [{ x: -5, y: 0 }, b, c, d], size)).toThrowError(/inside the picture/);
    const tiny: Quad = [
      { x: 0, y: 0 },
      { x: 50, y: 0 },
      { x: 50, y: 50 },
      { x: 0, y: 50 },
    ];
    expect(() => rectified(picture, tiny, size)).toThrowError(/go nearer/);
    expect(() => rectified(picture, whole, { ...size, width: 0 })).toThrowError(/width/);
  });
});

/** Where places of a picture lie in the unit square, by Newton's steps. */
function inverseOf(quad: Quad): (x: number, y: number) => [number, number] {
  const lens = lensOfQuad(quad, { width: 1, height: 1 }, { width: 1060, height: 1040 });
  const at = (u: number, v: number): Spot => toPixel(lens, u, v);
  return (x, y) => {
    let [u, v] = [0.5, 0.5];
    for (let round = 0; round < 8; round++) {
      const here = at(u, v);
      const [du, dv] = [at(u + 1e-4, v), at(u, v + 1e-4)];
      const [a, b, c, d] = [
        (du.x - here.x) * 1e4,
        (dv.x - here.x) * 1e4,
        (du.y - here.y) * 1e4,
        (dv.y - here.y) * 1e4,
      ];
      const [ex, ey] = [x - here.x, y - here.y];
      const det = a * d - b * c;
      u += (d * ex - b * ey) / det;
      v += (a * ey - c * ex) / det;
    }
    return [u, v];
  };
}

describe('a picture of which more is known', () => {
  const known = (more: Partial<Known> = {}): Known => ({
    blur: 1,
    noise: 0.01,
    overshoot: 0,
    rim: [24, 24],
    paint: 0.6,
    dark: null,
    contrast: null,
    ...more,
  });
  const off = (value: number | null, truth: number): number => Math.abs(value! / truth - 1);

  it('tells thinner cracks: by the contrast their own lines have, or that other cells have', () => {
    // Lines drawn with soft edges are so much wider than they are told to be.
    const drawnAs = (width: number): number => 0.1 * (width + 1.1 * Math.log(1 + Math.exp(-width / 1.1)));
    const own = measureLuma(drawn(480, 3.6, grid(60)), known());
    expect(own.trust).toEqual({ spacing: 'measured', opening: 'measured', area: 'measured' });
    expect(off(own.openingMm, drawnAs(3.6))).toBeLessThan(0.08);
    for (const width of [1.2, 1.6, 2, 2.4]) {
      const { openingMm, openArea, trust } = measureLuma(drawn(480, width, grid(60)), known());
      expect([openingMm, openArea, trust.opening])
        .withContext(`${width} px`)
        .toEqual([null, null, 'too-thin']);
    }
    expect(measureLuma(drawn(480, 2.8, grid(60)), known()).trust.opening).toBe('about');
    const given = measureLuma(drawn(480, 1.6, grid(60)), known({ contrast: 0.7, dark: true }));
    expect(given.trust.opening).toBe('about');
    expect(off(given.openingMm, drawnAs(1.6))).toBeLessThan(0.06);
    expect(Math.abs(given.openArea! - (1 - (1 - drawnAs(1.6) / 6) ** 2))).toBeLessThan(0.01);
  });

  it('holds back what a blur, a sharpening, a shine or paint of another darkness spoils', () => {
    const luma = drawn(480, 8, grid(60));
    expect(measureLuma(luma, known({ blur: 2.8 })).trust.opening).toBe('blurred');
    expect(measureLuma(luma, known({ paint: 0.35 })).trust.spacing).toBe('too-fine');
    const sharpened = known({ overshoot: 0.1 });
    expect(measureLuma(luma, sharpened).trust.opening).toBe('measured');
    expect(measureLuma(drawn(480, 3.6, grid(60)), sharpened).trust.opening).toBe('about');
    const shone = { ...luma, y: luma.y.map((value, i) => value * (1 + (0.3 * (i % 480)) / 480)) };
    expect(measureLuma(shone, known()).trust.spacing).toBe('glare');
    expect(measureLuma(shone).trust.spacing).toBe('about');
  });

  it('does not mind paint that is lighter here and darker there, on the scale of a finger', () => {
    const even = drawn(600, 8, grid(60));
    const wavy = {
      ...even,
      y: even.y.map((value, i) => value * (1 + 0.06 * Math.sin((i % 600) / 25) * Math.cos(i / 600 / 30))),
    };
    const [plain, uneven] = [measureLuma(even, known()), measureLuma(wavy, known())];
    expect(off(uneven.openingMm, plain.openingMm!)).toBeLessThan(0.01);
    expect(Math.abs(uneven.openArea! - plain.openArea!)).toBeLessThan(0.004);
  });

  it('takes for chips what is wider than any crack, and tells how much of it there is', () => {
    const hole = (x: number, y: number): number => Math.max(0, Math.hypot(x - 240, y - 240) - 70);
    const chipped = measureLuma(drawn(480, 5, [...grid(60), hole]), known());
    expect([chipped.trust.spacing, chipped.trust.area]).toEqual(['chipped', 'about']);
    expect(chipped.spacingMm).toBeNull();
    const share = (Math.PI * 72 ** 2) / 432 ** 2;
    expect(chipped.chipped).toBeGreaterThan(share);
    expect(chipped.chipped).toBeLessThan(1.6 * share);
    expect(measureLuma(drawn(480, 5, grid(60)), known()).chipped).toBe(0);
  });

  it('tells which way cracks run', () => {
    const [upright, level] = [grid(40)[0]!, grid(80)[1]!];
    // The window is twelve meshes wide and six high.
    const { alongMm, acrossMm } = measureLuma(drawn(540, 6, [upright, level]), known({ rim: [30, 30] }));
    expect(off(alongMm! / acrossMm!, 0.5)).toBeLessThan(0.06);
  });

  it('is put right by hand: a stroke over a crack takes it out, one between cracks puts one in', () => {
    const luma = drawn(480, 6, grid(60));
    const count = (...corrections: Correction[]): number =>
      measureLuma(luma, known(), corrections).cracks.mask.reduce((sum, one) => sum + one, 0);
    const down = [
      { x: 3, y: 0 },
      { x: 3, y: 48 },
    ];
    const between = down.map(({ y }) => ({ x: 6, y }));
    expect(count({ kind: 'erase', widthMm: 2, points: down })).toBeLessThan(count() - 2000);
    expect(count({ kind: 'draw', widthMm: 0.5, points: between })).toBeGreaterThan(count() + 1500);
    // What was drawn last lies on top.
    const both: Correction[] = [
      { kind: 'draw', widthMm: 0.5, points: between },
      { kind: 'erase', widthMm: 3, points: between },
    ];
    expect(count(...both)).toBeLessThanOrEqual(count());
  });
});

describe('layers in a photograph', () => {
  const CREAM: Colour = [0.86, 0.79, 0.62];
  const DEEP: Colour = [0.04, 0.09, 0.1];
  /** Squares of the upper colour on the lower one, which lies in shade. */
  const squares = (every: number, wide: number, shade: number): Tinted => {
    const side = 360;
    const rgb = new Float32Array(3 * side * side);
    for (let i = 0; i < side * side; i++) {
      const [x, y] = [i % side, Math.floor(i / side)];
      const top = x % every < wide && y % every < wide;
      const light = 1 + 0.1 * (uniform(i, 9, 1) - 0.5);
      for (let c = 0; c < 3; c++) rgb[3 * i + c] = (top ? CREAM[c]! : shade * DEEP[c]!) * light;
    }
    return { columns: side, rows: side, pitch: 0.1, rgb };
  };

  it('have the shares they cover, though floors are darker than what was planned', () => {
    for (const shade of [1, 0.3]) {
      const cell = squares(60, 40, shade);
      const colours = coloursIn([cell], [DEEP, CREAM]);
      expect(colours[0]![1] / DEEP[1])
        .withContext(`${shade}`)
        .toBeCloseTo(shade, 1);
      const { shares, islandMm } = layersIn(cell, colours);
      expect(shares[1]!).toBeCloseTo((40 / 60) ** 2, 1.7);
      expect(shares[0]! + shares[1]!).toBeCloseTo(1, 6);
      expect(islandMm! / ((2 * 4) / Math.sqrt(Math.PI))).toBeCloseTo(1, 1);
    }
  });

  it('are not told apart where their colours are nearly one', () => {
    expect(areApart([DEEP, CREAM])).toBeTrue();
    expect(areApart([DEEP, CREAM, [0.84, 0.77, 0.64]])).toBeFalse();
  });

  it('are as planned where too little of them is seen to tell', () => {
    const whole = squares(60, 60, 1);
    expect(coloursIn([whole], [DEEP, CREAM])[0]).toEqual(DEEP);
    expect(halved(whole).columns).toBe(180);
    expect(layersIn(whole, [DEEP, CREAM]).shares[1]!).toBeGreaterThan(0.98);
  });
});

describe('a board seen aslant', () => {
  it('lies where the perspective-transform package has it, all over', () => {
    const picture = { width: 4000, height: 3000 };
    const size = { width: 300, height: 400 };
    const quads: Quad[] = [
      [
        { x: 700, y: 300 },
        { x: 3200, y: 520 },
        { x: 3500, y: 2700 },
        { x: 500, y: 2400 },
      ],
      [
        { x: 100, y: 100 },
        { x: 2000, y: 100 },
        { x: 2000, y: 2900 },
        { x: 100, y: 2900 },
      ],
    ];
    for (const quad of quads) {
      const reference = perspective(
        [0, 0, size.width, 0, size.width, size.height, 0, size.height],
        quad.flatMap(({ x, y }) => [x, y]),
      );
      const lens = lensOfQuad(quad, size, picture);
      for (let i = 0; i < 60; i++) {
        const [x, y] = [size.width * uniform(i, 8, 1), size.height * uniform(i, 8, 2)];
        const [px, py] = reference.transform(x, y);
        const own = toPixel(lens, x, y);
        // The package rounds its coefficients to ten places.
        expect(Math.hypot(own.x - px, own.y - py)).toBeLessThan(1e-4);
      }
    }
  });
});

describe('middle lines', () => {
  it('rest on exact distances: by brute force on a small raster', () => {
    const [columns, rows] = [40, 31];
    const mask = Uint8Array.from({ length: columns * rows }, (_, i) => (uniform(i, 5, 2) < 0.8 ? 1 : 0));
    const found = distances2(mask, columns, rows);
    for (let i = 0; i < mask.length; i++) {
      let least = Infinity;
      for (let j = 0; j < mask.length; j++)
        if (mask[j] === 0)
          least = Math.min(
            least,
            ((i % columns) - (j % columns)) ** 2 + (Math.floor(i / columns) - Math.floor(j / columns)) ** 2,
          );
      expect(found[i])
        .withContext(String(i))
        .toBe(mask[i] === 0 ? 0 : least);
    }
  });

  it('of a cross are four arms that meet, of a ring is one', () => {
    const size = 61;
    const mask = (is: (x: number, y: number) => boolean): Uint8Array =>
      Uint8Array.from({ length: size * size }, (_, i) =>
        is((i % size) - 30, Math.floor(i / size) - 30) ? 1 : 0,
      );
    const linesOf = (m: Uint8Array): number => middleLines(m, distances2(m, size, size), size, size).length;
    const cross = mask(
      (x, y) => (Math.abs(x) < 3 && Math.abs(y) < 25) || (Math.abs(y) < 3 && Math.abs(x) < 25),
    );
    expect(linesOf(cross)).toBe(4);
    expect(linesOf(mask((x, y) => Math.abs(Math.hypot(x, y) - 20) < 2.5))).toBe(1);
  });
});
