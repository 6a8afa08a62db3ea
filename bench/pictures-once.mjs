// What pictures take, in a process of its own, so that its memory is that of pictures alone: prints it as JSON.
import { readFileSync } from 'node:fs';
import { newJob, usualByColour, usualTraceSettings } from '@lambent/core/document';
import { addItems, changeSetting, setSheet, setTone } from '@lambent/core/edits';
import { writeGcode } from '@lambent/core/formats';
import { diffuse, straighten } from '@lambent/core/pictures';
import { tracePicture } from '@lambent/core/pictures/trace';
import { planJob, prepareJob } from '@lambent/core/plan';
import { sheetAsStocked, shopFromJson } from '@lambent/core/recipes';

const shop = shopFromJson(JSON.parse(readFileSync(new URL('../demo/shop.json', import.meta.url), 'utf8')));

/** A picture of greys, from a formula of the place. */
function pictureOf(width, height, greyAt) {
  const rgb = new Uint8Array(3 * width * height);
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i += 3) rgb.fill(Math.max(0, Math.min(255, greyAt(x, y))), i, i + 3);
  }
  return { width, height, rgb };
}

const median = (times) => times.sort((a, b) => a - b)[times.length >> 1];
const timeOf = (work) => {
  const start = performance.now();
  work();
  return performance.now() - start;
};
const timesOf = (rounds, work) => Array.from({ length: rounds }, () => timeOf(work));

// 300 × 200 mm in lines of 0.1 mm.
const hills = pictureOf(
  3000,
  2000,
  (x, y) => 128 + 60 * Math.sin(x / 140) * Math.cos(y / 90) + 40 * Math.sin((x + 2 * y) / 37) + ((x * 7 + y * 13) % 11),
);
const shares = Float32Array.from({ length: 6_000_000 }, (_, i) => 1 - hills.rgb[3 * i] / 255);

const photo = {
  id: 'p',
  name: null,
  shape: { kind: 'picture', pictureId: 'p', width: 3000, height: 2000 },
  matrix: [0.1, 0, 0, 0.1, 50, 50],
  paint: { stroke: null, strokeWidthMm: 0, fill: null },
  fillRule: 'nonzero',
  groupId: null,
  pinned: 'photo',
  hidden: false,
};
const slate = shop.materials.find(({ id }) => id === 'slate-6');
let job = setSheet(
  addItems(newJob('curlew', 'house'), [photo]),
  sheetAsStocked(
    's',
    slate,
    shop.machines.find(({ id }) => id === 'curlew'),
  ),
);
job = setTone(job, new Set(['p']), { contrast: 20, lighter: false });
job = changeSetting(changeSetting(job, 'photo', 'lineSpacingMm', 0.1), 'photo', 'grain', 'diffused');
let plan = null;
// In turn: a machine that grows slower slows both.
const rounds = Array.from({ length: 7 }, () => [
  timeOf(() => diffuse(shares, 3000, null, 'near')),
  timeOf(() => {
    plan = planJob(prepareJob(job, shop, {}, { pixelsOf: () => hills }));
  }),
]);
const [diffusing, planning] = [0, 1].map((i) => median(rounds.map((times) => times[i])));
const moves = plan.steps.reduce((sum, { moves: { kinds } }) => sum + kinds.length, 0);
const memoryMB = process.resourceUsage().maxRSS / 1024;
let size = 0;
for (const text of writeGcode(plan, 'p')) size += text.length;

// Blobs in black on white, with grey edges: 12 megapixels.
const blobs = pictureOf(
  4000,
  3000,
  (x, y) => 127.5 - 900 * (Math.sin(x / 61) * Math.cos(y / 47) + 0.5 * Math.sin((x - y) / 23)),
);
// The same in five colours: in stripes, mixed with white as far as they are grey.
const inks = [0x2b6d9f, 0xd9822b, 0x3f7d4e, 0x8c2f39, 0x6b4fa1];
const sixColours = { ...blobs, rgb: blobs.rgb.slice() };
for (let i = 0; i < sixColours.rgb.length; i++) {
  const ink = (inks[Math.floor((Math.floor(i / 3) % 4000) / 800)] >> (8 * (2 - (i % 3)))) & 255;
  sixColours.rgb[i] = ink + ((255 - ink) * blobs.rgb[i]) / 255;
}
const tracing = median(timesOf(3, () => tracePicture(blobs, usualTraceSettings, 0.1)));
const looking = median(timesOf(3, () => tracePicture(blobs, usualTraceSettings, 0.1, 200_000)));
const byColour = { ...usualByColour, most: 6 };
const colouring = median(
  timesOf(3, () => tracePicture(sixColours, { ...usualTraceSettings, makes: 'colours', byColour }, 0.1)),
);
// A sheet seen from the side.
const corners = [
  [300, 250],
  [3500, 400],
  [3900, 2800],
  [100, 2600],
].map(([x, y]) => ({ x, y }));
const straightening = median(timesOf(3, () => straighten(blobs, corners, { widthMm: 297, heightMm: 210 }, true)));
const times = { diffusing, planning, tracing, looking, colouring, straightening };
process.stdout.write(JSON.stringify({ ...times, moves, size, memoryMB }));
