import { type Item, itemsAmong, pathOf, type Shape } from '@lambent/core/document';
import { replaceShape } from '@lambent/core/edits';
import { invert, type Path, transformPath } from '@lambent/core/geometry';
import { textShape } from '@lambent/core/text';
import { toast } from 'sonner';
import { sentenceOf } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { t } from '../../../words/words.ts';
import { work } from '../../../workers/work.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { newId } from '../../new-id.ts';
import type { BenchActions } from '../../state/bench-state.ts';
import { jobOf } from '../../state/document.ts';

type TextItem = Item & { readonly shape: Extract<Shape, { kind: 'text' }> };

const isText = (item: Item): item is TextItem => item.shape.kind === 'text';

/** Offered where the selection is a text and a line: the text is led along the line. */
export function TextAlong() {
  const actions = useBenchActions();
  const selection = useBench((state) => state.selection);
  const drawing = useBench((state) => jobOf(state).drawing);
  if (selection.size > 2) return null;
  const chosen = itemsAmong(drawing, selection);
  const text = chosen.find(isText);
  const line = chosen.find((item) => item !== text && item.shape.kind !== 'picture');
  if (!text) return null;
  if (chosen.length === 1 && text.shape.text.along) {
    return <Button onClick={() => void setAlong(actions, text, null)}>{t('Set the text straight again')}</Button>;
  }
  if (!line) return null;
  return <Button onClick={() => void setAlong(actions, text, line)}>{t('Lead the text along the line')}</Button>;
}

/** Sets a text along a line's first outline as that is now; null sets it straight. */
async function setAlong(actions: BenchActions, item: TextItem, line: Item | null): Promise<void> {
  const { along: _, ...straight } = item.shape.text;
  const back = invert(item.matrix);
  const along: Path | null = line && back ? transformPath(pathOf(line), back) : null;
  const text = along ? { ...straight, along, width: null } : straight;
  try {
    const made = await work('setText', [text]);
    const { beyond } = made;
    actions.edit(along ? t('lead a text along a line') : t('set a text straight'), (job) =>
      replaceShape(job, item.id, [textShape(text, made)], newId),
    );
    if (beyond > 0)
      toast.message(t('{{beyond}} letters find no room on the line and are left out. Make them smaller.', { beyond }));
  } catch (error) {
    toast.error(sentenceOf(error));
  }
}
