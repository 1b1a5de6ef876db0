/// <reference path="./pdfmake.d.ts" />
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake from 'pdfmake';
import { openFont } from './letters';

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

/** Which letters sheets can print. */
export const LETTERS = openFont(join(FONTS, 'Roboto-Regular.ttf'));
export { pdfmake };
