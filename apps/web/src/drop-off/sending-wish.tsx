import type { DropOffAnswer, SendingAnswer, SendingWishDto } from '@lambent/contracts';
import { asLength } from '../ui/figures.ts';
import { t } from '../words/words.ts';
import { CommitField } from './commit-field.tsx';

interface Props {
  readonly sending: SendingAnswer;
  readonly about: DropOffAnswer;
  readonly change: (what: Partial<SendingWishDto>) => void;
}

/** What a drawing is to be made of, how often, and how wide. */
export function SendingWish({ sending, about, change }: Props) {
  const { wish, look } = sending;
  const choices = [
    ...about.materials.map(({ id, name, thicknessMm, tone }) => ({
      id,
      name,
      aside: asLength(thicknessMm, 'mm'),
      tone,
    })),
    { id: '', name: t('I bring my own'), aside: '', tone: '#FFFFFF' },
  ];
  const whole = (text: string) => (/^\d{1,4}$/.test(text) && Number(text) >= 1 ? Number(text) : null);
  const length = (text: string) => {
    const mm = Number(text.replace(',', '.').replace(/\s*mm$/, ''));
    return mm >= 0.1 && mm <= 5000 ? mm : null;
  };
  return (
    <>
      <fieldset>
        <legend className="mb-1 text-quiet">{t('Made of')}</legend>
        <div className="grid grid-cols-2 gap-2 xl:grid-cols-3">
          {choices.map(({ id, name, aside, tone }) => (
            <label
              key={id}
              className="flex cursor-pointer items-center gap-2.5 rounded-lg border border-line bg-raised px-3 py-2 hover:border-petrol has-checked:border-petrol has-checked:ring-1 has-checked:ring-petrol has-focus-visible:outline-2 has-focus-visible:outline-petrol"
            >
              <input
                type="radio"
                name="material"
                className="sr-only"
                checked={wish.materialId === id}
                onChange={() => change({ materialId: id })}
              />
              <span className="size-5 shrink-0 rounded border border-line" style={{ background: tone }} aria-hidden />
              <span className="min-w-0">
                <span className="block truncate font-semibold">{name}</span>
                <span className="figures block text-[12px] text-quiet">{aside}</span>
              </span>
            </label>
          ))}
        </div>
      </fieldset>
      {wish.materialId === '' && (
        <div className="mt-3">
          <CommitField
            label={t('What you bring, and how thick it is')}
            value={wish.ownStock}
            maxLength={200}
            read={(text) => text.slice(0, 200)}
            commit={(ownStock) => change({ ownStock })}
          />
        </div>
      )}
      <div className="mt-3 grid grid-cols-2 gap-3">
        <CommitField
          label={t('How many')}
          value={String(wish.copies)}
          inputMode="numeric"
          read={whole}
          wrong={t('How many is 1 or more.')}
          commit={(copies) => change({ copies })}
        />
        <CommitField
          label={t('Width in mm')}
          value={String(look.widthMm)}
          inputMode="decimal"
          read={length}
          wrong={t('A width lies between 0.1 and 5000 mm.')}
          commit={(widthMm) => change({ widthMm })}
        />
        {look.pages > 1 && (
          <CommitField
            label={t('Page, of {{pages}}', { pages: look.pages })}
            value={String(wish.page)}
            inputMode="numeric"
            read={(text) => (Number(text) <= look.pages ? whole(text) : null)}
            wrong={t('The file has {{pages}} pages.', { pages: look.pages })}
            commit={(page) => change({ page, widthMm: 0, answers: [] })}
          />
        )}
      </div>
    </>
  );
}
