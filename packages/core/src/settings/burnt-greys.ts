import { Mismatch, type Schema, such, type ValueOf } from '../schema/schema.ts';
import { list, record } from '../schema/structures.ts';
import { number } from '../schema/values.ts';
import type { SettingColumn } from './setting.ts';

/** A grey that was burnt: which share of the dots was asked for, and how dark that came out. Both go from 0 to 1. */
const burntGrey = record({ asked: number(0, 1), burnt: number(0, 1) });
export type BurntGrey = ValueOf<typeof burntGrey>;

function greyNamed(i: number): string {
  return `grey ${i + 1}`;
}

/** Greys from the lightest to the darkest: none comes out lighter than one of which less was asked. */
export const burntGreysSchema: Schema<readonly BurntGrey[]> = such(list(burntGrey, { each: greyNamed }), (greys) => {
  const wrong = greys.findIndex(
    ({ asked, burnt }, i) => i > 0 && (asked <= greys[i - 1].asked || burnt < greys[i - 1].burnt),
  );
  return wrong < 0 ? null : new Mismatch('must go from the lightest grey to the darkest', greyNamed(wrong));
});

const name = 'measured greys %';

/** In the book's table: `10:22 20:38`, each asked for and burnt, in per cent. */
export const burntGreysColumn: SettingColumn<readonly BurntGrey[]> = {
  name,
  write: (greys) => greys.map(({ asked, burnt }) => `${percent(asked)}:${percent(burnt)}`).join(' '),
  read: (cell) => {
    const pairs = cell
      .trim()
      .split(/\s+/)
      .map((pair) => pair.split(':').map(Number));
    if (!pairs.every((pair) => pair.length === 2 && pair.every((value) => value >= 0 && value <= 100))) {
      throw new Mismatch(`“${cell}” under “${name}” is not a list such as 10:22 20:38.`);
    }
    return pairs.map(([asked, burnt]) => ({ asked: asked / 100, burnt: burnt / 100 }));
  },
};

const percent = (share: number) => Number((100 * share).toFixed(2));
