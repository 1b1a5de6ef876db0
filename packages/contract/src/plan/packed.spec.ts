import fc from 'fast-check';
import { filePlan, unfilePlan } from './file';
import { packBits, packPercent, unpackBits, unpackPercent } from './packed';
import { largePlan } from '../../../workshop/src/testing/large';

const bytes = (hex: string): Uint8Array =>
  Uint8Array.from(hex.split(' ').map((byte) => Number.parseInt(byte, 16)));

describe('packing', () => {
  /** Apple Technical Note TN1023, "Understanding PackBits", 1996: its worked example, from memory. */
  it("unpacks the standard's example, and packs it no longer", () => {
    const packed = bytes('FE AA 02 80 00 2A FD AA 03 80 00 2A 22 F7 AA');
    const whole = bytes('AA AA AA 80 00 2A AA AA AA AA 80 00 2A 22 AA AA AA AA AA AA AA AA AA AA');
    expect(unpackBits(packed, whole.length)).toEqual(whole);
    expect(packBits(whole)).toEqual(packed);
    expect(unpackBits(bytes('80 FE AA 80'), 3)).toEqual(bytes('AA AA AA'));
  });

  it('gives back any bytes, and takes at most one more for each 128', () => {
    const runs = fc
      .array(fc.tuple(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 1, max: 300 })), { maxLength: 12 })
      .map((list) => Uint8Array.from(list.flatMap(([value, times]) => new Array<number>(times).fill(value))));
    fc.assert(
      fc.property(fc.oneof(fc.uint8Array({ maxLength: 700 }), runs), (whole) => {
        const packed = packBits(whole);
        expect(unpackBits(packed, whole.length)).toEqual(whole);
        expect(packed.length).toBeLessThanOrEqual(whole.length + Math.ceil(whole.length / 128));
      }),
    );
  });

  it('refuses what holds more, fewer or no such bytes', () => {
    const packed = packBits(Uint8Array.of(7, 7, 7, 7));
    expect(unpackBits(packed, 3)).toBeNull();
    expect(unpackBits(packed, 5)).toBeNull();
    expect(unpackBits(Uint8Array.of(3, 1, 2), 4)).toBeNull();
    expect(unpackBits(Uint8Array.of(250), 7)).toBeNull();
    expect(unpackPercent('not base64!', 4)).toBeNull();
    expect(unpackPercent(packPercent([1, 2, 3]), 3)).toEqual([1, 2, 3]);
    // Above 255 % a second plane follows; one more, or a broken one, is no map.
    expect(packPercent([0, 255])).not.toContain('.');
    expect(unpackPercent(packPercent([0, 255, 256, 400]), 4)).toEqual([0, 255, 256, 400]);
    expect(unpackPercent(`${packPercent([0, 400])}.AA==`, 2)).toBeNull();
    expect(unpackPercent(`${packPercent([0, 4])}.not base64!`, 2)).toBeNull();
  });
});

describe('a plan as it is filed', () => {
  it('is the same plan again, packs only maps that changed, and fits a request', () => {
    const plan = largePlan(12, 9, 160);
    const file = filePlan(plan);
    expect(unfilePlan(file)).toEqual(plan);
    expect(JSON.stringify(file).length).toBeLessThan(12e6);
    const [first, second] = plan.piece.parts;
    const [stepId, map] = Object.entries(first!.maps)[0]!;
    const changed = { ...map, percent: map.percent.map((cell) => Math.max(25, cell - 1)) };
    const parts = [{ ...first!, maps: { ...first!.maps, [stepId]: changed } }, second!];
    const again = filePlan({ ...plan, piece: { ...plan.piece, parts } });
    expect(again.piece.parts[1]!.maps).toEqual(file.piece.parts[1]!.maps);
    expect(Object.values(again.piece.parts[1]!.maps)[0]).toBe(Object.values(file.piece.parts[1]!.maps)[0]!);
    expect(again.piece.parts[0]!.maps[stepId]!.percent).not.toBe(file.piece.parts[0]!.maps[stepId]!.percent);
  });
});
