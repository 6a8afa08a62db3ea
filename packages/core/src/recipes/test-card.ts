import { type Operation, operationNames } from '../colours/operation.ts';
import { type Layer, type LayerSettings, usualSettings } from '../drawing/layer.ts';

/*
 * Test cards: grids of cells that burn with settings that differ from one to the next, with words that say which. Plain
 * numbers here; the page lays them on a sheet, and the whole is a job like any other.
 */

/** What can differ along a side of a card. */
export type CardSetting = 'powerPercent' | 'speedMmPerS' | 'passes' | 'focusMm' | 'lineSpacingMm';

export interface CardAxis {
  readonly setting: CardSetting;
  readonly from: number;
  readonly to: number;
  readonly steps: number;
}

export interface CardWish {
  readonly operation: Extract<Operation, 'cut' | 'score' | 'engrave'>;
  readonly across: CardAxis;
  /** Null for a card of one row. */
  readonly down: CardAxis | null;
  /** What all cells have in common; power and speed among it where they differ along no side. */
  readonly rest: Partial<LayerSettings>;
  /** What the words are scored with: settings that are known to be safe. */
  readonly words: Pick<LayerSettings, 'powerPercent' | 'speedMmPerS'>;
  readonly cellMm: number;
  readonly gapMm: number;
}

/** A cell, in mm from the card's top left, y down. */
export interface CardCell {
  readonly id: string;
  readonly column: number;
  readonly row: number;
  readonly x: number;
  readonly y: number;
  readonly settings: LayerSettings;
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

const units: Readonly<Record<CardSetting, string>> = {
  powerPercent: '%',
  speedMmPerS: 'mm/s',
  passes: 'passes',
  focusMm: 'mm focus',
  lineSpacingMm: 'mm lines',
};

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
  const { across, down, rest, cellMm, gapMm } = wish;
  const columns = valuesAlong(across);
  const rows = down ? valuesAlong(down) : [];
  const pitch = cellMm + gapMm;
  const cells = (down ? rows : [null]).flatMap((value, row) =>
    columns.map((wide, column): CardCell => {
      const settings = {
        ...usualSettings,
        ...rest,
        ...(down && value !== null ? { [down.setting]: value } : {}),
        [across.setting]: wide,
      } as Partial<LayerSettings>;
      if (settings.powerPercent === undefined || settings.speedMmPerS === undefined) {
        throw new RangeError('layCard: every cell needs a power and a speed');
      }
      return {
        id: `card-${row + 1}-${column + 1}`,
        column,
        row,
        x: besideMm + column * pitch,
        y: row * pitch,
        settings: settings as LayerSettings,
      };
    }),
  );
  const height = Math.max(1, rows.length) * pitch - gapMm;
  const width = besideMm + columns.length * pitch - gapMm;
  const middle = (i: number) => besideMm + i * pitch + cellMm / 2;
  return {
    cells: cells.toSorted((a, b) => fierceness(a.settings) - fierceness(b.settings)),
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
      { words: titleOf(wish), x: (besideMm + width) / 2, y: height + 8, align: 'middle' },
    ],
    width,
    height: height + belowMm,
  };
}

function titleOf({ operation, across, down }: CardWish): string {
  const beside = down ? `${units[down.setting]} down, ` : '';
  return `${operationNames[operation]}: ${beside}${units[across.setting]} across`;
}

/** How much energy a cell gets, against the others of its card. */
function fierceness({ powerPercent, passes, speedMmPerS, lineSpacingMm }: LayerSettings): number {
  return (powerPercent * passes) / speedMmPerS / lineSpacingMm;
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

/** The layers a card burns on: its words first, then a layer for each cell, from the mildest to the fiercest. */
export function cardLayers(card: TestCard, { operation, across, down, words }: CardWish): Layer[] {
  const value = (cell: CardCell, axis: CardAxis) => `${cell.settings[axis.setting]} ${units[axis.setting]}`;
  return [
    {
      id: 'card-words',
      name: 'Words of the card',
      operation: 'score',
      rank: 0,
      settings: { ...usualSettings, ...words },
    },
    ...card.cells.map(
      (cell, i): Layer => ({
        id: cell.id,
        name: [down && value(cell, down), value(cell, across)].filter(Boolean).join(', '),
        operation,
        rank: i + 1,
        settings: cell.settings,
      }),
    ),
  ];
}
