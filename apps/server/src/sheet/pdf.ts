/// <reference path="./pdfmake.d.ts" />
import { type Content } from 'pdfmake';
import { LETTERS, pdfmake } from './fonts';
import { type JobSheet, type SheetFinish, type SheetMap } from './content';
import { mapPicture, stackSvg } from './drawings';

const INK = '#23262a';
const QUIET = '#5c6168';
const RUST = '#a8431f';

/** Room for a map on the page [pt]. */
const MAP_BOX = { width: 300, height: 200 };

const heading = (text: string): Content => ({ text, style: 'heading' });

/** A table that takes its heading along onto every page, and never leaves it alone at a page's end. */
const headed = (text: string, widths: readonly (number | '*')[], body: readonly Content[][]): Content => ({
  layout: 'lightHorizontalLines',
  table: {
    headerRows: 1,
    keepWithHeaderRows: 1,
    dontBreakRows: true,
    widths: [...widths],
    body: [[{ text, style: 'heading', colSpan: widths.length }, ...widths.slice(1).map(() => '')], ...body],
  },
});

/** A heading that stays with the first of what it is over. */
const over = (text: string, [first, ...rest]: readonly Content[]): Content[] =>
  first === undefined ? [] : [{ unbreakable: true, stack: [heading(text), first] }, ...rest];

/** A box to tick. */
const box = (): Content => ({
  width: 14,
  canvas: [{ type: 'rect', x: 0, y: 2, w: 10, h: 10, lineColor: INK }],
});

/** A thin line round a picture, without room between. */
const OUTLINE = Object.fromEntries([
  ...['hLineColor', 'vLineColor'].map((name) => [name, () => QUIET]),
  ...['hLineWidth', 'vLineWidth'].map((name) => [name, () => 0.5]),
  ...['paddingLeft', 'paddingRight', 'paddingTop', 'paddingBottom'].map((name) => [name, () => 0]),
]) as Content;

/** A map in the outline of its part. */
function mapDrawing({ map, widthMm, heightMm }: SheetMap): Content {
  const scale = Math.min(MAP_BOX.width / widthMm, MAP_BOX.height / heightMm);
  const width = widthMm * scale;
  const height = heightMm * scale;
  return {
    table: {
      widths: [width],
      heights: [height],
      body: [[{ image: mapPicture(map), width, height }]],
    },
    layout: OUTLINE,
  };
}

/** One finish: steps, the stack they come to, where they are mapped, what should come of it. */
function finishContent(finish: SheetFinish): Content[] {
  return [
    headed(
      `${finish.title}: what to do`,
      [14, 16, 96, '*'],
      finish.steps.map((step): Content[] => [
        box(),
        step.colour === null
          ? ''
          : {
              canvas: [{ type: 'rect', x: 0, y: 2, w: 12, h: 10, color: step.colour, lineColor: QUIET }],
            },
        { text: step.at, style: 'quiet' },
        [
          { text: `${step.number}. ${step.title}`, bold: true },
          step.detail,
          ...(step.lookFor === '' ? [] : [{ text: step.lookFor, style: 'quiet' }]),
        ],
      ]),
    ),
    { text: finish.subtitle, style: 'quiet', margin: [0, 4, 0, 0] },
    {
      unbreakable: true,
      margin: [0, 10, 0, 0],
      columns: [
        {
          width: '46%',
          stack: [
            { text: 'The stack, dry, to scale', bold: true, margin: [0, 0, 0, 4] },
            { svg: stackSvg(finish.stack), width: 225 },
          ],
        },
        {
          width: '54%',
          stack: [
            { text: 'What should come of it; 8 in 10 boards', bold: true, margin: [0, 0, 0, 2] },
            {
              layout: 'noBorders',
              table: {
                widths: ['*', 58, 96],
                body: finish.figures.map(({ name, value, band }) => [
                  name,
                  { text: value, bold: true },
                  { text: band, style: 'quiet' },
                ]),
              },
            },
            {
              text: `Seen: ${finish.layers.map(({ name, share }) => `${name} ${share}`).join(', ')}.`,
              margin: [0, 3, 0, 0],
            },
          ],
        },
      ],
    },
    ...finish.maps.map((map): Content => ({
      unbreakable: true,
      margin: [0, 8, 0, 0],
      stack: [
        { text: `${map.title}: dark is more, pale is less`, bold: true, margin: [0, 0, 0, 3] },
        mapDrawing(map),
      ],
    })),
    ...over(
      'What the plan says of itself',
      finish.notes.map(({ title, text }): Content => ({
        text: [{ text: `${title} `, bold: true, color: RUST }, text],
        margin: [0, 0, 0, 3],
      })),
    ),
  ];
}

/** The job sheet as a PDF of A4 pages, to hang beside the work: a box to tick at every step. */
export function jobSheetPdf(told: JobSheet): Promise<Buffer> {
  const { printed: sheet, lost } = LETTERS.print(told);
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
        ...(lost
          ? [
              {
                text: 'Some letters of this plan are in a script that this sheet cannot print; each is a ? here. On the screen and in the plan file they are whole.',
                color: RUST,
                margin: [0, 4, 0, 0],
              } as Content,
            ]
          : []),
        heading('The piece'),
        ...sheet.parts.map(({ name, detail, prep }): Content => ({
          unbreakable: true,
          margin: [0, 0, 0, 4],
          stack: [
            {
              text: [
                { text: `${name}  `, bold: true },
                { text: detail, style: 'quiet' },
              ],
            },
            ...prep.map((text): Content => ({ columns: [box(), { text, width: '*' }], columnGap: 6 })),
          ],
        })),
        ...sheet.days.map(({ day, lines }, i) =>
          headed(
            i === 0 ? `What is done when: ${day}` : day,
            [16, 44, '*'],
            lines.map(({ at, title, detail }): Content[] => [
              box(),
              at,
              { text: [title, { text: detail === '' ? '' : `  ${detail}`, style: 'quiet' }] },
            ]),
          ),
        ),
        ...sheet.finishes.flatMap(finishContent),
        headed(
          'What to mix',
          [120, 50, '*'],
          sheet.mixes.map(({ title, amount, detail }): Content[] => [
            { text: title, bold: true },
            amount,
            detail,
          ]),
        ),
        ...over(
          'Cautions',
          sheet.cautions.map(({ title, steps, lines }): Content => ({
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
        ),
        { text: sheet.deference, style: 'quiet' },
      ],
    })
    .getBuffer();
}
