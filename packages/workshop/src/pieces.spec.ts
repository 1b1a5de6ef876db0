import { type Part, type Plan } from '@zaffet/contract';
import { unfold } from '@zaffet/core/piece';
import { prepWords } from '@zaffet/words';
import { bodied, newPlan } from './newPlan';
import { PIECE_KEYS, pieceParts, PIECES } from './pieces';
import { prepOf } from './prepare';
import { partPlan } from './partPlan';
import { parsePlan } from '@zaffet/contract/schemas';

const GAP = 0.04;

describe('templates of pieces', () => {
  let id = 0;
  const nextId = (): string => `p${++id}`;
  const planWith = (parts: readonly Part[]): Plan => {
    const plan = newPlan('dried-medium', 'Piece', 7, '2026-05-12T08:00:00Z', nextId);
    const finish = plan.finishes[0]!.id;
    return {
      ...plan,
      piece: bodied(
        'Piece',
        parts.map((part) => ({ ...part, finish })),
      ),
    };
  };

  for (const key of PIECE_KEYS) {
    it(`give valid parts that unfold without touching: ${key}`, () => {
      const parts = pieceParts(key, PIECES[key].usual, 'f', nextId);
      const plan = planWith(parts);
      expect(parsePlan(plan)).toEqual(plan);
      const { placed } = unfold(
        parts.map(({ id: partId, facing, widthMm, heightMm }) => ({
          id: partId,
          facing,
          width: widthMm / 1000,
          height: heightMm / 1000,
        })),
        GAP,
      );
      for (const a of placed)
        for (const b of placed)
          if (a !== b)
            expect(
              a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height,
            ).toBeFalse();
      for (const part of parts)
        for (const zone of part.zones) {
          expect(zone.leftMm).toBeLessThan(part.widthMm);
          expect(zone.topMm).toBeLessThan(part.heightMm);
        }
      for (const part of plan.piece.parts)
        for (const hint of prepOf(partPlan(plan, part.id))) expect(prepWords(hint).text).toMatch(/[.]$/);
    });

    it(`stay within what a part may be, however large or small: ${key}`, () => {
      for (const mm of [20, 3000]) {
        const size = { widthMm: mm, heightMm: mm, depthMm: mm };
        const plan = planWith(pieceParts(key, size, 'f', nextId));
        expect(() => parsePlan(plan))
          .withContext(String(mm))
          .not.toThrow();
      }
    });
  }

  it('follow the sizes: a chest as wide as it is told, its sides as deep', () => {
    const parts = pieceParts('chest', { widthMm: 700, heightMm: 350, depthMm: 300 }, 'f', nextId);
    const size = (name: string): number[] => {
      const part = parts.find((candidate) => candidate.name === name)!;
      return [part.widthMm, part.heightMm];
    };
    expect(size('Lid')).toEqual([700, 300]);
    expect(size('Front')).toEqual([700, 350]);
    expect(size('Left side')).toEqual([300, 350]);
  });

  it('know what comes off and what has to be stood', () => {
    const table = pieceParts('side-table', PIECES['side-table'].usual, 'f', nextId);
    expect(table.find(({ name }) => name === 'Top')!.use).toBe('hot-cups');
    const plan = planWith(table);
    const drawer = table.find(({ name }) => name === 'Drawer front')!;
    expect(prepOf(partPlan(plan, drawer.id)).map(({ step }) => step)).toContain('take-off');
  });
});
