import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import type { MachineDraft } from './machine-draft.ts';

/** How the axes truly run, as a burnt square showed, where that is known. */
export function AxesField({ draft, change }: MachineDraft) {
  const { axes } = draft;
  if (!axes) return null;
  const percent = (share: number) => `${(100 * share).toFixed(3)} %`;
  return (
    <section className="border-t border-line py-3.5" aria-label={t('Axes')}>
      <h2 className="font-bold">{t('Axes')}</h2>
      <p className="mb-2 text-[12px] text-quiet">
        {t('Measured on a burnt square. Programs correct for it, so that what burns is true to scale and square.')}
      </p>
      <p className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
        <span>
          {t('X goes')} <span className="figures">{percent(axes.x)}</span>
        </span>
        <span>
          {t('Y goes')} <span className="figures">{percent(axes.y)}</span>
        </span>
        <span>
          {t('Y leans along X by')} <span className="figures">{(1000 * axes.lean).toFixed(2)}</span> {t('mm a metre')}
        </span>
        <Button onClick={() => change({ axes: undefined })}>{t('Take them as true')}</Button>
      </p>
    </section>
  );
}
