import { medium } from '../media';
import { type Companion, type History, type Panel, type Step } from '../plan';
import { coat, distress, FIRST, seal } from '../testing/plans';
import { beginningOf, type Circumstances, prepHints } from './prep';

const panel = (substrate: Panel['substrate'], history: Partial<History> = {}): Panel => ({
  width: 0.5,
  height: 0.5,
  substrate,
  history: { handled: false, tannin: false, coat: 'none', age: 'years', condition: 'sound', ...history },
  flat: true,
  use: 'display',
});
const steps = (...args: Parameters<typeof panel>): string[] =>
  prepHints(panel(...args)).map((hint) => hint.step);

const companion = (id: string, task: Companion['task']): Companion => ({
  kind: 'companion',
  id,
  task,
  hands: 600,
  rest: 0,
  start: FIRST,
});

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

  it('follows from what lies on it, and how long', () => {
    expect(steps('scuffed', { coat: 'wax' })).toContain('dewax');
    const oil = (age: History['age']): string | undefined =>
      prepHints(panel('scuffed', { coat: 'oil', age })).find(({ step }) => step === 'wait-oil')?.because;
    expect(oil('fresh')).toBe('fresh-oil');
    expect(oil('years')).toBe('old-oil');
    expect(steps('scuffed', { coat: 'unknown', age: 'years' })).toContain('test-hold');
    expect(steps('vinyl')).toContain('bond');
  });

  it('knows what comes off, what is masked, and damp wood', () => {
    const air = { temperature: 294.15, humidity: 0.5 };
    const all = prepHints(panel('raw-softwood'), { takenOff: true, masked: true, moisture: 0.16, air });
    expect(all.map(({ step }) => step)).toEqual([
      'take-off',
      'mask',
      'degrease',
      'dry-wood',
      'seal-raw-wood',
    ]);
    // 21 degC and 50 % bring wood to about 9.2 % (Wood Handbook, see wood/moisture.spec): 9 % is ready.
    expect(prepHints(panel('raw-softwood'), { moisture: 0.09, air }).map(({ step }) => step)).not.toContain(
      'dry-wood',
    );
  });

  it('stops tannin before it bleeds, once', () => {
    expect(steps('raw-hardwood', { tannin: true })).toEqual(['degrease', 'stop-tannin']);
    expect(steps('sealed', { tannin: true })).not.toContain('stop-tannin');
  });

  it('seals no wood that is stained or left to drink, and does nothing the plan begins with', () => {
    const begins = (steps: Step[]): Circumstances => ({ begins: beginningOf(steps, medium) });
    const first = (key: string, kind: 'coat' | 'seal' = 'coat'): Circumstances =>
      begins([kind === 'coat' ? coat('a', key, 90, FIRST) : seal('a', key, 60, FIRST)]);
    const prepared = (substrate: Panel['substrate'], around: Circumstances, tannin = false): string[] =>
      prepHints(panel(substrate, { tannin }), around).map(({ step }) => step);
    const washed = begins([companion('w', 'wash'), coat('a', 'chalk', 90, FIRST)]);
    expect(prepared('raw-softwood', first('chalk'))).toContain('seal-raw-wood');
    for (const around of [first('stain'), first('milk'), washed, first('shellac', 'seal'), first('primer')])
      expect(prepared('raw-softwood', around)).not.toContain('seal-raw-wood');
    expect(prepared('raw-hardwood', first('chalk'), true)).toContain('stop-tannin');
    // Milk paint soaks in, and brings the tannin up.
    expect(prepared('raw-hardwood', first('milk'), true)).toContain('stop-tannin');
    for (const around of [first('stain'), washed, first('shellac', 'seal')])
      expect(prepared('raw-hardwood', around, true)).not.toContain('stop-tannin');
    expect(prepared('mdf-edge', first('polyW', 'seal'))).not.toContain('seal-mdf');
    expect(prepared('metal', first('primer'))).not.toContain('bond');
    const sanded = begins([distress('s', 'sand', FIRST), coat('a', 'chalk', 90, FIRST)]);
    expect(prepared('gloss', sanded)).not.toContain('scuff');
    expect(
      prepared('gloss', begins([coat('a', 'chalk', 90, FIRST), distress('s', 'sand', FIRST)])),
    ).toContain('scuff');
  });

  it('puts a test of old paint before everything that could raise its dust', () => {
    const hints = prepHints(panel('gloss', { coat: 'unknown', age: 'unknown', condition: 'flaking' }));
    expect(hints.map((hint) => hint.step)).toEqual([
      'test-old-paint',
      'loosen-flakes',
      'degrease',
      'test-hold',
      'scuff',
    ]);
    expect(prepHints(panel('gloss', { coat: 'oil-paint', age: 'old' }))[0]?.because).toBe('age-old');
    expect(steps('gloss', { coat: 'oil-paint', age: 'years' })).not.toContain('test-old-paint');
    expect(hints[0]?.caution).toBeTrue();
    expect(hints[1]?.caution).toBeTrue();
  });
});
