import { chromium } from '@playwright/test';
import { readFileSync } from 'node:fs';
const [,, url='http://127.0.0.1:4321', out='/tmp/look', w='1280', h='800', ...acts] = process.argv;
const { execSync } = await import('node:child_process');
const browser = await chromium.launch({ executablePath: execSync('command -v chromium || command -v chromium-browser').toString().trim() });
const page = await browser.newPage({ viewport: { width: +w, height: +h }, timezoneId: 'Europe/Lisbon', locale: 'en-GB' });
page.on('console', m => { if (m.type()==='error') console.log('console', m.text()); });
page.on('pageerror', e => console.log('pageerror', e.message));
for (const act of acts) {
  const [what, ...rest] = act.split('|');
  if (what === 'go') await page.goto(url + rest[0]);
  if (what === 'click') await page.click(rest[0]);
  if (what === 'wait') await page.waitForTimeout(+rest[0]);
  if (what === 'shot') await page.screenshot({ path: `${out}/${rest[0]}.png` });
  if (what === 'fill') await page.fill(rest[0], rest[1]);
  if (what === 'press') await page.keyboard.press(rest[0]);
  if (what === 'drag') { const [x1,y1,x2,y2] = rest.map(Number); await page.mouse.move(x1,y1); await page.mouse.down(); await page.mouse.move((x1+x2)/2,(y1+y2)/2,{steps:4}); await page.mouse.move(x2,y2,{steps:4}); await page.waitForTimeout(1200); }
  if (what === 'up') { await page.mouse.up(); }
  if (what === 'put') { const { path, key, file } = JSON.parse(rest[0]); }
  if (what === 'text') console.log(await page.innerText(rest[0]));
}
await browser.close();
