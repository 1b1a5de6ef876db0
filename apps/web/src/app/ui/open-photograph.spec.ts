import { openPhotograph, PhotographRefused } from './open-photograph';

/** A picture as a file. */
async function pictureOf(width: number, height: number, type = 'image/png'): Promise<File> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d')!;
  context.fillStyle = '#2f4c50';
  context.fillRect(0, 0, width, height);
  return new File([await canvas.convertToBlob({ type })], 'picture', { type });
}
const refusal = async (file: File): Promise<string> => {
  try {
    await openPhotograph(file);
    return 'opened';
  } catch (error) {
    return error instanceof PhotographRefused ? error.message : 'another error';
  }
};

describe('opening a photograph', () => {
  it('gives its pixels, and what it says of the lens', async () => {
    for (const type of ['image/png', 'image/jpeg']) {
      const { picture, focal35 } = await openPhotograph(await pictureOf(120, 80, type));
      expect([picture.width, picture.height, focal35]).toEqual([120, 80, null]);
      expect(Math.abs(picture.data[0]! - 0x2f)).toBeLessThan(4);
    }
  });

  it('makes a very large one smaller', async () => {
    const { picture } = await openPhotograph(await pictureOf(6000, 1000));
    expect([picture.width, picture.height]).toEqual([4500, 750]);
  });

  it('refuses by its head what is no picture, HEIC, or more pixels than any memory is for', async () => {
    expect(await refusal(new File(['words'], 'a.jpg'))).toMatch(/cannot be opened/);
    const heic = new File([new Uint8Array([0, 0, 0, 24]), 'ftypheic', new Uint8Array(80)], 'a.heic');
    expect(await refusal(heic)).toMatch(/HEIC.*JPEG/);
    // Width and height stand in the head of a PNG: nobody unpacks the rest.
    const bytes = new Uint8Array(await (await pictureOf(10, 10)).arrayBuffer());
    new DataView(bytes.buffer).setUint32(16, 40_000);
    new DataView(bytes.buffer).setUint32(20, 40_000);
    expect(await refusal(new File([bytes], 'bomb.png'))).toMatch(/50 million/);
    const large = new File([new Uint8Array(25_000_001)], 'large.jpg');
    expect(await refusal(large)).toMatch(/25 MB/);
  });
});
