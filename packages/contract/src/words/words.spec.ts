import {
  FIGURE_KEYS,
  FINDING_CODES,
  MEDIUM_KEYS,
  PREP_STEPS,
  type PrepReason,
  START_STATES,
  STROKES,
} from '@zaffet/core';
import { duration, figures, mm, perCent, um } from './format';
import { FIGURE_WORDS, layerWord, mediumName, START_STATE_NAMES, STROKE_NAMES } from './names';
import { figureText, findingWords, moverText, prepWords } from './sentences';
import { samplePlan } from '../testing/plan';

describe('numbers as a painter says them', () => {
  it('keeps two or three figures', () => {
    expect([0, 0.0123, 0.456, 5.92, 12.7, 184.4, -3.04].map(figures)).toEqual([
      '0',
      '0.012',
      '0.46',
      '5.9',
      '13',
      '184',
      '-3',
    ]);
    expect([mm(0.00592), um(42.6e-6), perCent(0.154)]).toEqual(['5.9 mm', '43 µm', '15 %']);
  });

  it('says lengths of time in the unit that fits', () => {
    const said = [40, 89, 100, 240, 3000, 3600, 4800, 36000, 43200, 172800, 1e6].map(duration);
    expect(said).toEqual([
      '40 s',
      '89 s',
      '1.7 min',
      '4 min',
      '50 min',
      '1 h',
      '1 h 20',
      '10 h',
      '12 h',
      '2 days',
      '12 days',
    ]);
  });
});

describe('names', () => {
  it('exist for every medium, stroke, state, figure', () => {
    for (const key of MEDIUM_KEYS) expect(mediumName(key).length).toBeGreaterThan(3);
    for (const key of STROKES) expect(STROKE_NAMES[key]).toBeDefined();
    for (const key of START_STATES) expect(START_STATE_NAMES[key]).toBeDefined();
    for (const key of FIGURE_KEYS) expect(FIGURE_WORDS[key].meaning).toMatch(/\.$/);
  });

  it('call layers what they are to the stack', () => {
    const { steps } = samplePlan();
    expect(steps.map((step) => layerWord(steps, step.id))).toEqual(['base coat', 'glue', 'top coat']);
    expect(layerWord(steps, 'nobody')).toBe('coat');
    expect(layerWord(steps.slice(0, 1), steps[0]!.id)).toBe('coat');
  });
});

describe('sentences', () => {
  it('exist for every finding: what it is, why, and for trouble what to do', () => {
    for (const code of FINDING_CODES) {
      const words = findingWords({
        code,
        level: 'warn',
        coatId: 'x',
        values: {
          opensAt: 60,
          closesAt: 300,
          laidAt: 400,
          strength: 0.3,
          humidity: 0.85,
          passes: 5,
          left: 0.2,
          thickness: 1e-5,
        },
      });
      expect(words.title).withContext(code).toMatch(/\.$/);
      expect(words.text).withContext(code).toMatch(/\.$/);
      expect(`${words.title}${words.text}${words.remedy}`)
        .withContext(code)
        .not.toMatch(/undefined|NaN/);
    }
  });

  it('say how far a knob moves a figure, with sign and unit', () => {
    const layer = (): string => 'glue';
    expect(
      moverText('spacing', { knob: { kind: 'thickness', coatId: 'g', by: 20e-6 }, change: 0.0004 }, layer),
    ).toBe('+20 µm glue: +0.4 mm');
    expect(
      moverText('strength', { knob: { kind: 'moment', coatId: 't', by: 120 }, change: -0.1 }, layer),
    ).toBe('2 min later: −10 points');
    expect(moverText('opening', { knob: { kind: 'passes', coatId: 't', by: 1 }, change: null }, layer)).toBe(
      'one more brush pass: nothing cracks',
    );
    expect(
      moverText('firstCracks', { knob: { kind: 'temperature', coatId: null, by: 3 }, change: -36 }, layer),
    ).toBe('3 °C warmer: −36 s');
    expect(
      moverText('openArea', { knob: { kind: 'humidity', coatId: null, by: 0.1 }, change: 0.02 }, layer),
    ).toBe('10 points damper: +2 points');
  });

  it('give each figure its unit', () => {
    expect(figureText('firstCracks', 240)).toEqual({ number: '4', unit: 'min' });
    expect(figureText('firstCracks', 5000)).toEqual({ number: '1 h 23', unit: '' });
    expect(figureText('openArea', 0.1534)).toEqual({ number: '15', unit: '%' });
  });

  it('give each step of preparation its words and its reason', () => {
    const reasons: PrepReason[] = [
      'age-unknown',
      'flaking',
      'always',
      'handled',
      'waxed',
      'slick',
      'tannin-wood',
      'raw-wood-drinks',
      'mdf-swells',
    ];
    for (const step of PREP_STEPS)
      expect(prepWords({ step, because: 'always', caution: false }).text).toMatch(/\.$/);
    for (const because of reasons)
      expect(prepWords({ step: 'degrease', because, caution: false }).reason.length).toBeGreaterThan(8);
  });
});
