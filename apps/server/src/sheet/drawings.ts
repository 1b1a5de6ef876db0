import { type SheetFilm, type SheetMap } from './content';

/** A map is drawn no finer than this, so that the sheet stays small. */
const MOST_COLUMNS = 48;
const QUIET = '#5c6168';

/** The stack cut through, to scale, from the ground up, with the film's name beside each. */
export function stackSvg(films: readonly SheetFilm[]): string {
  const total = films.reduce((sum, { dryUm }) => sum + dryUm, 0);
  const row = 15;
  const height = Math.max(60, films.length * row);
  const scale = height / Math.max(1, total);
  let ground = height;
  const slabs: string[] = [];
  const labels: string[] = [];
  films.forEach(({ name, colour, dryUm }, i) => {
    const thick = dryUm * scale;
    ground -= thick;
    const at = height - (i + 0.5) * (height / films.length);
    slabs.push(
      `<rect x="0" y="${ground.toFixed(2)}" width="70" height="${thick.toFixed(2)}" fill="${colour}" stroke="${QUIET}" stroke-width="0.4"/>`,
      `<path d="M70 ${(ground + thick / 2).toFixed(2)}L84 ${at.toFixed(2)}" stroke="${QUIET}" stroke-width="0.4" fill="none"/>`,
    );
    labels.push(
      `<text x="88" y="${(at + 3).toFixed(2)}" font-size="8" fill="#23262a">${escaped(name)}, ${Math.round(dryUm)} µm dry</text>`,
    );
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 250 ${height + 8}">${slabs.join('')}<rect x="0" y="${height}" width="70" height="8" fill="#c39a63"/>${labels.join('')}</svg>`;
}

/** Where a step does more, dark, and where less, pale, on the outline of its part. */
export function mapSvg({ map, widthMm, heightMm }: SheetMap): string {
  const every = Math.max(1, Math.ceil(map.columns / MOST_COLUMNS));
  const columns = Math.ceil(map.columns / every);
  const rows = Math.ceil(map.rows / every);
  const most = Math.max(...map.percent, 1);
  const width = 240;
  const height = (width * heightMm) / widthMm;
  const cells: string[] = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const at =
        Math.min(map.rows - 1, row * every) * map.columns + Math.min(map.columns - 1, column * every);
      const share = map.percent[at]! / most;
      if (share < 0.02) continue;
      cells.push(
        `<rect x="${((column / columns) * width).toFixed(1)}" y="${((row / rows) * height).toFixed(1)}" width="${(width / columns + 0.2).toFixed(1)}" height="${(height / rows + 0.2).toFixed(1)}" fill="#2e5d57" fill-opacity="${(0.75 * share).toFixed(2)}"/>`,
      );
    }
  }
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height.toFixed(1)}">${cells.join('')}<rect x="0" y="0" width="${width}" height="${height.toFixed(1)}" fill="none" stroke="${QUIET}"/></svg>`;
}

const escaped = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
