import { type PictureHead, pictureHead } from './head';

const bytes = (...parts: (number[] | string)[]): Uint8Array =>
  Uint8Array.from(
    parts.flatMap((part) => (typeof part === 'string' ? [...part].map((c) => c.charCodeAt(0)) : part)),
  );
const START = [0xff, 0xd8];
const frame = (marker: number): number[] => [0xff, marker, 0, 11, 8, 0, 80, 0, 120, 1, 1, 0x11, 0];
const segment = (marker: number, length: number): number[] => [
  ...[0xff, marker, length >> 8, length & 255],
  ...Array<number>(length - 2).fill(7),
];
const many = (piece: readonly number[], times: number): Uint8Array => {
  const all = new Uint8Array(START.length + piece.length * times);
  all.set(START);
  for (let i = 0; i < times; i++) all.set(piece, START.length + i * piece.length);
  return all;
};

describe('the head of a picture', () => {
  it('is read from a JPEG of any kind of frame, behind whatever its camera put before it', () => {
    const size: PictureHead = { type: 'image/jpeg', width: 120, height: 80 };
    for (const marker of [0xc0, 0xc2, 0xcf])
      expect(pictureHead(bytes(START, segment(0xe1, 40), frame(marker)))).toEqual(size);
    // A depth map of 650 kB.
    const depth = Array.from({ length: 10 }, () => segment(0xe1, 65_535)).flat();
    expect(pictureHead(Uint8Array.from([...START, ...depth, ...frame(0xc0)]))).toEqual(size);
    // Huffman tables and arithmetic conditioning have markers among those of frames, and are none.
    for (const marker of [0xc4, 0xc8, 0xcc])
      expect(pictureHead(bytes(START, segment(marker, 11), frame(0xc1)))).toEqual(size);
  });

  it('is read from a PNG and a WebP', () => {
    const ihdr = [
      0,
      0,
      0,
      13,
      ...[...'IHDR'].map((c) => c.charCodeAt(0)),
      0,
      0,
      0,
      90,
      0,
      0,
      0,
      60,
      8,
      6,
      0,
      0,
      0,
    ];
    expect(pictureHead(bytes('\x89PNG\r\n\x1a\n', ihdr))).toEqual({
      type: 'image/png',
      width: 90,
      height: 60,
    });
    const vp8x = [0x0a, 0, 0, 0, 0, 0, 0, 0, 89, 0, 0, 59, 0, 0];
    expect(pictureHead(bytes('RIFF', [30, 0, 0, 0], 'WEBPVP8X', vp8x))).toEqual({
      type: 'image/webp',
      width: 90,
      height: 60,
    });
  });

  it('of another format has no type, and of none is null', () => {
    expect(pictureHead(bytes('GIF89a', [90, 0, 60, 0, 0, 0, 0]))).toEqual({
      type: null,
      width: 90,
      height: 60,
    });
    for (const none of ['', 'words', '<svg>', '\xff\xd8\xff', '\x89PNG\r\n\x1a\n'])
      expect(pictureHead(bytes(none)))
        .withContext(none)
        .toBeNull();
  });

  it('is given up soon, however much follows', () => {
    const subarray = spyOn(Uint8Array.prototype, 'subarray').and.callThrough();
    const hostile = [
      many([], 1),
      // A head, then 24 MB of zeros; six million segments of nothing; an icon of three million entries.
      Uint8Array.from([...START, ...segment(0xe0, 16)]),
      many([0xff, 0xe0, 0, 2], 6_000_000),
      many([0xff, 0xe0, 0, 0], 6_000_000),
    ];
    const zeros = new Uint8Array(24_000_000);
    zeros.set(hostile[1]!);
    const icon = new Uint8Array(24_000_000);
    icon.set(bytes('icns', [1, 0x6e, 0x36, 0]));
    for (let at = 8; at < icon.length; at += 8) icon.set(bytes('ICON', [0, 0, 0, 8]), at);
    for (const all of [...hostile, zeros]) expect(pictureHead(all)).toBeNull();
    const head = pictureHead(icon);
    expect(head === null || head.type === null).toBeTrue();
    // What is looked at is cut off before anything is looked for.
    for (const [, end = Infinity] of subarray.calls.allArgs()) expect(end).toBeLessThanOrEqual(262_144);
  });
});
