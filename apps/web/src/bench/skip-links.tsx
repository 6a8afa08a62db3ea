import { t } from '../words/words.ts';

/** Where one can go without the Tab key stopping at all that lies before. */

const places = [
  { id: 'bed', text: t('To the bed') },
  { id: 'tools', text: t('To the tools') },
  { id: 'drawer', text: t('To the drawer') },
  { id: 'strip', text: t('To the burn order') },
] as const;

/** The first stops of the Tab key: each is seen while it has the focus, and leads to a place of the Bench. */
export function SkipLinks() {
  return (
    <nav aria-label={t('Skip to')} className="contents">
      {places.map(({ id, text }) => (
        <button
          key={id}
          type="button"
          onClick={() => goTo(id)}
          className="sr-only z-50 rounded-lg border border-petrol bg-paper px-3 font-semibold text-petrol shadow-float focus:not-sr-only focus:absolute focus:left-3 focus:top-2 focus:h-8"
        >
          {text}
        </button>
      ))}
    </nav>
  );
}

function goTo(id: string): void {
  const place = document.getElementById(id);
  if (!place) return;
  const first = place.querySelector<HTMLElement>('a, button:not(:disabled, [tabindex="-1"]), input:not(:disabled)');
  (place.tabIndex < 0 && place.hasAttribute('tabindex') ? place : (first ?? place)).focus();
}
