import { keyTroubles, type Rule } from '@lambent/core/colours';
import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import { useMemo } from 'react';
import { Button, IconButton } from '../ui/button.tsx';
import { LengthField } from '../ui/length-field.tsx';
import { t } from '../words/words.ts';
import { type KeyDraft, KeyLayers } from './key-layers.tsx';
import { RuleFields } from './rule-fields.tsx';

/** A key's name, rules and layers. The first rule that fits a paint decides. */
export function KeyEditor({ draft, change }: KeyDraft) {
  const troubles = useMemo(() => keyTroubles(draft), [draft]);
  const setRule = (index: number, rule: Rule) =>
    change({ ...draft, rules: draft.rules.map((known, i) => (i === index ? rule : known)) });
  const move = (index: number, delta: -1 | 1) => {
    const rules = [...draft.rules];
    [rules[index], rules[index + delta]] = [rules[index + delta], rules[index]];
    change({ ...draft, rules });
  };
  const add = () => {
    const layerId = draft.layers[0]?.id ?? 'cut';
    const rule: Rule = { part: 'stroke', colour: '#000000', tolerance: 1, minWidthMm: null, maxWidthMm: null, layerId };
    change({ ...draft, rules: [...draft.rules, rule] });
  };
  return (
    <>
      <input
        aria-label={t('Name of the key')}
        value={draft.name}
        maxLength={120}
        onChange={(event) => change({ ...draft, name: event.target.value })}
        className="-ml-1 mb-3 w-full rounded border border-transparent bg-transparent px-1 text-xl font-bold hover:border-line focus:border-petrol focus:outline-none"
      />
      <div className="mb-4 flex items-end gap-3">
        <div className="w-[140px]">
          <LengthField
            label={t('Hairline (0: none)')}
            unit="mm"
            value={draft.hairlineMm ?? 0}
            takes="not-below-0"
            commit={(mm) => change({ ...draft, hairlineMm: mm === 0 ? null : mm })}
          />
        </div>
        <p className="pb-1.5 text-[12px] text-quiet">
          {t('Strokes wider than that, on a layer that engraves, burn as what they cover.')}
        </p>
      </div>
      <h2 className="mb-1.5 font-bold">{t('Rules')}</h2>
      {troubles
        .filter(({ rule }) => rule === null)
        .map(({ message }) => (
          <p key={message} className="mb-2 text-warn">
            {message}
          </p>
        ))}
      <ol className="flex flex-col gap-2" aria-label={t('Rules')}>
        {draft.rules.map((rule, i) => (
          <li
            key={`${i} ${draft.rules.length}`}
            className="rounded-[10px] border border-line bg-raised p-2.5"
            aria-label={t('Rule {{i}}', { i: i + 1 })}
          >
            <RuleFields rule={rule} layers={draft.layers} change={(next) => setRule(i, next)}>
              <span className="figures w-5 shrink-0 text-right text-[12px] text-quiet">{i + 1}</span>
              <span className="ml-auto flex shrink-0">
                <IconButton
                  label={t('Rule {{i}} earlier', { i: i + 1 })}
                  className="size-7"
                  disabled={i === 0}
                  onClick={() => move(i, -1)}
                >
                  <ArrowUp size={14} aria-hidden />
                </IconButton>
                <IconButton
                  label={t('Rule {{i}} later', { i: i + 1 })}
                  className="size-7"
                  disabled={i === draft.rules.length - 1}
                  onClick={() => move(i, 1)}
                >
                  <ArrowDown size={14} aria-hidden />
                </IconButton>
                <IconButton
                  label={t('Take rule {{i}} away', { i: i + 1 })}
                  className="size-7"
                  onClick={() => change({ ...draft, rules: draft.rules.filter((_, k) => k !== i) })}
                >
                  <Trash2 size={14} aria-hidden />
                </IconButton>
              </span>
            </RuleFields>
            {troubles
              .filter(({ rule: ruleIndex }) => ruleIndex === i)
              .map(({ message }) => (
                <p key={message} role="alert" className="mt-1.5 text-[12px] text-warn">
                  {message}
                </p>
              ))}
          </li>
        ))}
      </ol>
      <Button className="mt-2" onClick={add}>
        <Plus size={15} aria-hidden />
        {t('Another rule')}
      </Button>
      <KeyLayers draft={draft} change={change} />
    </>
  );
}
