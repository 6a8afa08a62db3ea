import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { operations } from '../operations/operations.ts';
import { shopFromJson } from '../recipes/book/shop-json.ts';
import { deriveMeaning } from './derive.ts';
import { drawnPaint, paintOfRule } from './drawn.ts';

const { keys } = shopFromJson(JSON.parse(readFileSync(new URL('../../../../demo/shop.json', import.meta.url), 'utf8')));

test.each(keys.map((key) => [key.name, key] as const))(
  '%s: what a rule or an operation is drawn in means that',
  (_, key) => {
    const layerOf = (paint: ReturnType<typeof paintOfRule>, pinned: string | null = null) => {
      const drawn = { ...item(box(0, 0, 10), 'cut'), paint: paint as NonNullable<typeof paint>, pinned };
      const { layers, placed } = deriveMeaning(jobWith([drawn]), key);
      return layers.filter(({ id }) => (placed.get(id)?.length ?? 0) > 0);
    };
    for (const rule of key.rules) {
      const paint = paintOfRule(rule);
      expect(paint === null).toBe(rule.colour === null);
      if (paint) expect(layerOf(paint).map(({ id }) => id)).toEqual([rule.layerId]);
    }
    for (const operation of operations) {
      const { paint, pinned } = drawnPaint(key, operation);
      expect(layerOf(paint, pinned).map((layer) => layer.operation)).toEqual([operation]);
    }
  },
);
