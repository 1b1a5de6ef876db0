import { blendOf, MANNERS, MIXTURES, stepAt } from './blend';
import { deltaE2000 } from './difference';
import { fromHex, toHex } from './rgb';

const BLUE = '#203040';
const STRAW = '#d8c070';
const RUST = '#a4502f';

describe('colours of one coat', () => {
  it('beside each other come to their mean by area', () => {
    const { mean } = blendOf(
      [
        { colour: BLUE, share: 0.7 },
        { colour: STRAW, share: 0.3 },
      ],
      'side-by-side',
    );
    const [blue, straw] = [fromHex(BLUE), fromHex(STRAW)];
    const byArea = [0, 1, 2].map((c) => 0.7 * blue[c]! + 0.3 * straw[c]!);
    expect(deltaE2000(mean, toHex([byArea[0]!, byArea[1]!, byArea[2]!]))).toBeLessThan(1);
  });

  it('mix as pigments where they run into each other, darker than side by side', () => {
    const light = (hex: string): number => fromHex(hex).reduce((sum, channel) => sum + channel, 0);
    const [side, blended, wet] = MANNERS.map((manner) =>
      light(
        blendOf(
          [
            { colour: BLUE, share: 0.5 },
            { colour: STRAW, share: 0.5 },
          ],
          manner,
        ).mean,
      ),
    );
    expect(blended!).toBeLessThan(side!);
    expect(wet!).toBeLessThan(blended!);
  });

  it('each keep their share, however many there are', () => {
    const tones = [
      { colour: BLUE, share: 0.5 },
      { colour: STRAW, share: 0.2 },
      { colour: RUST, share: 0.3 },
    ];
    const { splits } = blendOf(tones, 'wet-in-wet');
    let left = 1;
    splits.forEach((split, i) => {
      let own = 0;
      for (let k = 0; k < 1000; k++) own += 1 - stepAt(split, (k + 0.5) / 1000) / MIXTURES;
      expect((left * own) / 1000).toBeCloseTo(tones[i]!.share, 2);
      left *= 1 - own / 1000;
    });
    expect(left).toBeCloseTo(0.3, 2);
  });
});
