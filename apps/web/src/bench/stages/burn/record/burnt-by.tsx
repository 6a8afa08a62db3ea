import type { RunAnswer } from '@lambent/contracts';
import { operationOf } from '@lambent/core/operations';
import { settingOf } from '@lambent/core/settings';
import { formatClock } from '@lambent/core/units';
import { useQuery } from '@tanstack/react-query';
import { api, sentenceOf } from '../../../../api.ts';
import { useInSentence } from '../../../../stores/numbers.ts';
import { Notice } from '../../../../ui/notice.tsx';
import { said, t } from '../../../../words/words.ts';

/** Said of every layer. */
const always = ['powerPercent', 'speedMmPerS'] as const;

/** What a run was planned by: its order with times, and what each layer burnt with. */
export default function BurntBy({ run }: { run: RunAnswer }) {
  const inSentence = useInSentence();
  const basis = useQuery({
    queryKey: ['run basis', run.id],
    queryFn: () => api.runBasis(run.id),
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (basis.isError) return <Notice level="warns">{sentenceOf(basis.error)}</Notice>;
  if (!basis.data) return <p className="text-[12px] text-quiet">{t('Asking for it…')}</p>;
  const { layers, steps } = basis.data;
  return (
    <div className="mt-1 flex flex-col gap-1.5 border-t border-line pt-1.5 text-[12px]" data-testid="burnt-by">
      <ol className="flex flex-col">
        {steps.map(({ title, timeS }, i) => (
          <li key={`${i} ${title}`} className="flex justify-between gap-2">
            <span className="min-w-0 truncate">{title}</span>
            <span className="figures">{formatClock(timeS)}</span>
          </li>
        ))}
      </ol>
      <ul className="flex flex-col gap-1">
        {layers.map(({ id, name, operation, material, settings }) => (
          <li key={id}>
            <b>{name}</b>
            {name !== operationOf(operation).name && ` (${said(operationOf(operation).name)})`}
            {material && `, ${inSentence(material)}`}:{' '}
            {always
              .map((setting) => {
                const { words, unit } = settingOf(setting);
                return inSentence(`${words} ${settings[setting]} ${unit}`);
              })
              .join(', ')}
            , {settings.passes === 1 ? t('1 pass') : t('{{passes}} passes', { passes: settings.passes })}
          </li>
        ))}
      </ul>
    </div>
  );
}
