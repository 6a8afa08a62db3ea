import { cut, engraved, n, page, score } from './pen.mjs';

const face = 80;
const tall = 110;
const tab = 12;
const flap = 30;

/** A folding seed packet from cotton card: the net's outline cut, its folds scored, glue tabs slanted. */
export function seedPacket() {
  return page(400, 400, [
    ...net(30, 50, 'Field poppy'),
    ...net(212, 50, 'Runner bean'),
    ...net(30, 220, 'Salad burnet'),
  ]);
}

function net(x, y, name) {
  const right = x + face;
  const far = right + face;
  const bottom = y + tall;
  const slant = 5;
  const outline = [
    [x, y],
    // the closing flap over the front
    [x + 8, y - flap],
    [right - 8, y - flap],
    [right, y],
    [far, y],
    [far, bottom],
    [right, bottom],
    // the bottom tab, glued behind
    [right - slant, bottom + tab],
    [x + slant, bottom + tab],
    [x, bottom],
    // the side tab
    [x - tab, bottom - slant],
    [x - tab, y + slant],
  ];
  const d = `M${outline.map(([px, py]) => `${n(px)} ${n(py)}`).join('L')}Z`;
  const fold = (x1, y1, x2, y2) => score(`M${n(x1)} ${n(y1)}L${n(x2)} ${n(y2)}`);
  return [
    `<g id="Packet ${name}">`,
    engraved(name, x + 8, y + 34, 7, { id: `Name ${name}` }),
    engraved('Heronbrook Seed Library', x + 8, y + 46, 3.2),
    fold(x, y, right, y),
    fold(right, y, right, bottom),
    fold(x, bottom, right, bottom),
    fold(x, y, x, bottom),
    `<ellipse cx="${n(right + face / 2)}" cy="${n(y + 40)}" rx="14" ry="20" fill="none" stroke="#D0481E" stroke-width="0.1"/>`,
    cut(d, `Net ${name}`),
    '</g>',
  ];
}
