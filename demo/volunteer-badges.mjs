import { cut, n, page, score } from './pen.mjs';

/** How many badges the holder takes. */
const places = 6;
const badge = { width: 64, height: 30, radius: 4 };
/** How much larger than a badge its pocket is, all round, in mm. */
const room = 0.3;
const holder = { x: 30, y: 30, width: 230, height: 130 };
const columns = 3;

/** A holder of grey board with six pockets, in which name badges of two-colour laminate are engraved; it is cut first. */
export function volunteerBadges() {
  const { x, y, width, height } = holder;
  const lines = Array.from({ length: places }, (_, i) => {
    const [left, top] = [x + 13 + (i % columns) * 70, y + 22 + Math.floor(i / columns) * 52];
    const pocket = rounded(
      left - room,
      top - room,
      badge.width + 2 * room,
      badge.height + 2 * room,
      badge.radius + room,
    );
    return cut(pocket, `Pocket ${i + 1}`);
  });
  const arrow = `M${n(x + width / 2 - 6)} ${n(y + 12)}L${n(x + width / 2)} ${n(y + 6)}L${n(x + width / 2 + 6)} ${n(y + 12)}`;
  return page(600, 400, [...lines, score(arrow, 'This way up'), cut(rounded(x, y, width, height, 6), 'Holder')]);
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
