import type { DrawingDifference } from '@lambent/contracts';
import { t } from '../words/words.ts';

interface Props {
  readonly difference: DrawingDifference;
  /** Where its picture is. */
  readonly picture: string;
}

/** What a new file changes of the one before: a picture of both, and how many lines stay, go, come and are done otherwise. */
export function DifferenceView({ difference, picture }: Props) {
  const { same, otherwise, gone, added } = difference;
  const kinds = [
    { name: t('New'), count: added, look: 'border-t-2 border-[#2E7D4F]' },
    { name: t('Gone'), count: gone, look: 'border-t-2 border-dashed border-[#B3261E]' },
    { name: t('Done otherwise'), count: otherwise, look: 'border-t-3 border-dotted border-[#8A5200]' },
    { name: t('As before'), count: same, look: 'border-t border-[#9A9A92]' },
  ];
  const isSame = otherwise + gone + added === 0;
  return (
    <>
      <div className="flex h-48 items-center justify-center rounded-lg border border-line bg-raised p-3">
        <img src={picture} alt={t('The new file over the one before')} className="max-h-full max-w-full" />
      </div>
      {isSame && <p className="mt-2 font-semibold">{t('It draws the same as the one before.')}</p>}
      <ul aria-label={t('Lines that change')} className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
        {kinds.map(({ name, count, look }) => (
          <li key={name} className="flex items-center gap-1.5">
            <span className={`w-5 ${look}`} aria-hidden />
            {name} <span className="figures">{count}</span>
          </li>
        ))}
      </ul>
    </>
  );
}
