import { type Lesson } from '@zaffet/core/calibrate';
import { type FactorKey } from '@zaffet/core/media';
import { lessonText } from './calibration';

const lesson = (key: FactorKey, factor: number): Lesson => ({ key, factor, within: 1.12, withinBefore: 2 });

describe('what was learned, in words', () => {
  it('says which way, how much and how sure', () => {
    expect(lessonText(lesson('slip:pva', 1.3), [])).toBe(
      'White glue slips 30 % more than the table; sure to within 12 %.',
    );
    expect(lessonText(lesson('air', 0.8), [])).toBe(
      'The shop dries 20 % slower than the table; sure to within 12 %.',
    );
    expect(lessonText(lesson('dry:chalk', 1.25), [])).toMatch(/^Water leaves .* 25 % quicker than the table/);
    expect(lessonText(lesson('tough:milk', 0.7), [])).toMatch(
      /bears 30 % less than the table before it cracks/,
    );
    expect(lessonText(lesson('wear:sand', 1.01), [])).toMatch(/^Sandpaper takes off as the table says/);
  });

  it('names media of the painter’s own', () => {
    const own = { key: 'own-1', name: 'Old tin', like: 'chalk', changes: {} };
    expect(lessonText(lesson('strain:own-1', 1.5), [own] as never)).toContain('Old tin shrinks 50 % more');
  });
});
