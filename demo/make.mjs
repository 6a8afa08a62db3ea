// Makes the demo world's files from numbers: `node demo/make.mjs`. The same numbers give the same bytes.
// Pictures need what `npm run build` makes.
import { mkdirSync, writeFileSync } from 'node:fs';
import { estuaryRelief } from './estuary-relief.mjs';
import { greyPng } from './grey-png.mjs';
import { heronAtDusk } from './heron-at-dusk.mjs';
import { kingfisher } from './kingfisher.mjs';
import { rowMarkers } from './row-markers.mjs';
import { seedPacket } from './seed-packet.mjs';
import { shop } from './shop.mjs';
import { volunteerBadges } from './volunteer-badges.mjs';

/** @returns {Promise<Map<string, string | Buffer>>} what is in every file, by its path below `demo/` */
export async function demoFiles() {
  return new Map([
    ['shop.json', `${JSON.stringify(shop, null, 2)}\n`],
    ['drawings/row-markers.svg', rowMarkers()],
    ['drawings/seed-packet.svg', seedPacket()],
    ['drawings/estuary-relief.svg', estuaryRelief()],
    ['drawings/volunteer-badges.svg', volunteerBadges()],
    ['drawings/heron-at-dusk.png', await greyPng(heronAtDusk(720, 480))],
    ['drawings/kingfisher.png', await greyPng(kingfisher(750, 500))],
  ]);
}

if (import.meta.url === `file://${process.argv[1]}`) {
  mkdirSync(new URL('drawings/', import.meta.url), { recursive: true });
  for (const [path, text] of await demoFiles()) writeFileSync(new URL(path, import.meta.url), text);
}
