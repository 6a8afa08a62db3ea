export { betterKey } from './best-key.ts';
export { deriveMeaning, type Extent, extentOf, itemsOfPaint, type Meaning, type PaintUse } from './derive.ts';
export { drawnPaint, paintOfRule } from './drawn.ts';
export { fadingEngraved } from './fading.ts';
export { type ColourKey, keyInShop, type Mark, operationColourKey, type Rule, standardLayers } from './key.ts';
export { changeOfKey, type KeyChange, keyFromJob, keyThatTakes, keyTroubles } from './key-change.ts';
export { keyFromJson, keyFromText, keyToJson, NotAKey } from './key-json.ts';
export { type KindChange, kindChangeOf, type NearMiss, nearMisses } from './near-miss.ts';
export { startingKeys } from './starting-keys.ts';
