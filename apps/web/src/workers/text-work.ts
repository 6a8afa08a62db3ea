import type { CodeSetting, Item, RowList, Shape, TextSetting } from '@lambent/core/document';
import type { Progress } from '@lambent/core/geometry';
import type { FilledRows } from '@lambent/core/rows';
import type { FontBook, SetText } from '@lambent/core/text';
import { fontBook, loadText } from './worker-files.ts';

/** The fonts that text is set in on the Bench; made anew when the list of them is asked for. */
let book: Promise<FontBook> | null = null;

/** What the worker knows to do with words: texts, codes, and designs for the rows of a list. */
export const textWork = {
  /** Sets a text in the fonts there are. */
  async setText(_: Progress, setting: TextSetting): Promise<SetText> {
    book ??= fontBook();
    return (await loadText()).setText(setting, await book);
  },

  /** The families there are to set text in; asks anew, for one may have been loaded. */
  async families(_: Progress): Promise<string[]> {
    book = fontBook();
    return (await book).families;
  },

  /** A code as a shape. @throws Error with a sentence where it cannot be made */
  async makeCode(_: Progress, setting: CodeSetting): Promise<Shape> {
    return (await import('./rows-work.ts')).makeCode(setting);
  },

  /**
   * The design for each row of a list.
   * @param leastSizes how low capitals may become, or how narrow the parts of a code, in mm, by the id of the item
   */
  async filledRows(
    _: Progress,
    design: readonly Item[],
    list: Pick<RowList, 'columns' | 'rows'>,
    date: string,
    leastSizes: ReadonlyMap<string, number>,
  ): Promise<FilledRows> {
    book ??= fontBook();
    const { fillRows } = await import('./rows-work.ts');
    return fillRows(design, list, { book: await book, date, leastOf: ({ id }) => leastSizes.get(id) ?? 0 });
  },
};
