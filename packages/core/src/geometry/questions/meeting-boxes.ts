/** A box in more cells than this is held against all others. */
const mostCellsOfBox = 256;
/** As many cells a box are enough. */
const cellsPerBox = 4;

/** Whether two boxes come within a distance of each other; one that is nowhere meets nothing. @param boxes four numbers each */
export function doBoxesMeet(boxes: Float64Array, a: number, b: number, within: number): boolean {
  return (
    boxes[4 * a] <= boxes[4 * b + 2] + within &&
    boxes[4 * b] <= boxes[4 * a + 2] + within &&
    boxes[4 * a + 1] <= boxes[4 * b + 3] + within &&
    boxes[4 * b + 1] <= boxes[4 * a + 3] + within
  );
}

/**
 * Finds pairs of boxes that come within a distance of each other, by a grid of cells about as large as a box: a pair is
 * compared once, in the first cell that both lie in.
 * @param boxes four numbers each: minX, minY, maxX, maxY
 * @param visit is told of both by their places, the lesser first
 */
export function forEachMeeting(boxes: Float64Array, within: number, visit: (a: number, b: number) => void): void {
  const count = boxes.length / 4;
  if (count < 2) return;
  // Something without an outline has an empty box: it meets nothing.
  const isNowhere = (b: number) => !(boxes[b] <= boxes[b + 2] && boxes[b + 1] <= boxes[b + 3]);
  let [left, top, right, bottom, sizes] = [Infinity, Infinity, -Infinity, -Infinity, 0];
  for (let b = 0; b < boxes.length; b += 4) {
    if (isNowhere(b)) continue;
    left = Math.min(left, boxes[b]);
    top = Math.min(top, boxes[b + 1]);
    right = Math.max(right, boxes[b + 2]);
    bottom = Math.max(bottom, boxes[b + 3]);
    sizes += (boxes[b + 2] - boxes[b] + boxes[b + 3] - boxes[b + 1]) / 2;
  }
  if (!(right - left >= 0 && bottom - top >= 0 && Number.isFinite(sizes))) return;
  const area = Math.max(right - left, within) * Math.max(bottom - top, within);
  const cell = Math.max(sizes / count + within, Math.sqrt(area / (cellsPerBox * count)), 1e-9);
  const across = Math.floor((right - left + within) / cell) + 1;
  const down = Math.floor((bottom - top + within) / cell) + 1;
  const columnOf = (x: number) => Math.min(across - 1, Math.max(0, Math.floor((x - left) / cell)));
  const rowOf = (y: number) => Math.min(down - 1, Math.max(0, Math.floor((y - top) / cell)));
  const heads = new Int32Array(across * down).fill(-1);
  /** Entries of the cells' lists: which box, and the next entry. */
  let [members, nexts] = [new Int32Array(cellsPerBox * count), new Int32Array(cellsPerBox * count)];
  let entries = 0;
  const large: number[] = [];
  const doMeet = (a: number, b: number) => doBoxesMeet(boxes, a, b, within);
  for (let box = 0; box < count; box++) {
    if (isNowhere(4 * box)) continue;
    for (const other of large) if (doMeet(other, box)) visit(other, box);
    const b = 4 * box;
    const [from, to] = [columnOf(boxes[b]), columnOf(boxes[b + 2] + within)];
    const [first, last] = [rowOf(boxes[b + 1]), rowOf(boxes[b + 3] + within)];
    if ((to - from + 1) * (last - first + 1) > mostCellsOfBox) {
      for (let other = 0; other < box; other++) {
        if (!large.includes(other) && !isNowhere(4 * other) && doMeet(other, box)) visit(other, box);
      }
      large.push(box);
      continue;
    }
    for (let row = first; row <= last; row++) {
      for (let column = from; column <= to; column++) {
        const index = row * across + column;
        for (let entry = heads[index]; entry >= 0; entry = nexts[entry]) {
          const other = members[entry];
          if (!doMeet(other, box)) continue;
          // The first cell that both lie in is that of the corner where the later ones of their sides begin.
          const isFirst =
            column === columnOf(Math.max(boxes[b], boxes[4 * other])) &&
            row === rowOf(Math.max(boxes[b + 1], boxes[4 * other + 1]));
          if (isFirst) visit(other, box);
        }
        if (entries === members.length) [members, nexts] = [twiceAsLong(members), twiceAsLong(nexts)];
        members[entries] = box;
        nexts[entries] = heads[index];
        heads[index] = entries++;
      }
    }
  }
}

function twiceAsLong(numbers: Int32Array<ArrayBuffer>): Int32Array<ArrayBuffer> {
  const longer = new Int32Array(2 * numbers.length);
  longer.set(numbers);
  return longer;
}
