import { type StepMap } from '@zaffet/contract';
import { PNG } from 'pngjs';
import { type SheetFilm } from './content';

/** How dark the strongest place of a map is, of 255: names written on it in pencil can still be read. */
const DARKEST = 150;
/** Greys alone, each line as it stands: hand-painted maps are small enough, and a PDF takes it as it is. */
const GREY = { colorType: 0, inputColorType: 0, filterType: 0, deflateLevel: 6 } as const;
const QUIET = '#5c6168';

/** The stack cut through, to scale, from the ground up, with the film's name beside each. */
export function stackSvg(films: readonly SheetFilm[]): string {
  const total = films.reduce((sum, { dry }) => sum + dry, 0);
  const row = 15;
  const height = Math.max(60, films.length * row);
  const scale = height / Math.max(1e-6, total);
  let ground = height;
  const slabs: string[] = [];
  const labels: string[] = [];
  films.forEach(({ name, colour, dry, dryText }, i) => {
    const thick = dry * scale;
    ground -= thick;
    const at = height - (i + 0.5) * (height / films.length);
    slabs.push(
      `<rect x="0" y="${ground.toFixed(2)}" width="70" height="${thick.toFixed(2)}" fill="${colour}" stroke="${QUIET}" stroke-width="0.4"/>`,
      `<path d="M70 ${(ground + thick / 2).toFixed(2)}L84 ${at.toFixed(2)}" stroke="${QUIET}" stroke-width="0.4" fill="none"/>`,
    );
    labels.push(
      `<text x="88" y="${(at + 3).toFixed(2)}" font-size="8" fill="#23262a">${escaped(name)}, ${escaped(dryText)} dry</text>`,
    );
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 250 ${height + 8}">${slabs.join('')}<rect x="0" y="${height}" width="70" height="8" fill="#c39a63"/>${labels.join('')}</svg>`;
}

/** Where a step does more, dark, and where less, pale: a picture of a cell a pixel, as a data address. */
export function mapPicture({ columns, rows, percent }: StepMap): string {
  const most = percent.reduce((a, b) => Math.max(a, b), 1);
  const png = new PNG({ width: columns, height: rows });
  png.data = Buffer.alloc(percent.length);
  for (let i = 0; i < percent.length; i++) png.data[i] = 255 - Math.round((DARKEST * percent[i]!) / most);
  return `data:image/png;base64,${PNG.sync.write(png, GREY).toString('base64')}`;
}

const escaped = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
