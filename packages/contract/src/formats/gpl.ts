import { fault, ZaffetError } from '../errors';
import { plainText } from '../text';

/** A colour with the name a painter gave it. */
export interface NamedColour {
  readonly name: string;
  readonly colour: string;
}

const FIRST_LINE = 'GIMP Palette';
const COLOUR_LINE = /^(\d{1,3})\s+(\d{1,3})\s+(\d{1,3})(?:\s+(\S.*))?$/;
/** A line is three numbers and a name; a longer one is no palette's. */
const LONGEST_LINE = 1000;

const refused = (detail: string): ZaffetError =>
  new ZaffetError(fault('palette.unreadable', [{ path: 'palette', message: detail }]));

/**
 * Reads a GIMP palette (.gpl), the plain-text format many programs write: a first line, `Name:` and `Columns:` lines,
 * comments after `#`, then one colour a line as red, green, blue 0 … 255 and a name.
 * @throws ZaffetError `palette.unreadable` with the line that cannot be read
 */
export function readGpl(text: string): { name: string; colours: NamedColour[] } {
  const lines = text.split(/\r?\n/);
  if (lines[0]?.trim() !== FIRST_LINE) throw refused(`Its first line must be "${FIRST_LINE}".`);
  let name = '';
  const colours: NamedColour[] = [];
  lines.slice(1).forEach((whole, i) => {
    const line = whole.trim();
    if (line === '' || line.startsWith('#')) return;
    if (line.length > LONGEST_LINE)
      throw refused(`Line ${i + 2} is ${line.length} characters long; at most ${LONGEST_LINE} are read.`);
    const told = /^(Name|Columns):(.*)$/.exec(line);
    if (told !== null) {
      if (told[1] === 'Name') name = plainText(told[2]!);
      return;
    }
    const match = COLOUR_LINE.exec(line);
    const parts = match?.slice(1, 4).map(Number) ?? [];
    if (match === null || parts.some((part) => part > 255))
      throw refused(`Line ${i + 2} is no colour: it must be red, green and blue from 0 to 255, then a name.`);
    const colour = `#${parts.map((part) => part.toString(16).padStart(2, '0')).join('')}`;
    colours.push({ name: plainText(match[4] ?? '') || colour, colour });
  });
  if (colours.length === 0) throw refused('There are no colours in it.');
  return { name, colours };
}

/** Writes colours as a GIMP palette. */
export function writeGpl(name: string, colours: readonly NamedColour[]): string {
  const plain = (text: string): string => text.replace(/[\r\n\t]+/g, ' ');
  const lines = colours.map(({ name: colourName, colour }) => {
    const rgb = [1, 3, 5].map((at) => String(Number.parseInt(colour.slice(at, at + 2), 16)).padStart(3));
    return `${rgb.join(' ')}\t${plain(colourName)}`;
  });
  return [FIRST_LINE, `Name: ${plain(name)}`, '#', ...lines, ''].join('\n');
}
