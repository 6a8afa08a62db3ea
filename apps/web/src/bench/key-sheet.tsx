import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Button } from '../ui/button.tsx';
import { SearchField } from '../ui/search-field.tsx';
import { Tick } from '../ui/tick.tsx';
import { t } from '../words/words.ts';
import {
  chooseLetter,
  isTool,
  type LetterName,
  letterNames,
  letterOf,
  switchLetters,
  takeUsualLetters,
  useOwnKeys,
} from './own-keys.ts';
import { keysOf, shortcuts } from './shortcuts.ts';
import { toolLooks } from './tools/tool-looks.ts';

type ShortcutName = keyof typeof shortcuts;

/** The keys, on one sheet, and where their letters are changed or switched off. */
export function KeySheet({ open, close }: { open: boolean; close: () => void }) {
  const { isOn, letters } = useOwnKeys();
  const names = (Object.keys(shortcuts) as ShortcutName[]).filter(
    (name) => shortcuts[name].does !== null && keysOf(name) !== null,
  );
  return (
    <Dialog open={open} onClose={close} className="relative z-40">
      <div className="fixed inset-0 flex items-center justify-center bg-ink/20 p-6">
        <DialogPanel className="flex max-h-full w-[720px] flex-col rounded-xl border border-line bg-paper shadow-float">
          <DialogTitle className="px-5 pb-3 pt-5 text-[16px] font-bold">{t('Keyboard')}</DialogTitle>
          <div className="min-h-0 flex-1 overflow-y-auto px-5">
            <SearchGuide />
            <dl className="mb-4 gap-x-6 sm:columns-2">
              {names.map((name) => (
                <div key={name} className="grid break-inside-avoid grid-cols-[124px_1fr] gap-x-2 py-[3px]">
                  <dt className="figures text-[12.5px]">{keysOf(name)}</dt>
                  <dd>{shortcuts[name].does}</dd>
                </div>
              ))}
            </dl>
            <section aria-labelledby="own-letters" className="mb-4 border-t border-line pt-3">
              <h3 id="own-letters" className="mb-2 font-bold">
                {t('Letters of your own')}
              </h3>
              <Tick checked={isOn} set={switchLetters}>
                {t('Single letters, digits and signs are shortcuts')}
              </Tick>
              {isOn && (
                <div className="mt-2 grid grid-cols-2 gap-x-6 gap-y-1.5 sm:grid-cols-3">
                  {letterNames.map((name) => (
                    <Letter key={name} name={name} />
                  ))}
                </div>
              )}
            </section>
          </div>
          <div className="flex gap-2 border-t border-line px-5 py-3">
            <Button look="main" onClick={close}>
              {t('Close')}
            </Button>
            {Object.keys(letters).length > 0 && (
              <Button onClick={takeUsualLetters}>{t('Take the usual letters again')}</Button>
            )}
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

/** Looks something up in the guide. */
function SearchGuide() {
  const navigate = useNavigate();
  const [sought, setSought] = useState('');
  return (
    <search>
      <form
        className="mb-4 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void navigate(`/guide?${new URLSearchParams({ sought })}`);
        }}
      >
        <SearchField label={t('Search the guide')} value={sought} change={setSought} className="min-w-0 flex-1" />
        <Button type="submit">{t('Search')}</Button>
      </form>
    </search>
  );
}

/** One letter, to be typed over. */
function Letter({ name }: { name: LetterName }) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const words = wordsFor(name);
  return (
    <label className="flex flex-col">
      <span className="flex items-center justify-between gap-2">
        {words}
        <input
          value={letterOf(name)}
          aria-invalid={trouble !== null}
          autoComplete="off"
          onFocus={(event) => event.target.select()}
          onChange={(event) => setTrouble(chooseLetter(name, event.target.value.slice(-1), wordsFor))}
          onBlur={() => setTrouble(null)}
          className="figures size-8 rounded-lg border border-line bg-raised text-center uppercase focus:border-petrol focus:outline-none aria-invalid:border-stop"
        />
      </span>
      {trouble && (
        <span role="alert" className="text-[12px] text-stop">
          {trouble}
        </span>
      )}
    </label>
  );
}

function wordsFor(name: LetterName): string {
  if (isTool(name)) return toolLooks[name].text;
  const words = {
    catching: t('Catch points'),
    mark: t('Mark a point'),
    showBed: t('Show the bed'),
    look: t('Drawn as'),
  };
  return name === 'showSelection' ? t('Show the selection') : words[name];
}
