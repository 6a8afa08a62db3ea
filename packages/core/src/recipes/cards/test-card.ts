import {
  type CardAxis,
  type CardMark,
  type CardSetting,
  type CardWish,
  cardLayerId,
  type LaidCard,
} from '../../document/card.ts';
import { colourOfChannels } from '../../document/channels.ts';
import type { Colour } from '../../document/item.ts';
import type { Layer } from '../../document/layer.ts';
import {
  type BurntOperation,
  burnsPictures,
  labelOperation,
  operationOf,
  separates,
} from '../../operations/operations.ts';
import { darknessOf } from '../../pictures/luma.ts';
import { type LayerSettings, usualSettings } from '../../settings/settings.ts';
import type { BurntLook } from './burnt-picture.ts';
import { cardSettingOf } from './card-setting.ts';

/*
 * Test cards: grids of cells that burn with settings that differ from one to the next, with words that say which. Plain
 * numbers here; the page lays them on a sheet, and the whole is a job like any other.
 */

/** A cell, in mm from the card's top left, y down. */
export interface CardCell {
  /** Its row and its column, from 1. */
  readonly key: string;
  readonly column: number;
  readonly row: number;
  readonly x: number;
  readonly y: number;
  readonly settings: LayerSettings;
  /** What it is filled with, where it burns by its grey; null where it is drawn in its operation's colour. */
  readonly fill: Colour | null;
}

export interface TestCard {
  /** From the mildest to the fiercest: the order they burn in. */
  readonly cells: readonly CardCell[];
  readonly columns: readonly number[];
  /** Empty where the card has one row of no setting of its own. */
  readonly rows: readonly number[];
  /** Scored words: with the middle of their baseline, or their right end. */
  readonly labels: readonly {
    readonly words: string;
    readonly x: number;
    readonly y: number;
    readonly align: 'middle' | 'right';
  }[];
  readonly width: number;
  readonly height: number;
}

/** About how wide a letter of the words is, in mm. */
const letterMm = 1.7;
/** Room for the words at the left and at the foot, in mm. */
const besideMm = 14;
const belowMm = 9;
/** What no card needs more of, on each side. */
const mostSteps = 20;

/** The values along a side, evenly spaced, to three figures; whole passes, none of them twice. */
export function valuesAlong({ setting, from, to, steps }: CardAxis): number[] {
  const count = Math.max(1, Math.min(mostSteps, Math.floor(steps)));
  const values = Array.from({ length: count }, (_, i) => (count === 1 ? from : from + ((to - from) * i) / (count - 1)));
  const rounded = values.map((value) => (setting === 'passes' ? Math.round(value) : Number(value.toPrecision(3))));
  return [...new Set(rounded)];
}

/**
 * Lays a card out.
 * @throws RangeError when power or speed is neither common to all cells nor differs along a side
 */
export function layCard(wish: CardWish): TestCard {
  const { across, down, cellMm, gapMm } = wish;
  const columns = valuesAlong(across);
  const rows = down ? valuesAlong(down) : [];
  const pitch = cellMm + gapMm;
  const cells = (down ? rows : [null]).flatMap((value, row) =>
    columns.map((wide, column): CardCell => {
      const own = new Map<CardSetting, number>([[across.setting, wide]]);
      if (down && value !== null) own.set(down.setting, value);
      return {
        key: cellKey(row, column),
        column,
        row,
        x: besideMm + column * pitch,
        y: row * pitch,
        settings: cellSettings(wish, own),
        fill: burnsPictures(wish.operation) ? greyOf(own.get('greyPercent') ?? 100) : null,
      };
    }),
  );
  const height = Math.max(1, rows.length) * pitch - gapMm;
  const grid = besideMm + columns.length * pitch - gapMm;
  const title = titleOf(wish);
  const width = Math.max(grid, title.length * letterMm);
  const middle = (i: number) => besideMm + i * pitch + cellMm / 2;
  return {
    cells: cells.toSorted((a, b) => fierceness(a) - fierceness(b)),
    columns,
    rows,
    labels: [
      ...columns.map((value, i) => ({ words: String(value), x: middle(i), y: height + 4, align: 'middle' as const })),
      ...rows.map((value, i) => ({
        words: String(value),
        x: besideMm - 2,
        y: i * pitch + cellMm / 2 + 1,
        align: 'right' as const,
      })),
      { words: title, x: width / 2, y: height + 8, align: 'middle' },
    ],
    width,
    height: height + belowMm,
  };
}

/** By which marks know a cell: its row and its column, from 1. */
function cellKey(row: number, column: number): string {
  return `${row + 1}-${column + 1}`;
}

/** The grey of which a share, in per cent, is black. */
function greyOf(percent: number): Colour {
  const value = (1 - percent / 100) * 255;
  return colourOfChannels([value, value, value]);
}

function cellSettings(
  { operation, rest, lightest = 0 }: CardWish,
  own: ReadonlyMap<CardSetting, number>,
): LayerSettings {
  const grey = own.get('greyPercent');
  const said = Object.fromEntries([...own].filter(([setting]) => setting !== 'greyPercent'));
  const settings: Partial<LayerSettings> = { ...usualSettings(), ...rest, ...said };
  if (settings.powerPercent === undefined || settings.speedMmPerS === undefined) {
    throw new RangeError('layCard: every cell needs a power and a speed');
  }
  // What burns by its greys is drawn in them; else less power makes a grey.
  const share = grey === undefined || burnsPictures(operation) ? 1 : lightest + ((1 - lightest) * grey) / 100;
  return { ...settings, powerPercent: Math.round(settings.powerPercent * share * 100) / 100 } as LayerSettings;
}

