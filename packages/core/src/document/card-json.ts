import { type CardAxis, type CardWish, cardMarks, cardOperations, cardSettings, type LaidCard } from './card.ts';
import { asNumber, asRecord, asText, asTextOrNull, NotADrawing, oneOf } from './json-parts.ts';
import { settingsFromJson } from './layer-json.ts';

/** @throws NotADrawing naming what is wrong */
export function cardFromJson(json: unknown, where: string): LaidCard {
  const card = asRecord(json, where);
  const marks = Object.entries(asRecord(card.marks, `${where}: marks`));
  return {
    id: asText(card.id, `${where}: id`),
    runId: asText(card.runId, `${where}: runId`),
    wish: wishFromJson(card.wish, `${where}: wish`),
    materialId: asText(card.materialId, `${where}: materialId`),
    thicknessMm: asNumber(card.thicknessMm, `${where}: thicknessMm`),
    marks: Object.fromEntries(marks.map(([key, mark]) => [key, oneOf(mark, cardMarks, `${where}: mark ${key}`)])),
    best: asTextOrNull(card.best, `${where}: best`),
  };
}

function wishFromJson(json: unknown, where: string): CardWish {
  const wish = asRecord(json, where);
  const number = (name: string) => asNumber(wish[name], `${where}: ${name}`);
  const words = asRecord(wish.words, `${where}: words`);
  const [cellMm, gapMm] = [number('cellMm'), number('gapMm')];
  if (!(cellMm > 0 && gapMm >= 0)) throw new NotADrawing(`${where}: cells must be larger than 0 mm`);
  const across = axisFromJson(wish.across, `${where}: across`);
  const down = wish.down ? axisFromJson(wish.down, `${where}: down`) : null;
  const rest = settingsFromJson(wish.rest, `${where}: rest`);
  for (const setting of ['powerPercent', 'speedMmPerS'] as const) {
    const isSaid = rest[setting] !== undefined || across.setting === setting || down?.setting === setting;
    if (!isSaid) throw new NotADrawing(`${where}: ${setting} is neither common to all cells nor differs along a side`);
  }
  return {
    operation: oneOf(wish.operation, cardOperations, `${where}: operation`),
    across,
    down,
    rest,
    ...(wish.lightest === undefined ? {} : { lightest: number('lightest') }),
    words: {
      powerPercent: asNumber(words.powerPercent, `${where}: words: powerPercent`),
      speedMmPerS: asNumber(words.speedMmPerS, `${where}: words: speedMmPerS`),
    },
    cellMm,
    gapMm,
  };
}

function axisFromJson(json: unknown, where: string): CardAxis {
  const axis = asRecord(json, where);
  const number = (name: string) => asNumber(axis[name], `${where}: ${name}`);
  return {
    setting: oneOf(axis.setting, cardSettings, `${where}: setting`),
    from: number('from'),
    to: number('to'),
    steps: asNumber(axis.steps, `${where}: steps`, 1, 100),
  };
}
