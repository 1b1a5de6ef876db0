import { fileURLToPath } from 'node:url';
import { test } from '@playwright/test';
import { drawnFace } from '../../packages/core/src/testing/faces';
import { SCENES } from '../../packages/core/src/testing/scenes';

const SHEET = fileURLToPath(new URL('../../docs/screenshots/scenes.png', import.meta.url));
const COLUMNS = 400;

/** Twelve kinds of surface on one sheet, straight from the core: the eye's own test of the field. */
test('the sheet of scenes', async ({ page }) => {
  test.setTimeout(120_000);
  await page.setViewportSize({ width: 1660, height: 980 });
  await page.setContent(`<style>
    body { margin: 12px; background: #8b8b89; font: 600 13px sans-serif; color: #fff }
    main { display: grid; grid-template-columns: repeat(4, ${COLUMNS}px); gap: 12px }
    figure { margin: 0 } canvas { display: block }
  </style><main></main>`);
  for (const { name, plan, view } of SCENES) {
    const { columns, rows, rgba } = drawnFace(plan, view, COLUMNS);
    await page.evaluate(
      ({ name, columns, rows, bytes }) => {
        const figure = document.createElement('figure');
        const canvas = document.createElement('canvas');
        canvas.width = columns;
        canvas.height = rows;
        const data = Uint8ClampedArray.from(atob(bytes), (c) => c.charCodeAt(0));
        canvas.getContext('2d')!.putImageData(new ImageData(data, columns, rows), 0, 0);
        figure.append(canvas, name);
        document.querySelector('main')!.append(figure);
      },
      { name, columns, rows, bytes: Buffer.from(rgba.buffer).toString('base64') },
    );
  }
  await page.screenshot({ path: SHEET });
});