function titleOf({ operation, across, down }: CardWish): string {
  const unit = (axis: CardAxis) => cardSettingOf(axis.setting).counted;
  const beside = down ? `${unit(down)} down, ` : '';
  return `${operationOf(operation).name}: ${beside}${unit(across)} across`;
}

/** How much energy a cell gets, against the others of its card. */
function fierceness({ settings, fill }: CardCell): number {
  const { powerPercent, passes, speedMmPerS, lineSpacingMm } = settings;
  return (powerPercent * passes * (fill === null ? 1 : darknessOf(fill))) / speedMmPerS / lineSpacingMm;
}

/** How many columns and rows of a card's cells have room on a sheet of a size, in mm; 0 where not even one has. */
export function cellsThatFit(
  { cellMm, gapMm }: Pick<CardWish, 'cellMm' | 'gapMm'>,
  width: number,
  height: number,
): { columns: number; rows: number } {
  const pitch = cellMm + gapMm;
  const along = (room: number) => Math.max(0, Math.min(mostSteps, Math.floor((room + gapMm) / pitch + 1e-9)));
  return { columns: along(width - besideMm), rows: along(height - belowMm) };
}

/** How a cell is called: its values, such as `40 %, 12 mm/s`. */
export function cellName({ across, down }: CardWish, card: Pick<TestCard, 'columns' | 'rows'>, cell: CardCell): string {
  const value = (axis: CardAxis, values: readonly number[], i: number) =>
    `${values[i]} ${cardSettingOf(axis.setting).counted}`;
  return [down && value(down, card.rows, cell.row), value(across, card.columns, cell.column)]
    .filter(Boolean)
    .join(', ');
}

/** The layers a card burns on: its words first, then a layer for each cell, from the mildest to the fiercest. */
export function cardLayers(card: TestCard, wish: CardWish, cardId: string): Layer[] {
  return [
    {
      id: cardLayerId(cardId, 'words'),
      name: 'Words of the card',
      operation: labelOperation,
      rank: 0,
      settings: { ...usualSettings(), ...wish.words },
    },
    ...card.cells.map(
      (cell, i): Layer => ({
        id: cardLayerId(cardId, cell.key),
        name: cellName(wish, card, cell),
        operation: wish.operation,
        rank: i + 1,
        settings: cell.settings,
      }),
    ),
  ];
}

/** What marks are called for an operation. */
export function markNames(operation: BurntOperation): Readonly<Record<CardMark, string>> {
  return separates(operation)
    ? { under: 'not through', good: 'through', over: 'scorched' }
    : { under: 'too light', good: 'clear', over: 'too deep' };
}

/** Nearly all of an outline has to be cut through for the piece to come out. */
const throughFrom = 0.98;
/** What is darker than the first, and not as dark as the second, can be read, and is not dug out. */
const [clearFrom, deepFrom] = [0.3, 0.95];

/** The mark for a cell by what is seen of it. */
export function markBy({ through, scorched, dark }: BurntLook, operation: BurntOperation): CardMark {
  if (separates(operation)) {
    if (through < throughFrom) return 'under';
    return scorched > 0.5 ? 'over' : 'good';
  }
  if (through > 0.1 || dark > deepFrom) return 'over';
  return dark < clearFrom ? 'under' : 'good';
}

/** How far a setting can go from a cell before another mark, or the edge of the card, is met. */
export interface CardMargin {
  readonly setting: CardSetting;
  /** The last value that is good, on each side. */
  readonly from: number;
  readonly to: number;
  /** What is met beyond them; null at the edge of the card, or where nothing is marked. */
  readonly below: { readonly value: number; readonly mark: CardMark } | null;
  readonly above: { readonly value: number; readonly mark: CardMark } | null;
}

/** How much room there is around a cell along each side of its card. */
export function marginsAround(
  { wish, marks }: Pick<LaidCard, 'wish' | 'marks'>,
  card: Pick<TestCard, 'columns' | 'rows'>,
  { column, row }: Pick<CardCell, 'column' | 'row'>,
): CardMargin[] {
  const along = (
    axis: CardAxis,
    values: readonly number[],
    index: number,
    keyAt: (i: number) => string,
  ): CardMargin => {
    const walk = (step: 1 | -1) => {
      let last = index;
      while (values[last + step] !== undefined && marks[keyAt(last + step)] === 'good') last += step;
      const next = values[last + step];
      const mark = marks[keyAt(last + step)];
      return { last: values[last], met: next !== undefined && mark ? { value: next, mark } : null };
    };
    const [down, up] = (values.at(-1) ?? 0) >= values[0] ? [walk(-1), walk(1)] : [walk(1), walk(-1)];
    return { setting: axis.setting, from: down.last, to: up.last, below: down.met, above: up.met };
  };
  return [
    along(wish.across, card.columns, column, (i) => cellKey(row, i)),
    ...(wish.down ? [along(wish.down, card.rows, row, (i) => cellKey(i, column))] : []),
  ];
}

/** A card that looks closer: from one neighbour of a cell to the other, along each side. */
export function closerCard(wish: CardWish, card: Pick<TestCard, 'columns' | 'rows'>, cell: CardCell): CardWish {
  const around = (axis: CardAxis, values: readonly number[], i: number): CardAxis => ({
    ...axis,
    from: values[Math.max(0, i - 1)],
    to: values[Math.min(values.length - 1, i + 1)],
    steps: axis.setting === 'passes' ? Math.min(3, axis.steps) : 5,
  });
  return {
    ...wish,
    across: around(wish.across, card.columns, cell.column),
    down: wish.down && around(wish.down, card.rows, cell.row),
  };
}
