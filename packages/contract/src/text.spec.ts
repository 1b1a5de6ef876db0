import { readGpl } from './formats/gpl';
import { isStorable, plainText } from './text';

describe('names', () => {
  it('lose blanks at their ends, control characters and half letters', () => {
    expect(plainText('  Kelp green\t')).toBe('Kelp green');
    expect(plainText('Kelp\0\ngreen')).toBe('Kelp  green');
    expect(plainText('Salt \ud83d')).toBe('Salt');
    expect(plainText('Łódź 海 🎨')).toBe('Łódź 海 🎨');
  });

  it('are cut between two letters, and not at a blank', () => {
    expect(plainText('ab🎨cd', 3)).toBe('ab');
    expect(plainText('ab🎨cd', 4)).toBe('ab🎨');
    expect(plainText('abc def', 4)).toBe('abc');
    expect(plainText('x'.repeat(130)).length).toBe(120);
  });

  it('can be stored when they hold neither NUL nor half a letter', () => {
    expect([isStorable('Kelp'), isStorable('海'), isStorable('🎨')]).toEqual([true, true, true]);
    expect([isStorable('a\0b'), isStorable('\ud83d'), isStorable('\udc00x')]).toEqual([false, false, false]);
  });

  it('of a palette come out as names may be', () => {
    const long = `${'x'.repeat(119)}🎨 and more`;
    const { name, colours } = readGpl(`GIMP Palette\nName: Shore \n10 20 30\t${long}\n1 2 3\tSand  \n`);
    expect(name).toBe('Shore');
    expect(colours.map((colour) => colour.name)).toEqual(['x'.repeat(119), 'Sand']);
  });

  it('of a palette are refused in a line that is no colour, however long it is', () => {
    expect(() => readGpl(`GIMP Palette\n1 2 3${' '.repeat(120_000)}\n4 5 6 Sand`)).not.toThrow();
    expect(() => readGpl(`GIMP Palette\n1${' '.repeat(120_000)}x`)).toThrowError(
      /Line 2 is 120002 characters long/,
    );
    expect(() => readGpl(`GIMP Palette\n1 2 ${'3'.repeat(900)}`)).toThrowError(/Line 2 is no colour/);
  });
});
