// How soon a place is shown from a cold start, and how long the main thread works without a break meanwhile: a browser that
// has nothing of the page. The yardstick is an empty page that fetches as many files of the same weight, and runs nothing.
import { chromium } from '@playwright/test';
import config from '../playwright.config.mjs';

const rounds = 5;

/** The places, each with what shows that it is there. */
const places = [
  {
    what: 'Desk, its jobs listed',
    wantedS: 1,
    address: async () => '/',
    shown: (page) => page.getByRole('link', { name: /Row markers/ }).waitFor(),
  },
  {
    what: 'Bench, row markers planned',
    wantedS: 2.5,
    address: async (page, origin) => {
      const jobs = await (await page.request.get(`${origin}/api/jobs`)).json();
      return `/jobs/${jobs.find(({ title }) => title.startsWith('Row markers')).id}/colours`;
    },
    shown: (page) =>
      page
        .getByTestId('plan-time')
        .getByText(/^\d.* s$/)
        .waitFor(),
  },
];

const median = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)];

/** A page of a browser that has fetched nothing yet. */
async function coldPage() {
  const browser = await chromium.launch(config.use.launchOptions);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  return { page, close: () => browser.close() };
}

/** Opens a place. @returns when it is shown, in ms, the longest task of the main thread, and what was fetched */
async function openCold(origin, { address, shown }) {
  const { page, close } = await coldPage();
  const path = await address(page, origin);
  await page.addInitScript(() => {
    window.longest_ = 0;
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) window.longest_ = Math.max(window.longest_, duration);
    }).observe({ type: 'longtask', buffered: true });
  });
  const begun = performance.now();
  await page.goto(origin + path, { waitUntil: 'commit' });
  await shown(page);
  const ms = performance.now() - begun;
  const longestTaskMs = await page.evaluate(() => window.longest_);
  const fetched = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .map(({ name }) => name)
      .filter((name) => name.includes('/assets/')),
  );
  await close();
  return { ms, longestTaskMs, fetched };
}

/** An empty page that fetches the same files, all at once. @returns when it has them, in ms */
async function openEmpty(origin, fetched) {
  const { page, close } = await coldPage();
  const script = `Promise.all(${JSON.stringify(fetched)}.map((name) => fetch(name).then((answer) => answer.arrayBuffer())))
    .then(() => { document.title = 'all'; });`;
  await page.route('**/empty-page', (route) =>
    route.fulfill({ contentType: 'text/html', body: `<!doctype html><title>empty</title><script>${script}</script>` }),
  );
  const begun = performance.now();
  await page.goto(`${origin}/empty-page`, { waitUntil: 'commit' });
  await page.waitForFunction(() => document.title === 'all', null, { polling: 'raf' });
  const ms = performance.now() - begun;
  await close();
  return ms;
}

/** @returns rows of { what, wantedS, ms, emptyMs, longestTaskMs }: medians of all rounds, of the longest task the longest */
export async function benchOpening(origin) {
  const rows = [];
  for (const place of places) {
    const opened = [];
    const empty = [];
    for (let round = 0; round < rounds; round++) {
      opened.push(await openCold(origin, place));
      empty.push(await openEmpty(origin, opened[0].fetched));
    }
    rows.push({
      what: place.what,
      wantedS: place.wantedS,
      ms: median(opened.map(({ ms }) => ms)),
      emptyMs: median(empty),
      longestTaskMs: Math.max(...opened.map(({ longestTaskMs }) => longestTaskMs)),
    });
  }
  return rows;
}
