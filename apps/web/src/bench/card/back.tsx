import { ArrowLeft } from 'lucide-react';
import { t } from '../../words/words.ts';

/** The way back to the settings, from a card that is made or read. */
export function BackToRecipe({ leave }: { leave: () => void }) {
  return (
    <button type="button" onClick={leave} className="flex items-center gap-1 font-semibold text-petrol">
      <ArrowLeft size={14} aria-hidden />
      {t('Recipe')}
    </button>
  );
}
