import { type Plan, USUAL_MEASURES, METRIC } from '@zaffet/contract';
import { FIGURE_KEYS } from '@zaffet/core/readout';
import { FIGURE_WORDS, figureText } from '@zaffet/words';
import { newPlan, partPlan, type School, SCHOOL_KEYS, timetable } from '@zaffet/workshop';
import { plansToCompare, valuesOf } from '../../../../packages/workshop/src/testing/rooms';
import { INCHES_BY_12_HOURS, writtenOtherwise } from '../../../../packages/words/src/testing/notation';
import { jobSheet } from './content';
import { createRequire } from 'node:module';
import { PNG } from 'pngjs';
import { mapPicture, stackSvg } from './drawings';
import { openFont } from './letters';

const SHELF = { items: [], measures: USUAL_MEASURES };
const plan = (school: School): Plan => {
  let id = 0;
  return newPlan(school, 'Lamp shelf', 7, '2026-07-06T08:00:00.000Z', () => `s${++id}`);
};

describe('job sheet', () => {
  it('tells every step in order with its time, what to mix, and what to beware of, for every school', () => {
    for (const school of SCHOOL_KEYS) {
      const filed = plan(school);
      const sheet = jobSheet(filed, 'UTC', METRIC, SHELF);
      const [finish] = sheet.finishes;
      expect(finish!.steps.map(({ number }) => number)).toEqual(partPlan(filed).steps.map((_, i) => i + 1));
      expect(finish!.steps.every(({ detail, title }) => title !== '' && !/NaN|undefined/.test(detail)))
        .withContext(school)
        .toBeTrue();
      expect(sheet.mixes.length).withContext(school).toBeGreaterThan(1);
      expect(sheet.mixes.every(({ detail }) => /spoon|dish/.test(detail)))
        .withContext(school)
        .toBeTrue();
      if (school === 'wet-glue' || school === 'dried-medium')
        expect(finish!.figures.map(({ name }) => name)).toEqual(
          jasmine.arrayContaining(['Crack spacing', 'Crack opening', 'Contrast']),
        );
      expect(sheet.cautions.every(({ lines }) => lines.length > 0)).toBeTrue();
      expect(sheet.deference).toMatch(/label/);
      expect(sheet.parts[0]!.prep.length).toBeGreaterThan(0);
      const shares = finish!.layers.map(({ share }) => Number.parseFloat(share));
      expect(shares.reduce((sum, share) => sum + share, 0))
        .withContext(school)
        .toBeGreaterThan(97);
    }
  });

  it('tells each finish once, with the parts that get it, and leaves out what is left out', () => {
    const filed = plan('dried-medium');
    const [part] = filed.piece.parts;
    const [finish] = filed.finishes;
    const own = {
      ...finish!,
      id: 'own',
      name: 'Top',
      steps: finish!.steps.map((s, i) => ({ ...s, id: `t${i}`, off: i === 1 })),
    };
    const whatIf = {
      ...own,
      id: 'try',
      whatIfOf: 'own',
      steps: own.steps.map((s) => ({ ...s, id: `w${s.id}` })),
    };
    const sheet = jobSheet(
      {
        ...filed,
        piece: {
          name: 'Chest',
          bodies: [],
          parts: [
            part!,
            { ...part!, id: 'front', name: 'Front', facing: 'front' },
            { ...part!, id: 'top', name: 'Top', facing: 'top', finish: 'own', prepared: ['degrease'] },
          ],
        },
        finishes: [finish!, own, whatIf],
      },
      'UTC',
      METRIC,
      SHELF,
    );
    expect(sheet.finishes.map(({ title }) => title)).toEqual(['Finish', 'Top']);
    expect(sheet.finishes[0]!.subtitle).toMatch(/^For panel, front; .*of the largest, panel/);
    expect(sheet.finishes[1]!.steps.length).toBe(2);
    const lines = sheet.days.flatMap(({ lines: own }) => own);
    for (const name of ['panel', 'front', 'top'])
      expect(lines.some(({ title }) => title.split(': ')[1]!.includes(name)))
        .withContext(name)
        .toBeTrue();
    expect(sheet.parts[2]!.prep.join()).not.toMatch(/degrease/i);
  });

  it("goes by the shop's clock, and by UTC where nobody knows the zone", () => {
    const prepared = plan('wet-glue');
    const begun = { ...prepared, timing: { ...prepared.timing, prepares: false } };
    const at = (zone: string): string => jobSheet(begun, zone, METRIC, SHELF).finishes[0]!.steps[0]!.at;
    expect(at('Europe/Lisbon')).toBe('Mon 6 Jul, 09:00');
    expect(at('Atlantis/Deep')).toBe('Mon 6 Jul, 08:00 UTC');
  });

  it('is written in inches, ounces and by 12 hours for a shop that works so, of each technique', () => {
    for (const each of plansToCompare(0)) {
      const sheet = jobSheet(each, 'UTC', INCHES_BY_12_HOURS, SHELF);
      // A map's place numbers are no text.
      const said = sheet.finishes.map(({ maps: _maps, ...rest }) => rest);
      expect(writtenOtherwise(JSON.stringify({ ...sheet, finishes: said })))
        .withContext(each.name)
        .toEqual([]);
    }
  });

  it('has the figures that every other room has, of each technique', () => {
    for (const compared of plansToCompare(10)) {
      const [part] = compared.piece.parts;
      const expected = valuesOf(compared, part!.id, timetable(compared));
      const shown = jobSheet(compared, 'UTC', METRIC, SHELF).finishes[0]!.figures;
      expect(shown.length).toBeGreaterThan(0);
      for (const { name, value } of shown) {
        const key = FIGURE_KEYS.find((figure) => FIGURE_WORDS[figure].name === name)!;
        const { number, unit } = figureText(key, expected[key]!, 'metric');
        expect(value).withContext(`${compared.name}: ${name}`).toBe(`${number} ${unit}`.trim());
      }
    }
  });

  it('says the latest moment where a window closes', () => {
    const glue = jobSheet(plan('wet-glue'), 'UTC', METRIC, SHELF).finishes[0]!.steps[1]!;
    expect(glue.lookFor).toMatch(/^takes the next coat from .+ until .+ at the latest$/);
  });

  it('draws the stack to scale with names made harmless, and maps as pictures, dark where more is done', () => {
    const svg = stackSvg([
      { name: 'Salt & <sand>', colour: '#112233', dry: 30e-6, dryText: '30 µm' },
      { name: 'Top', colour: '#ddeeff', dry: 90e-6, dryText: '90 µm' },
    ]);
    expect(svg).toContain('Salt &amp; &lt;sand&gt;, 30 µm dry');
    const heights = [...svg.matchAll(/height="([\d.]+)" fill="#(?:112233|ddeeff)"/g)].map(([, h]) =>
      Number(h),
    );
    expect(heights[1]! / heights[0]!).toBeCloseTo(3, 1);
    const address = mapPicture({ columns: 2, rows: 1, percent: [0, 80] });
    const { width, height, data } = PNG.sync.read(Buffer.from(address.split(',')[1]!, 'base64'));
    expect([width, height]).toEqual([2, 1]);
    expect(data[0]).toBe(255);
    expect(data[4]!).toBeLessThan(120);
  });

  it('prints the letters its font has, and says where it has not', () => {
    const roboto = createRequire(import.meta.url).resolve('pdfmake/fonts/Roboto/Roboto-Regular.ttf');
    const { print } = openFont(roboto);
    expect(print({ name: 'Łódź, Αλφα, Маяк', rows: ['1 × 2 µm', 3] })).toEqual({
      printed: { name: 'Łódź, Αλφα, Маяк', rows: ['1 × 2 µm', 3] },
      lost: false,
    });
    expect(print({ name: '灯台 chest 🎨', map: { percent: ['灯'] } })).toEqual({
      printed: { name: '?? chest ?', map: { percent: ['灯'] } },
      lost: true,
    });
  });
});
