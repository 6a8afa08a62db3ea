import { useRef } from 'react';
import { t } from '../../words/words.ts';
import { ruler, toScreen } from '../bed/view.ts';
import { useBench, useBenchActions } from '../context.ts';
import { DraftNumber } from './draft-number.tsx';
import { beginsNumber, useKeyToField } from './use-key-to-field.ts';

/**
 * The numbers of what is being drawn, beside the pointer. A digit starts typing, Tab goes on, Enter draws it;
 * the pointer passes through them, as it is drawing.
 */
export function DraftEntry() {
  const actions = useBenchActions();
  const draft = useBench((state) => state.draft);
  const view = useBench((state) => state.view);
  const { width, height } = useBench((state) => state.viewSize);
  const holder = useRef<HTMLFieldSetElement>(null);
  const open = draft !== null && draft.fields.length > 0;

  useKeyToField(open, holder, (event) => {
    if (event.key === 'Tab') event.preventDefault();
    return event.key === 'Tab' || beginsNumber(event.key);
  });

  if (!draft || !open) return null;
  const place = toScreen(view, draft.at.x, draft.at.y);
  const left = Math.max(4, Math.min(width - 250, place.x + 18)) + ruler;
  const top = Math.max(4, Math.min(height - 120, place.y + 18)) + ruler;
  return (
    <fieldset
      ref={holder}
      aria-label={t('What is being drawn')}
      className="pointer-events-none absolute z-20 flex flex-col gap-1 rounded-lg border border-line bg-paper p-1.5 shadow-float"
      style={{ left, top }}
    >
      <div className="flex gap-1.5">
        {draft.fields.map(({ name, label, kind, value, typed }) => (
          <DraftNumber
            key={name}
            label={label}
            kind={kind}
            value={value}
            isTyped={typed}
            take={(next) => actions.get().tool?.type?.(name, next)}
            enter={() => actions.get().tool?.finish?.()}
            leave={() => actions.get().tool?.cancel()}
            follows
          />
        ))}
      </div>
      {draft.trouble && <p className="max-w-[230px] text-[12px] text-warn">{draft.trouble}</p>}
    </fieldset>
  );
}
