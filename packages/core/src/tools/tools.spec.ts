import { forecastOf } from '../testing/forecasts';
import { after, coat, distress, FIRST, planOf, room, when } from '../testing/plans';
import { DISTRESS_TOOLS, type DistressTool, toolOf } from './tools';

describe('tools that take off no more than what is loose (common practice)', () => {
  const worked = (tool: DistressTool | null, um = 90): { chipped: number; worn: number } => {
    const { whole } = forecastOf(
      planOf(
        [
          coat('a', 'milk', um, FIRST),
          coat('b', 'milk', um, when('recoat')),
          ...(tool === null ? [] : [distress('d', tool, after(86_400))]),
        ],
        room(),
        'sealed',
      ),
    );
    return { chipped: whole.chippedShare, worn: whole.wornShare };
  };

  it('pull more of a flaking paint off the harder they go: fingers, tapping, a scraper', () => {
    const by = (['fingers', 'tap', 'scrape'] as const).map((tool) => worked(tool).chipped);
    expect(by[0]).toBeGreaterThan(worked(null).chipped + 0.005);
    expect([...by].sort((a, b) => a - b)).toEqual(by);
  });

  it('wear nothing through', () => {
    for (const tool of DISTRESS_TOOLS.filter((key) => toolOf(key).action === 'lift'))
      expect(worked(tool).worn).withContext(tool).toBe(0);
    expect(worked('sand').worn).toBeGreaterThan(0);
  });

  it('leave paint that holds where it is', () => {
    const held = (tool: DistressTool): number =>
      forecastOf(planOf([coat('a', 'latex', 90, FIRST), distress('d', tool, after(86_400))])).whole
        .chippedShare;
    expect(held('fingers')).toBeLessThan(1e-3);
  });

  it('take more by a machine than by hand, and less with what gives', () => {
    const taken = (tool: DistressTool, wait: number): number =>
      forecastOf(
        planOf([
          coat('a', 'latex', 90, FIRST),
          coat('b', 'chalk', 70, when('recoat')),
          distress('d', tool, after(wait)),
        ]),
      ).removals[0]!.depth;
    expect(taken('sander', 86_400)).toBeGreaterThan(1.4 * taken('sand', 86_400));
    expect(taken('knife', 3600)).toBeLessThan(taken('blade', 3600));
    expect(taken('towel', 3600)).toBeLessThan(taken('cloth', 3600));
    expect(taken('press', 3600)).toBeGreaterThan(taken('sponge', 3600));
  });

  it('go deep in single lines with a point, and leave what is between', () => {
    const by = (tool: DistressTool, rounds: number): { depth: number; share: number } =>
      forecastOf(
        planOf([
          coat('a', 'latex', 90, FIRST),
          coat('b', 'chalk', 80, when('recoat')),
          distress('d', tool, after(86_400), { rounds }),
        ]),
      ).removals[0]!;
    const nail = by('scratch', 4);
    // As much taken off on the whole, by an edge, goes through nowhere yet.
    const edge = by('scrape', 2);
    expect(nail.depth).toBeLessThan(1.2 * edge.depth);
    expect(nail.share).toBeGreaterThan(0.02);
    expect(nail.share).toBeLessThan(0.3);
    expect(nail.share).toBeGreaterThan(3 * edge.share);
  });

  it('work hardest at rims where a pad or an edge presses', () => {
    for (const key of DISTRESS_TOOLS) {
      const { action, exposure, lines } = toolOf(key);
      const gathers = lines !== true && (action === 'sand' || action === 'cut' || action === 'rub');
      expect(exposure.corner > exposure.edge && exposure.edge > exposure.field)
        .withContext(key)
        .toBe(gathers);
    }
  });
});
