import type { Item } from '../document/item.ts';
import { sheetUnder } from '../document/sheet.ts';
import { thicknessOf } from '../recipes/book/material.ts';
import { type Check, countOf, finding } from './finding.ts';

/** So far the thickness may be from what parts were made for, in mm. */
const sameMm = 0.005;

/** Parts from numbers that lie on stock of another thickness than they were made for: their joints do not fit. */
export const checkBuiltStock: Check = ({ job, sheets, layers }) => {
  const { built, drawing } = job;
  if (built.length === 0) return [];
  const stockUnder = new Map<Item, number>();
  for (const { placed, material, on } of layers) {
    if (!on || !material) continue;
    for (const { item } of placed) {
      if (item.part?.what !== 'cut') continue;
      const sheet = sheetUnder(sheets, item) ?? sheets[0];
      stockUnder.set(item, sheet?.thicknessMm ?? thicknessOf(material));
    }
  }
  return built.flatMap(({ id, thicknessMm }) => {
    const others = [...stockUnder].filter(
      ([item, mm]) => item.part?.thingId === id && Math.abs(mm - thicknessMm) > sameMm,
    );
    if (others.length === 0) return [];
    const items = others.map(([item]) => item);
    const name = drawing.groups.find((group) => group.id === id)?.name ?? 'What was built';
    const said = `${name}: ${countOf(items.length, 'part lies', 'parts lie')} on stock of ${others[0][1]} mm, and ${items.length === 1 ? 'was' : 'were'} made for ${thicknessMm} mm: joints do not fit. Change the numbers, or the sheet.`;
    return [finding('built-other-stock', 'warns', said, items)];
  });
};
