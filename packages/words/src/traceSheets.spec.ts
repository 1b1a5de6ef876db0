import { type Plan } from '@zaffet/contract';
import { newPlan } from '@zaffet/workshop';
import { tracePages } from './traceSheets';

let n = 0;
const made = newPlan('wax-resist', 'Lamp <shelf>', 7, '2026-07-06T08:00:00.000Z', () => `t${++n}`);
const stepId = made.finishes[0]!.steps.find(({ kind }) => kind === 'resist')!.id;
const [COLUMNS, ROWS] = [120, 80];
/** Strongest in the middle, falling off evenly: lines of equal strength are circles. */
const RADIUS = 150;
const partId = made.piece.parts[0]!.id;
const plan: Plan = {
  ...made,
  piece: {
    ...made.piece,
    parts: made.piece.parts.map((part) => ({
      ...part,
      widthMm: 600,
      heightMm: 400,
      maps: {
        [stepId]: {
          columns: COLUMNS,
          rows: ROWS,
          percent: Array.from({ length: COLUMNS * ROWS }, (_, i) => {
            const [x, y] = [((i % COLUMNS) + 0.5) * 5 - 300, (Math.floor(i / COLUMNS) + 0.5) * 5 - 200];
            return Math.max(0, Math.round(100 * (1 - Math.hypot(x, y) / RADIUS)));
          }),
        },
      },
    })),
  },
};

describe('a map to trace', () => {
  const pages = tracePages(plan, partId, stepId)!;

  it('is a tile for each sheet that the part needs, each at its own size', () => {
    // 600 × 400 mm on tiles of 186 × 249 mm.
    expect(pages.map(({ name }) => name)).toEqual(['A1', 'B1', 'C1', 'D1', 'A2', 'B2', 'C2', 'D2']);
    for (const { svg } of pages) expect(svg).toContain('width="210mm" height="297mm" viewBox="0 0 210 297"');
    expect(tracePages(plan, partId, 'another')).toBeNull();
    expect(tracePages(plan, 'another', stepId)).toBeNull();
    expect(tracePages(made, partId, stepId)).toBeNull();
  });

  it('draws lines where the step is that strong, in millimetres of the part', () => {
    const paths = [...pages[0]!.svg.matchAll(/<path d="([^"]+)"/g)].map(([, d]) =>
      [...d!.matchAll(/([\d.]+),([\d.]+)/g)].map(([, x, y]) => Math.hypot(Number(x) - 300, Number(y) - 200)),
    );
    // Circles of three quarters, a half and a quarter of the radius; nothing is as strong as all of it, or more.
    expect(paths.length).toBe(3);
    for (const [i, share] of [0.75, 0.5, 0.25].entries())
      for (const radius of paths[i]!) expect(Math.abs(radius - share * RADIUS)).toBeLessThan(2.5);
  });

  it('lays each tile where it belongs, so that together they are the part', () => {
    const windows = pages.map(({ svg }) => {
      const clip =
        /<clipPath id="tile"><rect x="([\d.]+)" y="([\d.]+)" width="([\d.]+)" height="([\d.]+)"/.exec(svg)!;
      const moved = /<g transform="translate\((-?[\d.]+) (-?[\d.]+)\)/.exec(svg)!;
      const frames = [
        ...svg.matchAll(/<rect x="([\d.]+)" y="([\d.]+)" width="([\d.]+)" height="([\d.]+)" fill="none"/g),
      ];
      const [x, y, width, height] = clip.slice(1).map(Number) as [number, number, number, number];
      const [dx, dy] = moved.slice(1).map(Number) as [number, number];
      const frame = frames.at(-1)!.slice(1).map(Number);
      // What is seen of the drawing fills the frame on the sheet.
      expect(frame).toEqual([x + dx, y + dy, width, height]);
      return { x, y, width, height };
    });
    expect(windows.reduce((sum, { width, height }) => sum + width * height, 0)).toBeCloseTo(600 * 400, 6);
    expect(Math.max(...windows.map(({ x, width }) => x + width))).toBe(600);
    expect(Math.max(...windows.map(({ y, height }) => y + height))).toBe(400);
  });

  it('writes names as text, whatever is in them', () => {
    const named: Plan = {
      ...plan,
      piece: { ...plan.piece, parts: plan.piece.parts.map((part) => ({ ...part, name: 'A <b> & "c"' })) },
    };
    expect(tracePages(named, partId, stepId)![0]!.svg).not.toContain('<b>');
  });
});
