import { ZaffetError } from './errors';
import { readGpl, writeGpl } from './formats/gpl';

// The format as its own files show it: a first line, a name, columns, then red, green, blue and a name per line.
const FILE = `GIMP Palette
Name: Harbour
Columns: 4
# made by hand
 34  80  92\tDeep water
227 220 203 Sailcloth
  0   0   0
`;

describe('palette files', () => {
  it('are read with names, comments and all', () => {
    expect(readGpl(FILE)).toEqual({
      name: 'Harbour',
      colours: [
        { name: 'Deep water', colour: '#22505c' },
        { name: 'Sailcloth', colour: '#e3dccb' },
        { name: '#000000', colour: '#000000' },
      ],
    });
    expect(readGpl(FILE.replace(/\n/g, '\r\n')).colours.length).toBe(3);
  });

  it('come back as they were written', () => {
    const colours = [
      { name: 'Kelp', colour: '#5d6b4b' },
      { name: 'Gull', colour: '#d9d3c0' },
    ];
    expect(readGpl(writeGpl('Sea chest', colours))).toEqual({ name: 'Sea chest', colours });
  });

  it('are refused with the line that cannot be read', () => {
    const refused = (text: string): string => {
      try {
        readGpl(text);
        return '';
      } catch (error) {
        return error instanceof ZaffetError ? error.message : String(error);
      }
    };
    expect(refused('not a palette')).toMatch(/no palette file.*first line/);
    expect(refused('GIMP Palette\n300 0 0 Red')).toMatch(/Line 2.*0 to 255/);
    expect(refused('GIMP Palette\nName: empty\n')).toMatch(/no colours/);
  });
});
