import { turns } from './turns';
import { type Facing, type Placeable, type Placed } from './types';
import { unfold } from './unfold';

const part = (id: string, facing: Facing, width: number, height: number): Placeable => ({
  id,
  facing,
  width,
  height,
});
const CHEST = [
  part('lid', 'top', 0.9, 0.5),
  part('front', 'front', 0.9, 0.45),
  part('back', 'back', 0.9, 0.45),
  part('left', 'left', 0.5, 0.45),
  part('right', 'right', 0.5, 0.45),
  part('till', 'loose', 0.3, 0.2),
  part('plinth', 'front', 0.9, 0.1),
];
const GAP = 0.04;

const overlap = (a: Placed, b: Placed): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

describe('an unfolded piece', () => {
  const { placed, width, height } = unfold(CHEST, GAP);
  const at = (id: string): Placed => placed.find((p) => p.id === id)!;

  it('shows every part once, at its size, and none on another', () => {
    expect(placed.map(({ id }) => id).sort()).toEqual(CHEST.map(({ id }) => id).sort());
    for (const a of placed) {
      expect(a.width * a.height).toBeCloseTo(CHEST.find(({ id }) => id === a.id)!.width * a.height, 12);
      for (const b of placed)
        if (a !== b) expect(overlap(a, b)).withContext(`${a.id} on ${b.id}`).toBeFalse();
      expect(a.x + a.width).toBeLessThanOrEqual(width + 1e-9);
      expect(a.y + a.height).toBeLessThanOrEqual(height + 1e-9);
    }
  });

  it('unfolds as a carton does: lid above the front, sides beside it', () => {
    expect(at('lid').y + at('lid').height + GAP).toBeCloseTo(at('front').y, 9);
    expect(at('left').x + at('left').width + GAP).toBeCloseTo(at('front').x, 9);
    expect(at('front').x + at('front').width + GAP).toBeCloseTo(at('right').x, 9);
    expect(at('back').y + at('back').height + GAP).toBeCloseTo(at('lid').y, 9);
    expect(at('till').y).toBeGreaterThan(at('front').y + at('front').height);
  });

  it('lays loose panels in rows of their own', () => {
    const loose = Array.from({ length: 9 }, (_, i) => part(`p${i}`, 'loose', 0.4, 0.3));
    const sheet = unfold(loose, GAP);
    expect(sheet.width).toBeLessThan(2.2);
    expect(sheet.height).toBeLessThan(2.2);
    expect(unfold([], GAP)).toEqual({ placed: [], width: 0, height: 0 });
  });
});

// Common practice, no source.
describe('turning a piece', () => {
  it('brings every face up in turn, the top last, loose parts by themselves', () => {
    const all = turns(CHEST.map(({ id, facing }) => ({ id, facing, flat: true })));
    expect(all.map(({ up }) => up)).toEqual(['back', 'left', 'right', 'front', 'top', 'loose']);
    expect(all.find(({ up }) => up === 'front')?.partIds).toEqual(['front', 'plinth']);
  });

  it('leaves standing parts where they are', () => {
    expect(turns([{ id: 'side', facing: 'left', flat: false }])).toEqual([]);
  });
});
