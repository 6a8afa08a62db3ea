// How long it takes to find what is under the pointer, and what it is caught by, on large drawings.
import { boundsOfAll } from '@lambent/core/document';
import { itemAt, snapKinds, snapPoint } from '@lambent/core/picking';

const tries = 400;

function median(work) {
  const times = Array.from({ length: tries }, (_, i) => {
    const start = performance.now();
    work(i);
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return { medianMs: times[tries >> 1], p95Ms: times[Math.floor(tries * 0.95)] };
}

/** @returns rows of drawing, doing, and how long it takes in ms */
export function benchPicking(drawings) {
  return drawings.flatMap(([name, { drawing }]) => {
    const box = boundsOfAll(drawing.items);
    const point = (i) => ({
      x: box.minX + (((i * 37) % tries) / tries) * (box.maxX - box.minX),
      y: box.minY + (((i * 91) % tries) / tries) * (box.maxY - box.minY),
    });
    const field = {
      drawing,
      skip: new Set(),
      boxes: [box],
      guides: [],
      gridMm: null,
      kinds: new Set(snapKinds),
    };
    const reach = 4;
    // Once beforehand: what is kept of items is made when the drawing is opened.
    for (let i = 0; i < tries; i++) snapPoint(field, point(i), reach);
    return [
      {
        name,
        doing: 'find what is under the pointer',
        ...median((i) => itemAt(drawing, point(i).x, point(i).y, reach)),
      },
      {
        name,
        doing: 'find what catches it',
        ...median((i) => snapPoint(field, point(i), reach, { x: box.minX, y: box.minY })),
      },
    ];
  });
}
