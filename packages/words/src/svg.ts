import { CHECK_LINE } from '@zaffet/core/board';

/*
 * Shapes of printed sheets as SVG (W3C, SVG 1.1), in millimetres.
 */

/** A line that is measured after printing [mm]. */
export const CHECK_MM = CHECK_LINE.meant;

export const escapedText = (text: string): string =>
  text.replace(/[&<>"]/g, (letter) => `&#${letter.codePointAt(0)!};`);
/** A length as it is written: to a thousandth of a millimetre. */
export const svgNumber = (value: number): string => Number(value.toFixed(3)).toString();

export const svgRect = (x: number, y: number, width: number, height: number, rest: string): string =>
  `<rect x="${svgNumber(x)}" y="${svgNumber(y)}" width="${svgNumber(width)}" height="${svgNumber(height)}" ${rest}/>`;
export const svgLine = (
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  wide = 0.2,
  colour = '#000',
): string =>
  `<line x1="${svgNumber(x1)}" y1="${svgNumber(y1)}" x2="${svgNumber(x2)}" y2="${svgNumber(y2)}" stroke="${colour}" stroke-width="${wide}"/>`;
/** Text of so many millimetres. */
export const svgText = (x: number, y: number, size: number, words: string, rest = ''): string =>
  `<text x="${svgNumber(x)}" y="${svgNumber(y)}" font-size="${size}" font-family="Roboto, sans-serif" ${rest}>${escapedText(words)}</text>`;

/** A page at its own size. @param title - escaped */
export const svgPage = (
  { width, height }: { readonly width: number; readonly height: number },
  shapes: readonly string[],
  title: string,
): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}"><title>${title}</title>${svgRect(0, 0, width, height, 'fill="#fff"')}${shapes.join('')}</svg>`;
