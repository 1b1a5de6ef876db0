import { forecastOf } from '../testing/forecasts';
import { FILM, grow, inputOf } from '../testing/fields';
import { overMedium } from '../testing/plans';
import { type Panel } from '../plan';
import { type Scene, type SceneEvent, type SceneLayer } from '../outcome';
import { drawPanel } from './draw';
import { measurePanel } from '../measure';
import { rasterise } from '../raster';
import { runScene } from './run';
import { type CrackedLayer, type PanelField } from './work';
import { brushRelief } from './texture';
import { faceView } from './view';

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

/** Green base, cream top, cracked. */
const layer = (id: string, changes: Partial<SceneLayer>): SceneLayer => ({
  id,
  thicknessUm: 40,
  opacity: 0.99,
  hidingUm: 8,
  colour: '#3c5032',
  tones: null,
  strokes: 'one-way',
  finish: 'paint',
  agent: null,
  yellowing: 0,
  glossUnits: 5,
  ...changes,
});
const { law } = forecastOf(overMedium(70, 60)).course.cracks[2]!;
const lay = (k: number): SceneEvent => ({
  kind: 'lay',
  at: 0,
  dryAt: 0,
  layer: k,
  style: 'full',
  share: 1,
  intoCracks: 1,
  where: 'all',
});
const crack = (k: number): SceneEvent => ({
  kind: 'crack',
  on: { holds: [], lacks: [], done: [], undone: [] },
  at: 0,
  layer: k,
  network: k,
  runs: 1,
  fillLeft: 1,
});
const sceneOf = (events: readonly SceneEvent[]): Scene => ({
  widthMm: 600,
  heightMm: 400,
  oval: false,
  layers: [
    layer('panel', { thicknessUm: 0, colour: '#b08a5a', finish: 'wood', opacity: 1 }),
    layer('base', {}),
    layer('top', { colour: '#e6dec8' }),
  ],
  events,
  networks: [{ key: 2, layer: 2, law, responses: [] }],
  maps: {},
  places: {},
  relief: null,
  grainUp: false,
  seed: 3,
});
const relief = (strokes: Scene['layers'][number]['strokes'], k: number): Float32Array =>
  brushRelief(SIZE.columns, SIZE.rows, SIZE.pitchMm, strokes, 3 + k);
const run = (scene: Scene, cracked: readonly CrackedLayer[], opening: number | null = 1): PanelField =>
  runScene(scene, { ...SIZE, leftMm: 200, topMm: 150, opening, until: scene.events.length }, cracked, relief);

describe('face picture', () => {
  const field = grow(inputOf(FILM, { widthMm: 48, heightMm: 36 }));
  const raster = rasterise(field, { ...SIZE, load: 1, fill: 1 });
  const scene = sceneOf([lay(1), lay(2), crack(2)]);
  const cracked = [{ key: 2, field }];
  const panel = run(scene, cracked);
  const { rgba } = drawPanel(scene, panel, { raking: 0.5 });

  it('shows the colour below in the cracks and the top colour beside them', () => {
    const red = Float32Array.from(raster.open, (_open, i) => rgba[i * 4]!);
    expect(mean(red, (i) => raster.open[i]! > 0.95)).toBeLessThan(75);
    expect(mean(red, (i) => raster.open[i] === 0)).toBeGreaterThan(205);
    expect(mean(red, (i) => raster.open[i] === 0)).toBeLessThan(250);
    expect(panel.top.every((k, i) => (panel.floor[i]! > 0.5 ? k === 1 : k === 2))).toBeTrue();
  });

  it('is opaque, the same twice, and no flat tint', () => {
    expect(drawPanel(scene, run(scene, cracked), { raking: 0.5 }).rgba).toEqual(rgba);
    expect(rgba.every((value, i) => i % 4 !== 3 || value === 255)).toBeTrue();
    const film = new Set<number>();
    for (let i = 0; i < raster.open.length; i++) if (raster.open[i] === 0) film.add(rgba[i * 4]!);
    expect(film.size).toBeGreaterThan(20);
  });

  it('has no cracks before the first', () => {
    expect(run(scene, cracked, null).floor.every((open) => open === 0)).toBeTrue();
    expect(measurePanel(scene, run(scene, cracked, 0.4)).open).toBeLessThan(measurePanel(scene, panel).open);
  });

  it('shows more relief the lower the light comes in', () => {
    const spread = (raking: number): number => {
      const picture = drawPanel(scene, panel, { raking }).rgba;
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
    history: { handled: false, tannin: false, coat: 'none', age: 'years', condition: 'sound' },
    flat: true,
    use: 'display',
  };

  it('shows a hand-sized part of the middle, its edges held by the film around it', () => {
    const view = faceView(panel, 'arm', 1.5, [law]);
    expect(view.widthMm).toBeCloseTo(150);
    expect(view.heightMm).toBeCloseTo(100);
    expect(view.leftMm).toBeCloseTo(225);
    expect(view.edges).toEqual({ left: 'pinned', right: 'pinned', top: 'pinned', bottom: 'pinned' });
  });

  it("is never larger than the panel and keeps the picture's aspect", () => {
    const rail = faceView({ ...panel, height: 0.03 }, 'arm', 1.5, [law]);
    expect(rail.heightMm).toBeCloseTo(30);
    expect(rail.widthMm).toBeCloseTo(45);
    expect(rail.edges.top).toBe('free');
  });

  it('shows less of a panel whose web is too fine, and says so', () => {
    const whole = faceView(panel, 'whole', 1.5, [law]);
    expect(whole.reduced).toBeTrue();
    expect(whole.widthMm).toBeLessThan(600);
    expect(faceView(panel, 'whole', 1.5, []).reduced).toBeFalse();
    expect(faceView(panel, 'whole', 1.5, []).widthMm).toBeCloseTo(600);
  });
});
