import { addItems, replaceShape } from '@lambent/core/edits';
import { multiply, transformPath, translation } from '@lambent/core/geometry';
import { fillsAreas, labelOperation, separates } from '@lambent/core/operations';
import { type SetText, textShape } from '@lambent/core/text';
import { toast } from 'sonner';
import { sentenceOf } from '../../api.ts';
import { t } from '../../words/words.ts';
import { work } from '../../workers/work.ts';
import { newId } from '../new-id.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { jobOf } from '../state/document.ts';
import type { TextEdit } from '../state/hand.ts';
import { drawnItem, itemUnder } from './draw.ts';
import type { Tool, ToolPoint } from './tool.ts';

/** Puts text where the bed is clicked, or opens the text that is clicked. */
export class TextTool implements Tool {
  readonly name = 'text';
  readonly snaps = true;
  readonly from = null;

  constructor(private readonly actions: BenchActions) {
    // The first letters do not wait for the fonts. What goes wrong is said when a text is set.
    if (typeof Worker !== 'undefined') work('families', []).catch(() => {});
  }

  down(): void {
    // The words are typed where the button is let go: a press would take the focus back.
  }

  up({ button, bed, free }: ToolPoint): void {
    if (button !== 0) return;
    const state = this.actions.get();
    if (state.textEdit) {
      void finishText(this.actions);
      return;
    }
    const item = itemUnder(this.actions, free, 6);
    if (item?.shape.kind === 'text') editText(this.actions, item.id);
    else
      openText(this.actions, {
        itemId: null,
        at: bed,
        setting: { ...state.toolOptions.text, words: '' },
        outlined: null,
      });
  }

  move(): void {
    // Nothing follows the pointer.
  }

  cancel(): boolean {
    const was = this.actions.get().textEdit !== null;
    dropText(this.actions);
    return was;
  }
}

/** Opens an item's text to be changed. */
export function editText(actions: BenchActions, itemId: string): void {
  const item = jobOf(actions.get()).drawing.items.find(({ id }) => id === itemId);
  if (item?.shape.kind !== 'text') return;
  actions.select([itemId]);
  openText(actions, { itemId, at: { x: 0, y: 0 }, setting: item.shape.text, outlined: null });
}

function openText(actions: BenchActions, edit: TextEdit): void {
  actions.writeText(edit);
  void resetText(actions, edit.setting);
}

let asked = 0;

/** Sets the text that is being written anew, as its setting now is. */
export async function resetText(actions: BenchActions, setting: TextEdit['setting']): Promise<void> {
  const edit = actions.get().textEdit;
  if (!edit) return;
  actions.writeText({ ...edit, setting });
  const turn = ++asked;
  try {
    const text = await work('setText', [setting]);
    const now = actions.get().textEdit;
    if (turn !== asked || !now) return;
    actions.writeText({ ...now, outlined: { text, setting } });
    actions.showDraft({ outline: transformPath(text.path, placeOf(actions, now)), at: now.at });
  } catch (error) {
    if (turn === asked) toast.error(sentenceOf(error));
  }
}

function placeOf(actions: BenchActions, { itemId, at }: TextEdit) {
  const item = jobOf(actions.get()).drawing.items.find(({ id }) => id === itemId);
  return item?.matrix ?? translation(at.x, at.y);
}

/** Puts the text into the drawing as it is written; an empty one is none. */
export async function finishText(actions: BenchActions): Promise<void> {
  const edit = actions.get().textEdit;
  if (!edit) return;
  const { itemId, setting, outlined } = edit;
  let text: SetText;
  try {
    text = outlined?.setting === setting ? outlined.text : await work('setText', [setting]);
  } catch (error) {
    toast.error(t('The text could not be set, and stays on its card. {{error}}', { error: sentenceOf(error) }));
    return;
  }
  const { singleLine } = text;
  dropText(actions);
  actions.setToolOptions({ text: { ...setting, words: '' } });
  const empty = setting.words.trim() === '';
  const shape = textShape(setting, text);
  if (itemId)
    actions.edit(empty ? t('delete a text') : t('change a text'), (job) =>
      replaceShape(job, itemId, empty ? [] : [shape], newId),
    );
  else if (!empty) {
    const { operation } = actions.get().toolOptions;
    // Single lines have no inside to engrave; letters with one are engraved unless told otherwise.
    const meant = singleLine
      ? fillsAreas(operation)
        ? labelOperation
        : operation
      : separates(operation)
        ? 'engrave'
        : operation;
    const item = drawnItem(actions, shape, meant);
    actions.edit(t('write a text'), (job) =>
      addItems(job, [
        { ...item, fillRule: 'nonzero', matrix: multiply(translation(edit.at.x, edit.at.y), item.matrix) },
      ]),
    );
    actions.select([item.id]);
  }
}

/** Leaves a text that is being written without keeping it. */
export function dropText(actions: BenchActions): void {
  asked++;
  actions.writeText(null);
  actions.showDraft(null);
}
