import { parseLength } from '@lambent/core/units';
import { useEffect, useRef, useState } from 'react';
import { formatLength } from '../../ui/figures.ts';
import { parseAngle } from '../../ui/plain-number.ts';
import { toScreen } from '../bed/view.ts';
import { useBench, useBenchActions } from '../context.ts';
import { unitOf } from '../state/document.ts';
import { isTyping } from '../use-shortcuts.ts';
import type { DraftField } from './tool.ts';

const ruler = 22;

/**
 * The numbers of what is being drawn, beside the pointer. A digit starts typing, Tab goes on, Enter draws it;
 * the pointer passes through them, as it is drawing.
 */
export function DraftEntry() {
  const draft = useBench((state) => state.draft);
  const view = useBench((state) => state.view);
  const { width, height } = useBench((state) => state.viewSize);
  const holder = useRef<HTMLFieldSetElement>(null);
  const open = draft !== null && draft.fields.length > 0;

  useEffect(() => {
    if (!open) return;
    const begin = (event: KeyboardEvent) => {
      if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (!/^[0-9.,(-]$/.test(event.key) && event.key !== 'Tab') return;
      if (event.key === 'Tab') event.preventDefault();
      // The key that begins the typing goes into the field that it brings to hand.
      const input = holder.current?.querySelector('input');
      input?.focus();
      input?.select();
      event.stopImmediatePropagation();
    };
    window.addEventListener('keydown', begin, { capture: true });
    return () => window.removeEventListener('keydown', begin, { capture: true });
  }, [open]);

  if (!draft || !open) return null;
  const place = toScreen(view, draft.at.x, draft.at.y);
  const left = Math.max(4, Math.min(width - 250, place.x + 18)) + ruler;
  const top = Math.max(4, Math.min(height - 120, place.y + 18)) + ruler;
  return (
    <fieldset
      ref={holder}
      aria-label="What is being drawn"
      className="pointer-events-none absolute z-20 flex flex-col gap-1 rounded-lg border border-line bg-paper p-1.5 shadow-float"
      style={{ left, top }}
    >
      <div className="flex gap-1.5">
        {draft.fields.map((field) => (
          <DraftNumber key={field.name} field={field} />
        ))}
      </div>
      {draft.trouble && <p className="max-w-[230px] text-[12px] text-warn">{draft.trouble}</p>}
    </fieldset>
  );
}

function DraftNumber({ field }: { field: DraftField }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const [text, setText] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const shown =
    field.kind === 'length'
      ? formatLength(field.value, unit, { bare: true })
      : String(Math.round(field.value * 100) / 100);
  const parse = (typed: string) => (field.kind === 'length' ? parseLength(typed, unit) : parseAngle(typed));
  const take = (): boolean => {
    if (text === null || text.trim() === '') return true;
    const parsed = parse(text);
    const refusal = parsed.ok ? actions.get().tool?.type?.(field.name, parsed.value) : parsed.reason;
    setTrouble(refusal ?? null);
    if (!refusal) setText(null);
    return !refusal;
  };
  /** The draft follows what is typed, as far as it makes sense yet. */
  const follow = (typed: string) => {
    const parsed = parse(typed);
    if (parsed.ok) actions.get().tool?.type?.(field.name, parsed.value);
  };
  return (
    <label className="flex flex-col">
      <span
        className={`flex h-7 items-center gap-1 rounded-md border bg-raised px-1.5 focus-within:border-petrol ${trouble ? 'border-stop' : field.typed ? 'border-petrol' : 'border-line'}`}
      >
        <span className="text-[12px] text-quiet">{field.label}</span>
        <input
          aria-label={field.label}
          value={text ?? shown}
          className="figures w-[62px] bg-transparent text-[12.5px] outline-none"
          autoComplete="off"
          onChange={(event) => {
            setText(event.target.value);
            follow(event.target.value);
          }}
          onBlur={take}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              event.preventDefault();
              event.stopPropagation();
              if (take()) {
                event.currentTarget.blur();
                actions.get().tool?.finish?.();
              }
            } else if (event.key === 'Tab' && !take()) event.preventDefault();
            else if (event.key === 'Escape') {
              event.stopPropagation();
              event.currentTarget.blur();
              actions.get().tool?.cancel();
            }
          }}
        />
        <span className="figures text-[12px] text-quiet">{field.kind === 'length' ? unit : '°'}</span>
      </span>
      {trouble && (
        <span role="alert" className="max-w-[150px] text-[12px] text-stop">
          {trouble}
        </span>
      )}
    </label>
  );
}
