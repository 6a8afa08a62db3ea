import { cut, engraved, n, page, score, textWidth } from './pen.mjs';

const people = [
  ['Ines', 'workshop'],
  ['Tobiah', 'workshop'],
  ['Wilhelmina', 'seed library'],
  ['Pavel', 'seed library'],
  ['Noor', 'seed library'],
  ['Guest', 'welcome'],
];
export const badge = { width: 64, height: 30, radius: 4 };
/** How much larger than a badge its pocket is, all round, in mm. */
const room = 0.3;
const holder = { x: 30, y: 30, width: 230, height: 130 };
const columns = 3;

/** Where each badge lies: in the pockets of the holder, three a row. */
export function badgePlaces() {
  return people.map((_, i) => ({
    x: holder.x + 13 + (i % columns) * 70,
    y: holder.y + 22 + Math.floor(i / columns) * 52,
  }));
}

/** Name badges of two-colour laminate, engraved where they lie in a holder of grey board that is cut first. */
export function volunteerBadges() {
  const { x, y, width, height } = holder;
  const lines = badgePlaces().flatMap((place, i) => {
    const [name, what] = people[i];
    return [
      `<g id="Pocket ${i + 1}">`,
      cut(
        rounded(place.x - room, place.y - room, badge.width + 2 * room, badge.height + 2 * room, badge.radius + room),
      ),
      '</g>',
      `<g id="Badge ${name}">`,
      centred(name, place, 13.5, 7.5),
      centred(what, place, 23.5, 3.6),
      '</g>',
    ];
  });
  const arrow = `M${n(x + width / 2 - 6)} ${n(y + 12)}L${n(x + width / 2)} ${n(y + 6)}L${n(x + width / 2 + 6)} ${n(y + 12)}`;
  return page(600, 400, [...lines, score(arrow, 'This way up'), cut(rounded(x, y, width, height, 6), 'Holder')]);
}

function centred(text, place, baseline, height) {
  return engraved(text, place.x + (badge.width - textWidth(text, height)) / 2, place.y + baseline, height, {
    id: text,
  });
}

function rounded(x, y, width, height, r) {
  const arc = (toX, toY) => `A${n(r)} ${n(r)} 0 0 1 ${n(toX)} ${n(toY)}`;
  return [
    `M${n(x + r)} ${n(y)}`,
    `L${n(x + width - r)} ${n(y)}`,
    arc(x + width, y + r),
    `L${n(x + width)} ${n(y + height - r)}`,
    arc(x + width - r, y + height),
    `L${n(x + r)} ${n(y + height)}`,
    arc(x, y + height - r),
    `L${n(x)} ${n(y + r)}`,
    arc(x + r, y),
    'Z',
  ].join('');
}
