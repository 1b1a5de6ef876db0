import { STROKES } from '@zaffet/core/crack';
import { HAZARD_CODES } from '@zaffet/core/hazard';
import { MEDIUM_KEYS } from '@zaffet/core/media';
import { FINDING_CODES } from '@zaffet/core/notes';
import { PREP_STEPS, START_STATES } from '@zaffet/core/plan';
import { type PrepReason } from '@zaffet/core/prep';
import { FIGURE_KEYS } from '@zaffet/core/readout';
import { SCHOOL_KEYS } from '@zaffet/workshop';
import {
  area,
  celsius,
  degrees,
  duration,
  figures,
  inches,
  parseInches,
  mm,
  perCent,
  spoonText,
  spreadShown,
  um,
  volume,
} from './format';
import { METHOD_WORDS } from './methods';
import { FIGURE_WORDS } from './figureNames';
import { layerWord, mediumName, START_STATE_NAMES, startWords, STROKE_NAMES, TASK_WORDS } from './names';
import { findingWords } from './findings';
import { HAZARD_DEFERENCE, hazardWords } from './hazards';
import { prepWords } from './prep';
import { figureRange, figureText, moverText } from './sentences';
import { samplePart } from '../../workshop/src/testing/plan';

describe('numbers as a painter says them', () => {
  it('writes and reads inches as a rule has them', () => {
    expect([17.72, 1, 0.5, 12.0625, 2.97].map(inches)).toEqual(['17 3/4', '1', '0.5', '12 1/16', '3']);
    const typed = ['17 3/4', '3/4', '17.5', '.5', ' 12 '];
    expect(typed.map(parseInches)).toEqual([17.75, 0.75, 17.5, 0.5, 12]);
    for (const wrong of ['', 'x', '1/2 3', '1/0', '17 3', '-1']) expect(parseInches(wrong)).toBeNaN();
  });

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
    expect([mm(0.00592, 'metric'), um(42.6e-6, 'metric'), perCent(0.154)]).toEqual([
      '5.9 mm',
      '43 µm',
      '15 %',
    ]);
  });

  it('gives a range one unit, or both where they differ', () => {
    expect([
      figureRange('spacing', 0.0042, 0.0111, 'metric'),
      figureRange('firstCracks', 7, 192, 'metric'),
      figureRange('chips', 0.31, 0.31, 'metric'),
      figureRange('spacing', 0.00996, 0.01004, 'metric'),
    ]).toEqual(['4.2 to 11 mm', '7 s to 3.2 min', '31 %', '10 mm']);
  });

  it('shows the same in imperial units', () => {
    expect([mm(0.0254, 'imperial'), um(25.4e-6, 'imperial'), celsius(293.15, 'imperial')]).toEqual([
      '1 in',
      '1 mil',
      '68 °F',
    ]);
    expect(degrees(3, 'imperial')).toBe('5.4 °F');
    expect([volume(29.5735e-6, 'imperial'), volume(0.0015, 'metric'), volume(2.5e-5, 'metric')]).toEqual([
      '1 fl oz',
      '1.5 L',
      '25 mL',
    ]);
    expect(area(0.09290304, 'imperial')).toBe('1 sq ft');
    // A gallon at one mil covers 1604 square feet.
    expect(spreadShown(1 / 25.4e-6, 'imperial').number).toBe('1604');
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
    const { steps } = samplePart();
    expect(steps.map((step) => layerWord(steps, step.id))).toEqual(['base coat', 'glue', 'top coat']);
    expect(layerWord(steps, 'nobody')).toBe('coat');
    expect(layerWord(steps.slice(0, 1), steps[0]!.id)).toBe('coat');
  });
});

describe('sentences', () => {
  it('exist for every finding: what it is, why, and for trouble what to do', () => {
    for (const code of FINDING_CODES) {
      const words = findingWords(
        {
          code,
          level: 'warn',
          stepId: 'x',
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
        },
        'metric',
      );
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
      moverText(
        'spacing',
        { knob: { kind: 'thickness', stepId: 'g', by: 20e-6 }, change: 0.0004 },
        layer,
        'metric',
      ),
    ).toBe('+20 µm glue: +0.4 mm');
    expect(
      moverText(
        'strength',
        { knob: { kind: 'moment', stepId: 't', by: 120 }, change: -0.1 },
        layer,
        'metric',
      ),
    ).toBe('2 min later: −10 points');
    expect(
      moverText('opening', { knob: { kind: 'passes', stepId: 't', by: 1 }, change: null }, layer, 'metric'),
    ).toBe('one more brush pass: nothing of the kind');
    expect(
      moverText(
        'firstCracks',
        { knob: { kind: 'temperature', stepId: null, by: 3 }, change: -36 },
        layer,
        'metric',
      ),
    ).toBe('3 °C warmer: −36 s');
    expect(
      moverText(
        'openArea',
        { knob: { kind: 'humidity', stepId: null, by: 0.1 }, change: 0.02 },
        layer,
        'metric',
      ),
    ).toBe('10 points damper: +2 points');
  });

  it('caution at every hazard, and never call anything safe', () => {
    for (const code of HAZARD_CODES) {
      const { title, cautions } = hazardWords(code);
      expect(title.length).toBeGreaterThan(3);
      expect(cautions.length).toBeGreaterThan(0);
      for (const caution of cautions) expect(caution).toMatch(/\.$/);
      expect(`${title} ${cautions.join(' ')}`).not.toMatch(/\b(is|are) safe\b|\bsafely\b/);
    }
    expect(HAZARD_DEFERENCE).toMatch(/label.*local codes.*licensed/);
  });

  it('give each figure its unit', () => {
    expect(figureText('firstCracks', 240, 'metric')).toEqual({ number: '4', unit: 'min' });
    expect(figureText('firstCracks', 5000, 'metric')).toEqual({ number: '1 h 23', unit: '' });
    expect(figureText('openArea', 0.1534, 'metric')).toEqual({ number: '15', unit: '%' });
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

describe('measures and moments in words', () => {
  it('count dishes and spoons as one says them', () => {
    expect(spoonText({ dishes: 2, spoons: 1, teaspoons: 1.5, volume: 0 })).toBe(
      '2 dishes, 1 spoon, 1½ teaspoons',
    );
    expect(spoonText({ dishes: 0, spoons: 0, teaspoons: 0.5, volume: 0 })).toBe('½ teaspoon');
    expect(spoonText({ dishes: 0, spoons: 0, teaspoons: 0, volume: 0 })).toBe('a few drops');
  });

  it('say when a step begins', () => {
    expect(startWords({ rule: 'after', waitMin: 0 })).toBe('right after');
    expect(startWords({ rule: 'after', waitMin: 2 })).toBe('2 min after the step before');
    expect(startWords({ rule: 'state', state: 'touch-dry', waitMin: 0 })).toBe(
      'when what is below is touch-dry',
    );
    expect(startWords({ rule: 'state', state: 'recoat', waitMin: 60 })).toMatch(
      /^when what is below takes a coat and .* more$/,
    );
  });

  it('have a sentence for every method and every task', () => {
    for (const school of SCHOOL_KEYS) expect(METHOD_WORDS[school]).toMatch(/[.]$/);
    for (const { how } of Object.values(TASK_WORDS)) expect(how).toMatch(/[.]$/);
  });
});
