import { playedFace } from '../testing/faces';
import { type LookedAt, SCENES } from '../testing/scenes';
import { drawPanel } from './draw';

/** What the eye would find fault with, as numbers: rows like bricks, lines of one width, rimless flakes, repetition. */

const scene = (name: string): LookedAt => SCENES.find((candidate) => candidate.name.startsWith(name))!;
const played = (name: string, columns = 300): ReturnType<typeof playedFace> => {
  const { plan, view } = scene(name);
  return playedFace(plan, view, columns);
};

const mean = (values: readonly number[]): number => values.reduce((sum, x) => sum + x, 0) / values.length;
const deviation = (values: readonly number[]): number => {
  const middle = mean(values);
  return Math.sqrt(mean(values.map((x) => (x - middle) ** 2)));
};

/** Greatest correlation of a picture's brightness with itself, shifted by at least so much each way [mm]. */
function repetition(name: string, fromMm: number): number {
  const { result, panel } = played(name, 240);
  const { columns, rows, rgba } = drawPanel(result.scene, panel, { raking: 0.5 });
  const bright = Float64Array.from({ length: columns * rows }, (_, i) => rgba[4 * i + 1]!);
  const middle = bright.reduce((sum, x) => sum + x, 0) / bright.length;
  const variance = bright.reduce((sum, x) => sum + (x - middle) ** 2, 0) / bright.length;
  const from = Math.ceil(fromMm / panel.grid.pitchMm);
  let most = 0;
  for (const [dx, dy] of shifts(from, Math.floor(columns / 2), Math.floor(rows / 2))) {
    let sum = 0;
    let count = 0;
    for (let row = 0; row < rows - dy; row += 2) {
      for (let column = 0; column < columns - dx; column += 2) {
        sum +=
          (bright[row * columns + column]! - middle) * (bright[(row + dy) * columns + column + dx]! - middle);
        count++;
      }
    }
    most = Math.max(most, sum / count / variance);
  }
  return most;
}

/** Shifts along, across and aslant. */
function shifts(from: number, across: number, down: number): [number, number][] {
  const all: [number, number][] = [];
  for (let d = from; d < across; d += 2) all.push([d, 0]);
  for (let d = from; d < down; d += 2) all.push([0, d], [d, d]);
  return all;
}

describe('what the eye would fault', () => {
  it('is no masonry: cracks meet at many angles', () => {
    for (const name of ['Medium', 'One-way', 'Chippy']) {
      const { cracked } = played(name);
      const angles = cracked.flatMap(({ field }) =>
        Array.from(field.junctionAngles, (a) => (a * 180) / Math.PI),
      );
      expect(angles.length).withContext(name).toBeGreaterThan(100);
      // Common practice: mostly near the square, hardly ever exactly on it.
      expect(mean(angles)).withContext(name).toBeGreaterThan(65);
      expect(deviation(angles)).withContext(name).toBeGreaterThan(8);
      expect(angles.filter((a) => a > 86).length / angles.length)
        .withContext(name)
        .toBeLessThan(0.55);
    }
  });

  it('is no line of one width: first cracks stand wider than last ones', () => {
    for (const name of ['Medium', 'One-way', 'Wide', 'Hairline']) {
      const { field } = played(name).cracked.at(-1)!;
      const widths = Array.from(field.width);
      expect(deviation(widths) / mean(widths))
        .withContext(name)
        .toBeGreaterThan(0.25);
      const order = widths.map((w, i) => ({ w, birth: field.birth[i]! })).sort((a, b) => a.birth - b.birth);
      const quarter = Math.floor(order.length / 4);
      expect(mean(order.slice(0, quarter).map(({ w }) => w)))
        .withContext(name)
        .toBeGreaterThan(1.25 * mean(order.slice(-quarter).map(({ w }) => w)));
    }
  });

  it('has rims where film came away: neither a hard edge nor a broad blur', () => {
    for (const name of ['Chippy', 'Jelly']) {
      const { panel } = played(name, 400);
      const { columns, rows, pitchMm } = panel.grid;
      let rim = 0;
      let border = 0;
      for (let row = 1; row < rows - 1; row++) {
        for (let column = 1; column < columns - 1; column++) {
          const i = row * columns + column;
          if (panel.rim[i]! > 0.15) rim++;
          const gone = panel.lost[i]! > 0.5;
          if (gone !== panel.lost[i + 1]! > 0.5 || gone !== panel.lost[i + columns]! > 0.5) border++;
        }
      }
      const width = (rim / border) * pitchMm;
      expect(width).withContext(name).toBeGreaterThan(0.05);
      expect(width).withContext(name).toBeLessThan(2);
    }
  });

  it('repeats nowhere, neither in cracks, nor in wear, nor in the wood', () => {
    for (const { name } of SCENES) {
      expect(repetition(name, name.startsWith('Wide') ? 30 : 18))
        .withContext(name)
        .toBeLessThan(0.45);
    }
  });

  it('leaves a film with marks of the brush and light on them', () => {
    const { result, panel } = played('Medium', 300);
    const flat = drawPanel(result.scene, panel, { raking: 0 }).rgba;
    const raked = drawPanel(result.scene, panel, { raking: 1 }).rgba;
    const onFilm = (rgba: Uint8ClampedArray): number[] =>
      Array.from(panel.lost, (lost, i) => (lost === 0 ? rgba[4 * i + 1]! : -1)).filter((x) => x >= 0);
    expect(deviation(onFilm(flat))).toBeGreaterThan(1);
    expect(deviation(onFilm(raked))).toBeGreaterThan(1.3 * deviation(onFilm(flat)));
  });
});
