import { type History, type Panel } from '../plan';
import { prepHints } from './prep';

const panel = (substrate: Panel['substrate'], history: Partial<History> = {}): Panel => ({
  width: 0.5,
  height: 0.5,
  substrate,
  history: { handled: false, tannin: false, oldPaint: 'none', condition: 'sound', ...history },
  flat: true,
  use: 'display',
});
const steps = (...args: Parameters<typeof panel>): string[] =>
  prepHints(panel(...args)).map((hint) => hint.step);

// Common practice, no source.
describe('preparation', () => {
  it('always begins clean, for the reason that fits', () => {
    expect(prepHints(panel('primed'))[0]).toEqual({ step: 'degrease', because: 'always', caution: false });
    expect(prepHints(panel('primed', { handled: true }))[0]?.because).toBe('handled');
  });

  it('follows from the surface', () => {
    expect(steps('waxed')).toEqual(['degrease', 'dewax']);
    expect(steps('gloss')).toContain('scuff');
    expect(steps('mdf-edge')).toContain('seal-mdf');
    expect(steps('raw-softwood')).toContain('seal-raw-wood');
    expect(steps('scuffed')).toEqual(['degrease']);
  });

  it('stops tannin before it bleeds, once', () => {
    expect(steps('raw-hardwood', { tannin: true })).toEqual(['degrease', 'stop-tannin']);
    expect(steps('sealed', { tannin: true })).not.toContain('stop-tannin');
  });

  it('puts a test of old paint before everything that could raise its dust', () => {
    const hints = prepHints(panel('gloss', { oldPaint: 'unknown', condition: 'flaking' }));
    expect(hints.map((hint) => hint.step)).toEqual(['test-old-paint', 'loosen-flakes', 'degrease', 'scuff']);
    expect(hints[0]?.caution).toBeTrue();
    expect(hints[1]?.caution).toBeTrue();
  });
});
