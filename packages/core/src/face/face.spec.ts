import { forecast } from '../forecast';
import { FILM, grow, inputOf } from '../testing/fields';
import { overMedium } from '../testing/plans';
import { type Panel } from '../plan';
import { rasterise } from './raster';
import { faceTexture, shade } from './shade';
import { brushRelief } from './texture';
import { type Finish } from './types';
import { faceView } from './view';

const FINISH: Finish = {
  top: [230, 222, 200],
  below: [60, 80, 50],
  thicknessMm: 0.04,
  strokes: 'one-way',
  seed: 3,
  raking: 0.5,
};
const SIZE = { columns: 160, rows: 120, pitchMm: 0.3 };
const mean = (values: ArrayLike<number>, pick: (i: number) => boolean): number => {
  let sum = 0;
  let n = 0;
  for (let i = 0; i < values.length; i++) {
    if (!pick(i)) continue;
    sum += values[i]!;
    n++;
  }
  return sum / n;
};

describe('face picture', () => {
  const field = grow(inputOf(FILM, { widthMm: 48, heightMm: 36 }));
  const raster = rasterise(field, { ...SIZE, load: 1, fill: 1 });
  const texture = faceTexture(SIZE.columns, SIZE.rows, SIZE.pitchMm, FINISH);
  const rgba = shade(raster, FINISH, texture);

  it('shows the colour below in the cracks and the top colour beside them', () => {
    const red = Float32Array.from(raster.open, (_open, i) => rgba[i * 4]!);
    expect(mean(red, (i) => raster.open[i]! > 0.95)).toBeLessThan(75);
    expect(mean(red, (i) => raster.open[i] === 0)).toBeGreaterThan(205);
    expect(mean(red, (i) => raster.open[i] === 0)).toBeLessThan(250);
  });

  it('is opaque, the same twice, and no flat tint', () => {
    expect(shade(raster, FINISH, texture)).toEqual(rgba);
    expect(rgba.every((value, i) => i % 4 !== 3 || value === 255)).toBeTrue();
    const film = new Set<number>();
    for (let i = 0; i < raster.open.length; i++) if (raster.open[i] === 0) film.add(rgba[i * 4]!);
    expect(film.size).toBeGreaterThan(20);
  });

  it('shows more relief the lower the light comes in', () => {
    const spread = (raking: number): number => {
      const picture = shade(raster, { ...FINISH, raking }, texture);
      const values = Float32Array.from({ length: SIZE.columns * SIZE.rows }, (_v, i) => picture[i * 4]!);
      const mid = mean(values, (i) => raster.open[i] === 0);
      return Math.sqrt(
        mean(
          values.map((v) => (v - mid) ** 2),
          (i) => raster.open[i] === 0,
        ),
      );
    };
    expect(spread(1)).toBeGreaterThan(1.15 * spread(0));
  });

  it('leaves brush marks that run along the stroke', () => {
    const across = (relief: Float32Array, dx: number, dy: number): number => {
      let sum = 0;
      for (let row = 0; row < SIZE.rows - dy; row++) {
        for (let column = 0; column < SIZE.columns - dx; column++) {
          sum +=
            (relief[row * SIZE.columns + column]! - relief[(row + dy) * SIZE.columns + column + dx]!) ** 2;
        }
      }
      return sum;
    };
    const lying = brushRelief(SIZE.columns, SIZE.rows, SIZE.pitchMm, 'one-way', 4);
    expect(across(lying, 0, 2)).toBeGreaterThan(5 * across(lying, 2, 0));
    const dabbed = brushRelief(SIZE.columns, SIZE.rows, SIZE.pitchMm, 'dabbed', 4);
    expect(across(dabbed, 0, 2) / across(dabbed, 2, 0)).toBeLessThan(1.6);
  });

  it('keeps a hairline finer than a pixel at its share of it', () => {
    const thin = { ...field, width: field.width.map(() => 0.03) };
    const drawn = rasterise(thin, { ...SIZE, load: 1, fill: 1 });
    expect(Math.max(...drawn.open)).toBeCloseTo(0.1, 3);
  });
});

describe('face view', () => {
  const panel: Panel = {
    width: 0.6,
    height: 0.4,
    substrate: 'sealed',
    history: { handled: false, tannin: false, oldPaint: 'none', condition: 'sound' },
    flat: true,
    use: 'display',
  };
  const { law } = forecast(overMedium(70, 60)).coats[2]!.crack!;

  it('shows a hand-sized part of the middle, its edges held by the film around it', () => {
    const view = faceView(panel, 'arm', 1.5, law);
    expect(view.widthMm).toBeCloseTo(150);
    expect(view.heightMm).toBeCloseTo(100);
    expect(view.leftMm).toBeCloseTo(225);
    expect(view.edges).toEqual({ left: 'pinned', right: 'pinned', top: 'pinned', bottom: 'pinned' });
  });

  it("is never larger than the panel and keeps the picture's aspect", () => {
    const rail = faceView({ ...panel, height: 0.03 }, 'arm', 1.5, law);
    expect(rail.heightMm).toBeCloseTo(30);
    expect(rail.widthMm).toBeCloseTo(45);
    expect(rail.edges.top).toBe('free');
  });

  it('shows less of a panel whose web is too fine, and says so', () => {
    const whole = faceView(panel, 'whole', 1.5, law);
    expect(whole.reduced).toBeTrue();
    expect(whole.widthMm).toBeLessThan(600);
    expect(faceView(panel, 'whole', 1.5, null).reduced).toBeFalse();
    expect(faceView(panel, 'whole', 1.5, null).widthMm).toBeCloseTo(600);
  });
});
