import { useState } from 'react';
import { t } from '../words/words.ts';

/** A colour, typed as `#RRGGBB` or picked. */
export function ColourField({ colour, change }: { colour: string; change: (colour: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = typed !== null && !/^#?[0-9a-f]{6}$/i.test(typed.trim());
  const settle = () => {
    if (typed !== null && !wrong) change(`#${typed.trim().replace('#', '')}`.toUpperCase());
    setTyped(null);
  };
  return (
    <span className="flex items-center gap-1">
      <input
        type="color"
        aria-label={t('Pick instead of {{colour}}', { colour })}
        value={colour.toLowerCase()}
        onChange={(event) => change(event.target.value.toUpperCase())}
        className="size-7 cursor-pointer rounded border border-line bg-raised p-0.5"
      />
      <input
        aria-label={t('Colour')}
        value={typed ?? colour}
        aria-invalid={wrong}
        title={wrong ? t('A colour is # and six digits, such as #D0481E') : undefined}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={settle}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') setTyped(null);
        }}
        className="figures h-7 w-[84px] rounded-lg border border-line bg-raised px-2 text-[12.5px] aria-invalid:border-stop focus:border-petrol focus:outline-none"
      />
    </span>
  );
}
