import { InputError } from '../errors';
import { deltaE2000, opposite, painterOpposite } from './difference';
import { layered, sealedColour, wetColour } from './film';
import { mixParts } from './mix';
import { fromHex, toHex } from './rgb';
import { differenceCiede2000 } from 'culori';

const lightness = (hex: string): number => {
  const [r, g, b] = fromHex(hex);
  const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  return y > 0.008856 ? 116 * Math.cbrt(y) - 16 : 903.3 * y;
};

describe('colour difference', () => {
  // Sharma, Wu & Dalal 2005, Color Research and Application 30, test pairs (quoted from memory).
  const PAIRS: [number[], number[], number][] = [
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
    [[50, 2.8361, -74.02], [50, 0, -82.7485], 3.4412],
    [[50, 0, 0], [50, -1, 2], 2.3669],
    [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
    [[50, 2.49, -0.001], [50, -2.49, 0.0011], 7.2195],
    [[50, 2.5, 0], [73, 25, -18], 27.1492],
    [[50, 2.5, 0], [61, -5, 29], 22.8977],
    [[50, 2.5, 0], [56, -27, -3], 31.903],
    [[50, 2.5, 0], [58, 24, 15], 19.4535],
  ];
  const lab65 = ([l, a, b]: number[]): { mode: 'lab65'; l: number; a: number; b: number } => ({
    mode: 'lab65',
    l: l!,
    a: a!,
    b: b!,
  });
  PAIRS.forEach(([one, two, expected], i) => {
    it(`meets pair ${i + 1} of the published set in the library's D65 Lab`, () => {
      expect(differenceCiede2000()(lab65(one), lab65(two))).toBeCloseTo(expected, 3);
    });
  });

  it('takes screen colours to that Lab', () => {
    expect(deltaE2000('#808080', '#808080')).toBe(0);
    // Grey 119 and 128: L* 50.0 and 53.6, neutral, so the difference is ΔL*/SL with SL near 1.
    expect(deltaE2000('#777777', '#808080')).toBeGreaterThan(3);
    expect(deltaE2000('#777777', '#808080')).toBeLessThan(4);
    expect(deltaE2000('#223344', '#e8e0d0')).toBeGreaterThan(20);
  });
});

describe('opposites', () => {
  it('are computed, whatever some practitioners say of green and orange', () => {
    expect(deltaE2000(opposite('#2e7d32'), '#ff8c00')).toBeGreaterThan(20);
    expect(deltaE2000(painterOpposite('#ff8000'), '#2a00ff')).toBeLessThan(20);
    const green = fromHex(painterOpposite('#d01010'));
    expect(green[1]).toBeGreaterThan(Math.max(green[0], green[2]));
  });

  it('lead back', () => {
    expect(deltaE2000(opposite(opposite('#5d6b4b')), '#5d6b4b')).toBeLessThan(2);
    expect(deltaE2000(painterOpposite(painterOpposite('#aa5522')), '#aa5522')).toBeLessThan(2);
  });
});

describe('paint films', () => {
  it('look deeper wet and sealed than dry, dark ones most (common practice)', () => {
    const change = (hex: string): number => lightness(toHex(wetColour(fromHex(hex)))) - lightness(hex);
    for (const hex of ['#4a5560', '#7a4a30', '#a9b0a2', '#e2dac6']) {
      expect(change(hex)).toBeLessThan(-1);
      expect(lightness(toHex(sealedColour(fromHex(hex), 0)))).toBeLessThan(lightness(hex));
    }
    expect(change('#4f4f4f')).toBeLessThan(change('#dcdcdc'));
  });

  it('yellow under a thick oil coat', () => {
    const plain = sealedColour(fromHex('#e8e8e8'), 0);
    const oiled = sealedColour(fromHex('#e8e8e8'), 1);
    expect(oiled[2]).toBeLessThan(plain[2]);
    expect(oiled[2] / plain[2]).toBeLessThan(oiled[0] / plain[0]);
  });

  it('hide by Kubelka and Munk: nothing at none, themselves at full, steadily between', () => {
    const film = fromHex('#e6ddc4');
    const ground = fromHex('#2e3a30');
    expect(layered(film, ground, 0)).toEqual(ground);
    layered(film, ground, 1).forEach((c, i) => expect(c).toBeCloseTo(film[i]!, 2));
    const steps = [0.1, 0.3, 0.6, 0.9].map((opacity) => layered(film, ground, opacity)[1]);
    expect([...steps].sort((a, b) => a - b)).toEqual(steps);
  });

  it('mix as paint: yellow and blue give green', () => {
    const [r, g, b] = fromHex(
      mixParts([
        { colour: '#fcd200', parts: 1 },
        { colour: '#0a3a8c', parts: 1 },
      ]),
    );
    expect(g).toBeGreaterThan(Math.max(r, b));
    expect(() => mixParts([])).toThrowError(InputError, /mix\.parts/);
    expect(() => mixParts([{ colour: '#ffffff', parts: 0 }])).toThrowError(InputError, /more than 0 parts/);
  });

  it('keep a colour through writing and reading', () => {
    for (const hex of ['#000000', '#5d6b4b', '#ffffff']) expect(toHex(fromHex(hex))).toBe(hex);
  });
});
