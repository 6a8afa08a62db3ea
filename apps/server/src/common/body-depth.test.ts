import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { depthOfJson } from './body-depth.ts';

const depthOf = (json: unknown): number =>
  typeof json === 'object' && json !== null ? 1 + Math.max(0, ...Object.values(json).map(depthOf)) : 0;

test('JSON is as deep as its lists and records lie in each other, whatever its texts hold', () => {
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), (json) => {
      expect(depthOfJson(Buffer.from(JSON.stringify(json)))).toBe(depthOf(json));
    }),
  );
  expect(depthOfJson(Buffer.from('["\\"[[[", "\\\\", {"[": "{"}]'))).toBe(2);
  expect(depthOfJson(Buffer.alloc(200_000, '['))).toBe(200_000);
});
