/// <reference path="./pdfmake.d.ts" />
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake, { type Content } from 'pdfmake';
import { type JobSheet } from './content';

const FONTS = join(
  dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')),
  'fonts',
  'Roboto',
);
pdfmake.setFonts({
  Roboto: {
    normal: join(FONTS, 'Roboto-Regular.ttf'),
    bold: join(FONTS, 'Roboto-Medium.ttf'),
    italics: join(FONTS, 'Roboto-Italic.ttf'),
    bolditalics: join(FONTS, 'Roboto-MediumItalic.ttf'),
  },
});
// The sheet is made of the plan alone: its fonts are the only files it reads, and nothing is fetched.
pdfmake.setLocalAccessPolicy((path) => path.startsWith(FONTS));
pdfmake.setUrlAccessPolicy(() => false);

const INK = '#23262a';
const QUIET = '#5c6168';
const RUST = '#a8431f';

const heading = (text: string): Content => ({ text, style: 'heading' });

/** The job sheet as a PDF of A4 pages, to hang beside the work: a box to tick at every step. */
export function jobSheetPdf(sheet: JobSheet): Promise<Buffer> {
  return pdfmake
    .createPdf({
      info: { title: `${sheet.title}: job sheet` },
      pageSize: 'A4',
      pageMargins: [40, 40, 40, 44],
      defaultStyle: { font: 'Roboto', fontSize: 10, color: INK, lineHeight: 1.15 },
      styles: {
        title: { fontSize: 20, bold: true },
        heading: { fontSize: 13, bold: true, margin: [0, 14, 0, 4] },
        quiet: { color: QUIET },
      },
      footer: (page, pages) => ({
        text: `${sheet.title}, page ${page} of ${pages}`,
        style: 'quiet',
        fontSize: 8,
        margin: [40, 14, 40, 0],
      }),
      content: [
        { text: sheet.title, style: 'title' },
        { text: sheet.subtitle, style: 'quiet', margin: [0, 2, 0, 0] },
        heading('What to do'),
        {
          layout: 'lightHorizontalLines',
          table: {
            headerRows: 0,
            dontBreakRows: true,
            widths: [14, 16, 96, '*'],
            body: sheet.steps.map((step) => [
              { canvas: [{ type: 'rect', x: 0, y: 2, w: 10, h: 10, lineColor: INK }] },
              step.colour === null
                ? ''
                : {
                    canvas: [
                      { type: 'rect', x: 0, y: 2, w: 12, h: 10, color: step.colour, lineColor: QUIET },
                    ],
                  },
              { text: step.at, style: 'quiet' },
              [
                { text: `${step.number}. ${step.title}`, bold: true },
                step.detail,
                ...(step.lookFor === '' ? [] : [{ text: step.lookFor, style: 'quiet' }]),
              ],
            ]),
          },
        },
        heading('What to mix'),
        {
          layout: 'lightHorizontalLines',
          table: {
            headerRows: 0,
            widths: [130, 60, '*'],
            body: sheet.mixes.map(({ title, amount, detail }) => [
              { text: title, bold: true },
              amount,
              detail,
            ]),
          },
        },
        {
          unbreakable: true,
          stack: [
            heading('What should come of it'),
            {
              columns: [
                {
                  width: '60%',
                  layout: 'noBorders',
                  table: {
                    widths: ['*', 60, 110],
                    body: sheet.figures.map(({ name, value, band }) => [
                      name,
                      { text: value, bold: true },
                      { text: band, style: 'quiet' },
                    ]),
                  },
                },
                {
                  width: '40%',
                  layout: 'noBorders',
                  table: {
                    widths: ['*', 44],
                    body: sheet.layers.map(({ name, share }) => [name, { text: share, bold: true }]),
                  },
                },
              ],
            },
          ],
        },
        ...(sheet.notes.length === 0
          ? []
          : [
              heading('What the plan says of itself'),
              ...sheet.notes.map(({ title, text }): Content => ({
                text: [{ text: `${title} `, bold: true, color: RUST }, text],
                margin: [0, 0, 0, 3],
              })),
            ]),
        heading('Cautions'),
        ...sheet.cautions.map(({ title, steps, lines }): Content => ({
          unbreakable: true,
          stack: [
            {
              text: [
                { text: title, bold: true },
                { text: `  ${steps}`, style: 'quiet' },
              ],
            },
            { ul: lines },
          ],
          margin: [0, 0, 0, 5],
        })),
        { text: sheet.deference, style: 'quiet' },
      ],
    })
    .getBuffer();
}
