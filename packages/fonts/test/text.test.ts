import { describe, expect, test } from '@jest/globals';
import { outlineOf } from '@lambent/core/document';
import { flatten, pathBounds, signedArea } from '@lambent/core/geometry';
import { setText, usualText } from '@lambent/core/text';
import { shippedTools } from '../src/index.ts';

const { fonts } = shippedTools();
const set = (words: string, more = {}) => setText({ ...usualText, words, ...more }, fonts);

describe('text', () => {
  test.each(fonts.families)('capitals of %s are as high as was said', (family) => {
    const { path, substitute } = set('H', { family, height: 12.5 });
    const { minY, maxY } = pathBounds(path);
    expect(substitute).toBeNull();
    expect(-minY).toBeCloseTo(12.5, 3);
    // Faces with a swing stand a little below the baseline.
    expect(maxY).toBeLessThan(2);
  });

  test('runs along a line: on a circle every letter stands on it, and what finds no room is counted', () => {
    const round = outlineOf({ kind: 'ellipse', cx: 0, cy: 0, rx: 40, ry: 40 });
    const { path, beyond } = set('HHHH', { along: round, align: 'centre', height: 5 });
    const corners = flatten(path, 0.001).flatMap(({ points }) => Array.from(points));
    const radii = corners.flatMap((x, i) => (i % 2 ? [] : [Math.hypot(x, corners[i + 1])]));
    // Feet of the letters are chords of the circle; their heads stand 5 mm out.
    expect(Math.min(...radii)).toBeGreaterThan(39.9);
    expect(Math.max(...radii)).toBeCloseTo(45.1, 0);
    expect(beyond).toBe(0);
    const short = outlineOf({ kind: 'slot', x1: 0, y1: 0, x2: 1, y2: 0, width: 2 });
    expect(set('HHHHHHHHHHHH', { along: short }).beyond).toBeGreaterThan(8);
  });

  test('is aligned, spaced, and broken between words', () => {
    const width = (more: object) => {
      const { minX, maxX } = pathBounds(set('OHO HO', more).path);
      return maxX - minX;
    };
    expect(width({ spacing: 2 }) - width({})).toBeCloseTo(10, 6);
    const { minX, maxX } = pathBounds(set('OHO', { align: 'centre' }).path);
    expect(minX + maxX).toBeCloseTo(0, 1);
    expect(pathBounds(set('OHO', { align: 'right' }).path).maxX).toBeLessThan(0.01);
    const broken = pathBounds(set('HH HH HH', { width: 20 }).path);
    expect(broken.maxY - broken.minY).toBeCloseTo(8 + 2 * 8 * 1.75, 3);
    const loose = pathBounds(set('H\nH', { leading: 2 }).path);
    expect(loose.maxY - loose.minY).toBeCloseTo(8 + 28, 3);
  });

  test('says what a face lacks, and what it is set in instead', () => {
    expect(set('A語B', {}).missing).toEqual(['語']);
    expect(set('A', { family: 'Nowhere Serif' }).substitute).toBe('Bitter');
    expect(() => set('A', { height: 0 })).toThrow(RangeError);
    expect(set('').path.verbs).toHaveLength(0);
  });

  test('single lines have no inside, and stencils no middle that falls out', () => {
    const line = set('AB', { family: 'Single line' });
    expect(line.singleLine).toBe(true);
    expect(flatten(line.path).every(({ closed }) => !closed)).toBe(true);
    // Every outline of a stencil's letters turns the same way: none is a hole.
    for (const family of ['Stardos Stencil', 'Saira Stencil One']) {
      const turns = flatten(set('ABDOPQR', { family }).path).map((ring) => Math.sign(signedArea(ring)));
      expect(new Set(turns).size).toBe(1);
    }
  });
});
