import { describe, expect, test } from '@jest/globals';
import { box, item } from '../../fixtures/shop.ts';
import { BurntCode, type BurntPicture, lookOf } from './burnt-picture.ts';

/** A picture of 20 × 20 mm at (100, 50), of which every point is what `codeAt` says. */
function picture(codeAt: (x: number, y: number) => number): BurntPicture {
  const pitchMm = 0.2;
  const [width, height] = [100, 100];
  const codes = Uint8Array.from({ length: width * height }, (_, i) =>
    codeAt(100 + ((i % width) + 0.5) * pitchMm, 50 + (Math.floor(i / width) + 0.5) * pitchMm),
  );
  return { x: 100, y: 50, pitchMm, width, height, codes };
}

/** How far a place is from the edge of a square of 10 mm at (104, 54), inside it or not. */
function fromEdge(x: number, y: number): number {
  const across = Math.max(Math.abs(x - 109) - 5, Math.abs(y - 59) - 5);
  return Math.abs(across);
}

const square = item(box(104, 54, 10), 'cut');

describe('how an item looks in a picture', () => {
  test('cut all along, or but for a stretch', () => {
    const whole = picture((x, y) => (fromEdge(x, y) < 0.11 ? BurntCode.through : 0));
    expect(lookOf(whole, square, 'cut')).toMatchObject({ through: 1, scorched: 0 });
    const bridged = picture((x, y) => (fromEdge(x, y) < 0.11 ? (x > 113 ? 120 : BurntCode.through) : 0));
    const { through } = lookOf(bridged, square, 'cut');
    expect(through).toBeGreaterThan(0.68);
    expect(through).toBeLessThan(0.76);
  });

  test('a beam that a kerf moved to the side is still seen', () => {
    const beside = picture((x, y) => (Math.abs(fromEdge(x, y) - 0.15) < 0.1 ? BurntCode.scorched : 0));
    expect(lookOf(beside, square, 'cut')).toMatchObject({ through: 1, scorched: 1 });
  });

  test('an engraving is as dark as its middle, whatever its edge is', () => {
    const flat = picture((x, y) =>
      fromEdge(x, y) < 0.4 ? 200 : Math.abs(x - 109) < 5 && Math.abs(y - 59) < 5 ? 80 : 0,
    );
    expect(lookOf(flat, square, 'engrave').dark).toBeCloseTo(0.4, 6);
  });

  test('what lies beside the picture is bare', () => {
    const all = picture(() => BurntCode.through);
    const far = item(box(0, 0, 10), 'cut');
    expect(lookOf(all, far, 'cut')).toEqual({ through: 0, scorched: 0, dark: 0 });
    expect(lookOf(all, far, 'engrave')).toEqual({ through: 0, scorched: 0, dark: 0 });
  });
});
