import { cut, engraved, n, page, score, textWidth } from './pen.mjs';

const names = [
  'Calendula',
  'Kale',
  'Chard',
  'Borage',
  'Fennel',
  'Leek',
  'Poppy',
  'Beetroot',
  'Yarrow',
  'Cosmos',
  'Radish',
];
const width = 36;
const height = 150;
const pitchX = 44;
const pitchY = 160;
const perRow = 8;

/** Plant markers from birch ply: outline and hole cut, name engraved, a depth scale scored near the point. */
export function rowMarkers() {
  const lines = names.flatMap((name, i) => {
    const x = 32 + (i % perRow) * pitchX;
    const y = 36 + Math.floor(i / perRow) * pitchY;
    return marker(name, x, y);
  });
  return page(600, 400, lines);
}

function marker(name, x, y) {
  const r = 5;
  const shoulder = y + height - 40;
  const outline = [
    `M${n(x)} ${n(y + r)}`,
    `A${r} ${r} 0 0 1 ${n(x + r)} ${n(y)}`,
    `L${n(x + width - r)} ${n(y)}`,
    `A${r} ${r} 0 0 1 ${n(x + width)} ${n(y + r)}`,
    `L${n(x + width)} ${n(shoulder)}`,
    `L${n(x + width / 2)} ${n(y + height)}`,
    `L${n(x)} ${n(shoulder)}Z`,
  ].join('');
  const capitals = 8.5;
  const long = textWidth(name, capitals);
  const ticks = [1, 2, 3, 4].map((k) => {
    const at = shoulder - 26 + k * 7;
    return score(`M${n(x + 4)} ${n(at)}L${n(x + (k % 2 ? 14 : 10))} ${n(at)}`);
  });
  return [
    `<g id="Marker ${name}">`,
    engraved(name, x + width / 2 + capitals / 2, y + 18 + Math.max(0, 58 - long) / 2 + long, capitals, {
      up: true,
      id: `Name ${name}`,
    }),
    ...ticks,
    `<circle cx="${n(x + width / 2)}" cy="${n(y + 9)}" r="3" fill="none" stroke="#D0481E" stroke-width="0.1"/>`,
    cut(outline),
    '</g>',
  ];
}
