import { useId, useState } from 'react';
import { t } from '../words/words.ts';
import { Doubts } from './doubts.tsx';
import type { MachineDraft } from './machine-draft.ts';

/** Lines of the shop's own that every program of the machine begins and ends with. */
export function OwnLines(props: MachineDraft) {
  return (
    <section className="border-t border-line py-3.5" aria-label={t('Programs')}>
      <h2 className="font-bold">{t('Programs')}</h2>
      <p className="mb-2 text-[12px] text-quiet">
        {t('Lines of your own, such as those that switch an exhaust. They cannot light the beam or move the head.')}
      </p>
      <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
        <LinesField {...props} name="startLines" label={t('At the start')} />
        <LinesField {...props} name="endLines" label={t('At the end')} />
      </div>
    </section>
  );
}

const mostLines = 20;

function LinesField(props: MachineDraft & { name: 'startLines' | 'endLines'; label: string }) {
  const { name, label, draft, change, doubts } = props;
  const id = useId();
  // What is typed stays as it is, blank lines and all, while the field has it.
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <Doubts about={name} doubts={doubts}>
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      <textarea
        id={id}
        rows={3}
        spellCheck={false}
        value={typed ?? (draft[name] ?? []).join('\n')}
        onChange={(event) => {
          setTyped(event.target.value);
          const lines = event.target.value.split('\n').flatMap((line) => (line.trim() ? [line.trim()] : []));
          change({ [name]: lines.length > 0 ? lines.slice(0, mostLines) : undefined });
        }}
        onBlur={() => setTyped(null)}
        className="figures mt-1 w-full resize-y rounded-lg border border-line bg-raised px-2.5 py-1.5 text-[12.5px] focus:border-petrol focus:outline-none"
      />
    </Doubts>
  );
}
