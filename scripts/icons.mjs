import { readFileSync, writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import config from '../playwright.config.mjs';

/*
 * Makes the icons that an installed Lambent is shown by, of the mark: `node scripts/icons.mjs`.
 */

const place = new URL('../apps/web/public/', import.meta.url);
const mark = readFileSync(new URL('mark.svg', place), 'utf8');
const slate = '#22302F';
const icons = [
  { name: 'icon-192.png', size: 192, share: 1, ground: 'transparent' },
  { name: 'icon-512.png', size: 512, share: 1, ground: 'transparent' },
  // Cut to any shape, it keeps the middle four fifths.
  { name: 'icon-maskable-512.png', size: 512, share: 0.8, ground: slate },
];

const browser = await chromium.launch(config.use.launchOptions);
for (const { name, size, share, ground } of icons) {
  const page = await browser.newPage({ viewport: { width: size, height: size } });
  const side = size * share;
  const image = `<img src="data:image/svg+xml,${encodeURIComponent(mark)}" width="${side}" height="${side}">`;
  await page.setContent(
    `<body style="margin:0;height:100vh;display:grid;place-items:center;background:${ground}">${image}</body>`,
  );
  writeFileSync(new URL(name, place), await page.screenshot({ omitBackground: true }));
}
await browser.close();
