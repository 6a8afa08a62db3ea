// Makes the demo world's files from numbers: `node demo/make.mjs`. The same numbers give the same bytes.
import { mkdirSync, writeFileSync } from 'node:fs';
import { estuaryRelief } from './estuary-relief.mjs';
import { rowMarkers } from './row-markers.mjs';
import { seedPacket } from './seed-packet.mjs';
import { shop } from './shop.mjs';
import { volunteerBadges } from './volunteer-badges.mjs';

/** @returns {Map<string, string>} every file's text, by its path below `demo/` */
export function demoFiles() {
  return new Map([
    ['shop.json', `${JSON.stringify(shop, null, 2)}\n`],
    ['drawings/row-markers.svg', rowMarkers()],
    ['drawings/seed-packet.svg', seedPacket()],
    ['drawings/estuary-relief.svg', estuaryRelief()],
    ['drawings/volunteer-badges.svg', volunteerBadges()],
  ]);
}

if (import.meta.url === `file://${process.argv[1]}`) {
  mkdirSync(new URL('drawings/', import.meta.url), { recursive: true });
  for (const [path, text] of demoFiles()) writeFileSync(new URL(path, import.meta.url), text);
}
