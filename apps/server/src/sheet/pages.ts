import { LETTERS, pdfmake } from './fonts';

/** A page of A4 [pt]. */
const A4 = { width: 595.28, height: 841.89 } as const;

/** Drawings as a PDF of A4 pages, each at its own size: what lies on paper is what was drawn. */
export function pagesPdf(title: string, pages: readonly { readonly svg: string }[]): Promise<Buffer> {
  return pdfmake
    .createPdf({
      info: { title },
      pageSize: 'A4',
      pageMargins: [0, 0, 0, 0],
      defaultStyle: { font: 'Roboto' },
      content: pages.map(({ svg }, n) => ({
        svg: LETTERS.print(svg).printed,
        width: A4.width,
        height: A4.height,
        absolutePosition: { x: 0, y: 0 },
        ...(n === 0 ? {} : { pageBreak: 'before' }),
      })),
    })
    .getBuffer();
}
